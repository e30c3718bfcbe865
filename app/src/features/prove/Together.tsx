import { Button } from '@rneui/themed';
import { View } from 'react-native';
import { DIFFERENCE_TITLES } from '@ipsonomo/language';
import type { Edit, Plan, PlanDoc } from '@ipsonomo/core/plan';
import { DIFFERENCES, settlementsOf, type DifferenceKind } from '@ipsonomo/core/proof';
import { PROVE_WORDS } from '@ipsonomo/language/screens/prove';
import { useEdit } from '../../data';
import { Refusals } from '../../parts';
import { issuesOf } from '../words';
import type { Finding } from './findings';

interface Props {
  readonly job: string;
  readonly plan: Plan;
  readonly doc: PlanDoc;
  readonly findings: readonly Finding[];
}

/** Where several differ in the same: the plan takes all of them as found, as one change. */
export function Together({ job, plan, doc, findings }: Props) {
  const edit = useEdit(job);
  const many = DIFFERENCES.flatMap((what) => {
    const all = findings.flatMap((finding) => editsOf(plan, doc, finding, what));
    return all.length > 1 ? [{ what, all }] : [];
  });
  if (many.length === 0) return null;
  return (
    <View style={{ gap: 8 }}>
      <Refusals issues={issuesOf(edit.error)} />
      {many.map(({ what, all }) => {
        const title = PROVE_WORDS.takeAllAsFound({
          all: all.length,
          what: DIFFERENCE_TITLES[what],
        });
        return (
          <Button
            key={what}
            type="outline"
            title={title}
            loading={edit.isPending}
            onPress={() => edit.mutate({ edits: once(all.flat()), why: title })}
          />
        );
      })}
    </View>
  );
}

const editsOf = (plan: Plan, doc: PlanDoc, { planned, outcome }: Finding, what: DifferenceKind) =>
  outcome.kind !== 'contradicted'
    ? []
    : outcome.differences
        .filter((one) => one.what === what)
        .flatMap((one) =>
          settlementsOf({ plan, doc, ...planned }, one).flatMap((each) =>
            each.kind === 'plan-was-wrong' ? [each.edits] : [],
          ),
        );

/** A kind that several need is added once. */
function once(edits: readonly Edit[]): readonly Edit[] {
  const added = new Set<string>();
  return edits.filter((edit) => {
    if (edit.op !== 'add') return true;
    const isNew = !added.has(edit.thing.id);
    added.add(edit.thing.id);
    return isNew;
  });
}
