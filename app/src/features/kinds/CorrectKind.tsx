import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { docOf, type Kind, type Plan } from '@ipsonomo/core/plan';
import { KINDS_WORDS } from '@ipsonomo/language/screens/kinds';
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
      { ...kind, id: newId(), name: KINDS_WORDS.another({ name: kind.name }), orderNumber: '' },
      KINDS_WORDS.madeAKindLike({ name: kind.name }),
    );
  return (
    <>
      <Button
        type="outline"
        title={isOwn ? KINDS_WORDS.correctIt : KINDS_WORDS.correctItForThisPlan}
        loading={edit.isPending}
        onPress={() =>
          isOwn ? open(kind.id) : add(kind, KINDS_WORDS.correctedTheKind({ name: kind.name }))
        }
      />
      <Button type="clear" title={KINDS_WORDS.makeAnotherKindLikeIt} onPress={another} />
      <Refusals issues={issuesOf(edit.error)} />
    </>
  );
}
