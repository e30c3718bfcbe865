import { Button } from '@rneui/themed';
import { useEffect } from 'react';
import { View } from 'react-native';
import type { FormatId, PackageWish } from '@ipsonomo/core/api';
import {
  FORMAT_ABOUT,
  FORMAT_CANNOT,
  FORMAT_STANDARD,
  FORMAT_TITLES,
} from '@ipsonomo/language/hand-over-files';
import { HAND_OVER_WORDS } from '@ipsonomo/language/screens/hand-over';
import { usePackage } from '../../data';
import { Card, Refusals, Words } from '../../parts';
import { issuesOf } from '../words';
import { LeftLines, sizeWords } from './PackageCard';

interface Props {
  readonly id: string;
  readonly format: FormatId;
  readonly wish: PackageWish;
  /** Something is wrong in the plan, and nobody said that it leaves. */
  readonly isBarred: boolean;
  readonly onTook: () => void;
}

/** One format, looked at before it is taken: what it follows, what is in it, what is not. */
export function LookAt({ id, format, wish, isBarred, onTook }: Props) {
  const made = usePackage(id);
  const { begin } = made;
  useEffect(() => {
    // Looking is not leaving: that is a person's word, below.
    begin({ ...wish, despite: true });
    // A look is of one state of one format: another one is another look.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  const view = made.view;
  const save = () => {
    made.save();
    onTook();
  };
  return (
    <Card strong>
      <Words size="device" heading={2}>
        {FORMAT_TITLES[format]}
      </Words>
      <Words size="second">{FORMAT_ABOUT[format]}</Words>
      <Words size="caption" tone="second">
        {HAND_OVER_WORDS.follows({ standard: FORMAT_STANDARD[format] })}
        {FORMAT_CANNOT[format] === ''
          ? ''
          : ` ${HAND_OVER_WORDS.cannotHold({ what: FORMAT_CANNOT[format] })}`}
      </Words>
      <Refusals
        issues={view?.state === 'failed' ? [view.issue] : issuesOf(made.error ?? undefined)}
      />
      {made.isBusy ? <Words tone="second">{HAND_OVER_WORDS.beingWritten}</Words> : null}
      {view?.state === 'ready' ? (
        <View style={{ gap: 8 }}>
          {isBarred ? (
            <Words size="second" tone="ochre">
              ! {HAND_OVER_WORDS.leavesOnceYouSaySo}
            </Words>
          ) : null}
          <Button
            title={HAND_OVER_WORDS.saveIt({ name: view.name })}
            disabled={isBarred}
            onPress={save}
          />
          <LeftLines left={view.left} />
          {view.files.length > 1
            ? view.files.map(({ name, bytes }) => (
                <Words key={name} size="caption">
                  {`${name}, ${sizeWords(bytes)}`}
                </Words>
              ))
            : null}
          {view.text === null ? null : <Words size="caption">{view.text}</Words>}
        </View>
      ) : null}
    </Card>
  );
}
