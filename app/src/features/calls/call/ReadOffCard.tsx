import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { View } from 'react-native';
import { evidenceWords } from '@ipsonomo/language';
import { acts, reading, useAct } from '../../../data';
import { Card, Field, Notice, Refusals, timeOf, Words, useDraft } from '../../../parts';
import { issuesOf } from '../../words';
import type { Call } from './CallPage';

const ASKS = {
  display: 'Type what its display shows now',
  page: 'Paste what its page shows: address, MAC, serial number',
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
          title={last.kind === 'read-otherwise' ? 'It reads otherwise' : 'Not seen on the wire yet'}
        >
          {`${evidenceWords(last)} (${last.person}, ${timeOf(last.at)})`}
        </Notice>
      ) : null}
      <Field label={ASKS[from]} value={text} onChange={setText} figures />
      <Refusals issues={issuesOf(read.error ?? said.error)} />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button
          type="outline"
          title="Hold it against the plan"
          disabled={text.trim() === ''}
          loading={read.isPending}
          onPress={() => read.mutate({ from, text }, { onSuccess: forget })}
        />
        <Button
          type="clear"
          title="I only say it is done"
          loading={said.isPending}
          onPress={() => said.mutate()}
        />
      </View>
      <Words size="caption" tone="second">
        {'Said is kept as said: it raises no stage.'}
      </Words>
    </Card>
  );
}
