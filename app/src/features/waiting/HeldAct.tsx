import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { format } from 'date-fns/format';
import { useState } from 'react';
import { View } from 'react-native';
import { WAITING_WORDS } from '@ipsonomo/language/screens/waiting';
import { planOf, type Edit } from '@ipsonomo/core/plan';
import { outbox, planQuery, type WaitingAct } from '../../data';
import { Card, Refusals, Words } from '../../parts';
import { ConflictPane } from '../plan';
import { actWords, deviceWords, isKnown } from './act-words';

interface Props {
  readonly act: WaitingAct;
  readonly jobName: string | undefined;
}

/** One act that waits, or was refused. */
export function HeldAct({ act, jobName }: Props) {
  const job = act.params['job'] ?? '';
  const { data: now } = useQuery(planQuery(job));
  const name = jobName ?? now?.name;
  const device = deviceWords(act, now && planOf(now.doc));
  return (
    <Card>
      <Words size="strong" heading={2}>
        {[actWords(act), device].filter(Boolean).join(' · ')}
      </Words>
      <Words size="caption" tone="second">
        {[
          WAITING_WORDS.doneAt({
            at: format(act.doneAt, 'd MMM, HH:mm'),
            person: act.person || WAITING_WORDS.nobody,
          }),
          name === undefined ? WAITING_WORDS.unknownJob : WAITING_WORDS.inJob({ job: name }),
          act.refused ? WAITING_WORDS.refused : WAITING_WORDS.waits,
        ].join(' · ')}
      </Words>
      {act.refused || !isKnown(act) ? <Settle act={act} doc={now?.doc} /> : null}
    </Card>
  );
}

/** What becomes of one that was refused. */
function Settle({
  act,
  doc,
}: {
  readonly act: WaitingAct;
  readonly doc: Parameters<typeof ConflictPane>[0]['doc'] | undefined;
}) {
  const [isBusy, setBusy] = useState(false);
  const busy = (work: Promise<void>) => {
    setBusy(true);
    void work.catch(() => undefined).finally(() => setBusy(false));
  };
  const conflicts = act.refused?.conflicts ?? [];
  const isOfAnother = act.refused?.issues.some(({ code }) => code === 'waiting.ofAnother');
  const settled = (edits: readonly Edit[]) =>
    busy(outbox.again({ ...act, edits, body: { ...(act.body as object), edits } }));
  if (conflicts.length > 0 && doc)
    return (
      <ConflictPane
        {...{ doc, conflicts, isBusy, edits: act.edits }}
        onSettle={settled}
        onLeave={() => busy(outbox.drop(act))}
      />
    );
  return (
    <>
      <Refusals issues={act.refused?.issues} />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {isKnown(act) ? (
          <Button
            type="outline"
            title={isOfAnother ? WAITING_WORDS.sendAsMine : WAITING_WORDS.sendAgain}
            loading={isBusy}
            onPress={() => busy(outbox.again({ ...act, account: undefined }))}
          />
        ) : null}
        <GiveUp onGiveUp={() => busy(outbox.drop(act))} />
      </View>
    </>
  );
}

function GiveUp({ onGiveUp }: { readonly onGiveUp: () => void }) {
  const [isAsked, setAsked] = useState(false);
  return (
    <Button
      type="clear"
      title={isAsked ? WAITING_WORDS.giveUpReally : WAITING_WORDS.giveUp}
      onPress={isAsked ? onGiveUp : () => setAsked(true)}
    />
  );
}
