import { Button } from '@rneui/themed';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { SEVERITY_WORDS, mendWords, snagSentence } from '@ipsonomo/language';
import { docOf, type Edit, type Plan } from '@ipsonomo/core/plan';
import { mendOf, snagKey, type Snag } from '@ipsonomo/core/snags';
import { SNAGS_WORDS } from '@ipsonomo/language/screens/snags';
import { newId, useEdit, whoDecides } from '../../data';
import { LinkTo, ReasonForm, Refusals, Words } from '../../parts';
import { TOUCH, useColours } from '../../theme';
import { issuesOf } from '../words';
import { SIGNS } from './signs';

interface Props {
  readonly job: string;
  readonly plan: Plan;
  readonly snag: Snag;
  /** The page of the thing it is at. */
  readonly to: string | undefined;
}

/** One snag: what it is, what would mend it, and a way to say that it is meant so. */
export function SnagCard({ job, plan, snag, to }: Props) {
  const colours = useColours();
  const edit = useEdit(job);
  const [asking, setAsking] = useState(false);
  const [now] = useState(() => Date.now());
  const mend = useMemo(() => mendOf(plan, snag, now), [plan, snag, now]);
  const tone =
    snag.severity === 'wrong' ? 'brick' : snag.severity === 'doubtful' ? 'ochre' : 'second';
  const sentence = snagSentence(snag);
  const words = (
    <View style={{ flexDirection: 'row', gap: 8, paddingVertical: 4 }}>
      <Words size="strong" tone={tone}>
        {SIGNS[snag.severity]}
      </Words>
      <View style={{ flex: 1 }}>
        <Words size="second">{sentence}</Words>
      </View>
    </View>
  );
  return (
    <View
      role="article"
      aria-label={`${SEVERITY_WORDS[snag.severity]}: ${sentence}`}
      style={{ borderTopWidth: 3, borderTopColor: colours[tone], paddingTop: 6, gap: 6 }}
    >
      {to !== undefined ? (
        <LinkTo href={to} style={{ minHeight: TOUCH, justifyContent: 'center' }}>
          {words}
        </LinkTo>
      ) : (
        words
      )}
      {mend ? (
        <Button
          type="outline"
          title={mendWords(mend)}
          loading={edit.isPending && !asking}
          onPress={() => edit.mutate({ edits: mend.edits, why: mendWords(mend) })}
        />
      ) : null}
      <Refusals issues={issuesOf(edit.error)} />
      {asking ? (
        <ReasonForm
          about={`meant so ${snagKey(snag)}`}
          label={SNAGS_WORDS.whyIsItMeantSo}
          title={SNAGS_WORDS.acceptIt}
          leave={SNAGS_WORDS.leaveItASnag}
          isBusy={edit.isPending}
          onLeave={() => setAsking(false)}
          onSay={async (reason) =>
            edit.mutateAsync({
              edits: [acceptance(snag, reason, await whoDecides())],
              why: SNAGS_WORDS.accepted({ sentence }),
            })
          }
        />
      ) : (
        <Button type="clear" title={SNAGS_WORDS.itIsMeantSo} onPress={() => setAsking(true)} />
      )}
    </View>
  );
}

const acceptance = (snag: Snag, reason: string, person: string): Edit => ({
  ...{ op: 'add', type: 'acceptance' },
  thing: docOf('acceptance', {
    ...{ id: newId(), key: snagKey(snag), reason, person },
  }),
});
