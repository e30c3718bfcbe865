import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { View } from 'react-native';
import { evidenceWords } from '@ipsonomo/language';
import { CALL_WORDS } from '@ipsonomo/language/screens/call';
import { acts, reading, useAct } from '../../../data';
import { Card, Field, Notice, Refusals, timeOf, Words, useDraft } from '../../../parts';
import { issuesOf } from '../../words';
import type { Call } from './CallPage';

const ASKS = {
  display: CALL_WORDS.typeWhatItsDisplayShowsNow,
  page: CALL_WORDS.pasteWhatItsPageShowsAddress,
} as const;

/** What a person read off the device: weaker than seen on the wire, stronger than a tick. */
export function ReadOffCard({
  call,
  from,
}: {
  readonly call: Call;
  readonly from: 'display' | 'page';
}) {
  const { job, at } = call;
  const [text, setText, forget] = useDraft(`read off ${from} ${at.id}`);
  const read = useAct(acts.readOff, { job, interface: at.id });
  const said = useAct(acts.sayGiven, { job, interface: at.id });
  const all = useQuery(reading(acts.readEvidence, { job, interface: at.id })).data ?? [];
  const last = all.find(({ kind }) => /^(read-|said-given)/.test(kind));
  return (
    <Card>
      {last ? (
        <Notice
          tone={last.kind === 'read-otherwise' ? 'brick' : 'plain'}
          title={
            last.kind === 'read-otherwise'
              ? CALL_WORDS.itReadsOtherwise
              : CALL_WORDS.notSeenOnTheWireYet
          }
        >
          {`${evidenceWords(last)} (${last.person}, ${timeOf(last.at)})`}
        </Notice>
      ) : null}
      <Field label={ASKS[from]} value={text} onChange={setText} figures />
      <Refusals issues={issuesOf(read.error ?? said.error)} />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button
          type="outline"
          title={CALL_WORDS.holdItAgainstThePlan}
          disabled={text.trim() === ''}
          loading={read.isPending}
          onPress={() => read.mutate({ from, text }, { onSuccess: forget })}
        />
        <Button
          type="clear"
          title={CALL_WORDS.iOnlySayItIsDone}
          loading={said.isPending}
          onPress={() => said.mutate()}
        />
      </View>
      <Words size="caption" tone="second">
        {CALL_WORDS.saidIsKeptAsSaidIt}
      </Words>
    </Card>
  );
}
