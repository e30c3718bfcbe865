import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { docOf, type Kind, type Plan } from '@ipsonomo/core/plan';
import { newId, useEdit } from '../../data';
import { Refusals } from '../../parts';
import { issuesOf } from '../words';

interface Props {
  readonly id: string;
  readonly plan: Plan;
  readonly kind: Kind;
}

/** A kind of the shelf is corrected in the plan: the plan then has its own of that name. */
export function CorrectKind({ id, plan, kind }: Props) {
  const router = useRouter();
  const edit = useEdit(id);
  const isOwn = plan.kinds.some((one) => one.id === kind.id);
  const open = (kindId: string) => router.navigate(`/job/${id}/thing/kind/${kindId}`);
  const add = (made: Kind, why: string) =>
    edit.mutate(
      { edits: [{ op: 'add', type: 'kind', thing: docOf('kind', made) }], why },
      { onSuccess: () => open(made.id) },
    );
  const another = () =>
    add(
      { ...kind, id: newId(), name: `${kind.name}, another`, orderNumber: '' },
      `made a kind like ${kind.name}`,
    );
  return (
    <>
      <Button
        type="outline"
        title={isOwn ? 'Correct it' : 'Correct it for this plan'}
        loading={edit.isPending}
        onPress={() => (isOwn ? open(kind.id) : add(kind, `corrected the kind ${kind.name}`))}
      />
      <Button type="clear" title="Make another kind like it" onPress={another} />
      <Refusals issues={issuesOf(edit.error)} />
    </>
  );
}
