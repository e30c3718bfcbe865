import { Button } from '@rneui/themed';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { snagSentence } from '@ipsonomo/language';
import { findDoc, type Acceptance, type Plan, type PlanDoc } from '@ipsonomo/core/plan';
import { snagKey, type Snag } from '@ipsonomo/core/snags';
import { SNAGS_WORDS } from '@ipsonomo/language/screens/snags';
import { useEdit } from '../../data';
import { Words } from '../../parts';
import { apart, byCause } from './causes';
import { MendAll } from './MendAll';
import { SnagCard } from './SnagCard';

interface Props {
  readonly job: string;
  readonly plan: Plan;
  readonly doc: PlanDoc;
  readonly snags: readonly Snag[];
}

/** How many of one cause are shown at first; a plan of thousands may have hundreds of one. */
const FIRST = 5;

/** Snags by cause, each with what would mend it; what was accepted stands below. */
export function SnagList({ job, plan, doc, snags }: Props) {
  const accepted = useMemo(
    () => new Set(plan.acceptances.map((one) => one.key)),
    [plan.acceptances],
  );
  const sorted = useMemo(() => apart(snags, accepted), [snags, accepted]);
  return (
    <View style={{ gap: 16 }}>
      {byCause(sorted.open).map(({ cause, snags: list }) => (
        <Cause key={cause} {...{ job, plan, doc, cause }} snags={list} />
      ))}
      {sorted.accepted.length > 0 ? (
        <Accepted {...{ job, plan, doc }} snags={sorted.accepted} />
      ) : null}
    </View>
  );
}

interface CauseProps {
  readonly job: string;
  readonly plan: Plan;
  readonly doc: PlanDoc;
  readonly cause: string;
  readonly snags: readonly Snag[];
}

function Cause({ job, plan, doc, cause, snags }: CauseProps) {
  const [most, setMost] = useState(FIRST);
  const pathOf = (snag: Snag): string | undefined => {
    const device = deviceAt(plan, snag);
    if (device !== undefined) return `/job/${job}/device/${device}`;
    if (snag.type === 'subnet') return `/job/${job}/subnet/${snag.id}`;
    if (snag.type === 'block') return `/job/${job}/block/${snag.id}`;
    return undefined;
  };
  return (
    <View style={{ gap: 12 }}>
      <Words size="strong" heading={2}>
        {cause}
      </Words>
      {isMany(snags) ? <MendAll {...{ job, doc, cause, snags }} /> : null}
      {snags.slice(0, most).map((snag) => (
        <SnagCard key={snagKey(snag)} {...{ job, plan, snag }} to={pathOf(snag)} />
      ))}
      {snags.length > most ? (
        <Button
          type="clear"
          title={SNAGS_WORDS.showTheOther({ snags: snags.length - most })}
          onPress={() => setMost(most + 50)}
        />
      ) : null}
    </View>
  );
}

/** One snag of three devices takes two mends as well. */
const isMany = (snags: readonly Snag[]): boolean =>
  snags.length > 1 || snags.some((one) => one.also.length > 1);

/** The device a snag is at, whether by itself or by an interface. */
export const deviceAt = (plan: Plan, { type, id }: Snag): string | undefined =>
  type === 'device'
    ? id
    : type === 'interface'
      ? plan.devices.find((one) => one.interfaces.some((at) => at.id === id))?.id
      : undefined;

type AcceptedProps = Omit<CauseProps, 'cause'>;

function Accepted({ job, plan, doc, snags }: AcceptedProps) {
  const edit = useEdit(job);
  const byKey = new Map(plan.acceptances.map((one) => [one.key, one]));
  const takeBack = (one: Acceptance) => {
    const thing = findDoc(doc, 'acceptance', one.id);
    if (thing)
      edit.mutate({
        edits: [{ op: 'remove', type: 'acceptance', thing }],
        why: SNAGS_WORDS.noLongerAcceptedASnag,
      });
  };
  return (
    <View style={{ gap: 12 }}>
      <Words size="strong" heading={2}>
        {SNAGS_WORDS.snagAccepted({ snags: snags.length })}
      </Words>
      {snags.map((snag) => {
        const one = byKey.get(snagKey(snag));
        return (
          <View key={snagKey(snag)} style={{ gap: 2 }}>
            <Words size="second" tone="second">
              {snagSentence(snag)}
            </Words>
            {one ? (
              <>
                <Words size="second">
                  {one.person}: {one.reason}
                </Words>
                <Button
                  type="clear"
                  title={SNAGS_WORDS.makeItASnagAgain}
                  onPress={() => takeBack(one)}
                />
              </>
            ) : null}
          </View>
        );
      })}
    </View>
  );
}
