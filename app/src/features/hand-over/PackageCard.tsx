import { Button } from '@rneui/themed';
import { View } from 'react-native';
import type { FormatLeft, PackageView } from '@ipsonomo/core/api';
import { FORMAT_TITLES, leftOutWords } from '@ipsonomo/language/hand-over-files';
import { HAND_OVER_WORDS } from '@ipsonomo/language/screens/hand-over';
import type { PackageNow } from '../../data';
import { Card, Refusals, Words } from '../../parts';
import { issuesOf } from '../words';

interface Props {
  readonly made: PackageNow;
  /** It was saved. */
  readonly onTook: () => void;
}

/** Files that are being written: how far, then what is in them and what is not. */
export function PackageCard({ made, onTook }: Props) {
  const { view, error } = made;
  if (error) return <Refusals issues={issuesOf(error)} />;
  if (!view) return null;
  if (view.state === 'failed') return <Refusals issues={[view.issue]} />;
  const save = () => {
    made.save();
    onTook();
  };
  return (
    <Card strong>
      {view.state === 'writing' ? <Writing view={view} /> : <Ready view={view} onSave={save} />}
      <Button type="clear" title={HAND_OVER_WORDS.takeItBack} onPress={made.end} />
    </Card>
  );
}

type ViewIn<S extends PackageView['state']> = Extract<PackageView, { readonly state: S }>;

const Writing = ({ view }: { readonly view: ViewIn<'writing'> }) => (
  <View role="status">
    <Words>
      {view.doing === null
        ? HAND_OVER_WORDS.waitingToBeWritten
        : HAND_OVER_WORDS.writing({
            ...{ done: view.done + 1, total: view.total, doing: FORMAT_TITLES[view.doing] },
          })}
    </Words>
  </View>
);

function Ready({ view, onSave }: { readonly view: ViewIn<'ready'>; readonly onSave: () => void }) {
  const { name, bytes, files } = view;
  return (
    <View style={{ gap: 8 }}>
      <Words size="strong">
        {HAND_OVER_WORDS.ready({ name, size: sizeWords(bytes), files: files.length })}
      </Words>
      <LeftLines left={view.left} />
      <Button title={HAND_OVER_WORDS.saveIt({ name })} onPress={onSave} />
    </View>
  );
}

const SHOWN = 20;

/** What is not in the files, and why. */
export function LeftLines({ left }: { readonly left: readonly FormatLeft[] }) {
  if (left.length === 0)
    return (
      <Words size="second" tone="moss">
        ✓ {HAND_OVER_WORDS.allOfItIsInIt}
      </Words>
    );
  return (
    <View style={{ gap: 6 }}>
      {left.map(({ format, count, some }) => (
        <View key={format} style={{ gap: 1 }}>
          <Words size="second" tone="ochre">
            ! {HAND_OVER_WORDS.notInIt({ count, title: FORMAT_TITLES[format] })}
          </Words>
          {some.slice(0, SHOWN).map((one, at) => (
            <Words key={at} size="caption">
              {leftOutWords(one)}
            </Words>
          ))}
          {count > SHOWN ? (
            <Words size="caption" tone="second">
              {HAND_OVER_WORDS.andMoreLeft({ count: count - SHOWN })}
            </Words>
          ) : null}
        </View>
      ))}
    </View>
  );
}

const KILO = 1000;

export const sizeWords = (bytes: number): string =>
  bytes < KILO
    ? HAND_OVER_WORDS.bytes({ count: bytes })
    : HAND_OVER_WORDS.kilobytes({ count: Math.round(bytes / KILO) });
