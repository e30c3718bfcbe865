import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { docOf, type Plan } from '@ipsonomo/core/plan';
import { PLAN_WORDS } from '@ipsonomo/language/screens/plan';
import { newId, useEdit } from '../../data';
import { Refusals } from '../../parts';
import { issuesOf } from '../words';

/** Address spaces of their own, and what holds for the whole plan. */
export function Realms({ id, plan }: { readonly id: string; readonly plan: Plan }) {
  const router = useRouter();
  const edit = useEdit(id);
  const go = (path: string) => router.navigate(`/job/${id}/thing/${path}`);
  const add = () => {
    const realm = {
      id: newId(),
      name: PLAN_WORDS.realm({ realms: plan.realms.length + 1 }),
      note: '',
    };
    edit.mutate(
      {
        edits: [{ op: 'add', type: 'realm', thing: docOf('realm', realm) }],
        why: PLAN_WORDS.added({ name: realm.name }),
      },
      { onSuccess: () => go(`realm/${realm.id}`) },
    );
  };
  return (
    <>
      <Button
        type="outline"
        title={PLAN_WORDS.patternOfNamesBandsOfNew}
        onPress={() => go(`settings/${plan.settings.id}`)}
      />
      {plan.realms.map((realm) => (
        <Button
          key={realm.id}
          type="clear"
          title={PLAN_WORDS.realm2({ name: realm.name })}
          onPress={() => go(`realm/${realm.id}`)}
        />
      ))}
      <Button type="clear" title={PLAN_WORDS.anotherRealm} loading={edit.isPending} onPress={add} />
      <Refusals issues={issuesOf(edit.error)} />
    </>
  );
}
