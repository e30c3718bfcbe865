import { Button } from '@rneui/themed';
import { format } from 'date-fns/format';
import { useState } from 'react';
import { View } from 'react-native';
import {
  AT_ONCE,
  FORMATS_FOR,
  type FormatId,
  type HandedOver,
  type PackageWish,
  type Reader,
} from '@ipsonomo/core/api';
import { FORMAT_ABOUT, FORMAT_TITLES, READER_TITLES } from '@ipsonomo/language/hand-over-files';
import { HAND_OVER_WORDS } from '@ipsonomo/language/screens/hand-over';
import { usePackage, type Job } from '../../data';
import { Row, Words } from '../../parts';
import { Compare } from '../plan';
import { PackageCard } from './PackageCard';

interface Props {
  readonly id: string;
  readonly job: Job | undefined;
  readonly reader: Reader;
  readonly last: HandedOver | undefined;
  readonly isBarred: boolean;
  /** The format that is looked at. */
  readonly open: FormatId | undefined;
  readonly wish: (formats: readonly FormatId[]) => PackageWish;
  readonly onOpen: (format: FormatId) => void;
  readonly onTook: (formats: readonly FormatId[]) => void;
  /** The look, where it stands below its line. */
  readonly children: React.ReactNode;
}

/** One reader's part: when it was handed over last, what changed since, what is in it. */
export function ReaderCard(props: Props) {
  const { id, job, reader, last, isBarred, open, wish, onOpen, onTook, children } = props;
  const made = usePackage(id);
  const formats: readonly FormatId[] = FORMATS_FOR[reader];
  const atOnce = formats.filter((one) => AT_ONCE.includes(one));
  return (
    <View style={{ gap: 6 }}>
      <Words size="device" heading={2}>
        {READER_TITLES[reader]}
      </Words>
      <Last {...{ id, job, last }} />
      <View>
        {formats.map((one) => (
          <View key={one}>
            <Row
              label={HAND_OVER_WORDS.lookAt({ title: FORMAT_TITLES[one] })}
              selected={open === one}
              onPress={() => onOpen(one)}
            >
              <Words size="strong">{FORMAT_TITLES[one]}</Words>
              <Words size="caption" tone="second">
                {FORMAT_ABOUT[one]}
              </Words>
            </Row>
            {open === one ? children : null}
          </View>
        ))}
      </View>
      <PackageCard made={made} onTook={() => onTook(atOnce)} />
      <Button
        type="outline"
        title={HAND_OVER_WORDS.takeAll({ count: atOnce.length })}
        accessibilityLabel={HAND_OVER_WORDS.takeAllFor({
          ...{ count: atOnce.length, reader: READER_TITLES[reader] },
        })}
        disabled={isBarred || made.isBusy}
        onPress={() => made.begin(wish(atOnce))}
      />
    </View>
  );
}

/** What this reader was handed last, and what changed since. */
function Last({ id, job, last }: Pick<Props, 'id' | 'job' | 'last'>) {
  const [isOpen, setOpen] = useState(false);
  if (!last)
    return (
      <Words size="second" tone="second">
        {HAND_OVER_WORDS.neverHandedOver}
      </Words>
    );
  const at = format(last.at, 'd MMM HH:mm');
  const count = (job?.view.revision ?? last.revision) - last.revision;
  return (
    <View style={{ gap: 4 }}>
      <Words size="second" tone="second">
        {HAND_OVER_WORDS.handedOver({ revision: last.revision, at, person: last.person })}
        {count === 0 ? ` · ${HAND_OVER_WORDS.nothingSince}` : ''}
      </Words>
      {count > 0 ? (
        <Button
          type="clear"
          containerStyle={{ alignSelf: 'flex-start' }}
          title={isOpen ? HAND_OVER_WORDS.hideTheChanges : HAND_OVER_WORDS.changesSince({ count })}
          onPress={() => setOpen(!isOpen)}
        />
      ) : null}
      {isOpen && job ? <Compare id={id} job={job} chosen={[last.revision]} /> : null}
    </View>
  );
}
