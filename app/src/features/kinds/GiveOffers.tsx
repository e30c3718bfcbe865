import { Button } from '@rneui/themed';
import { offerEdits, type Kind, type Plan, type PlanDoc } from '@ipsonomo/core/plan';
import { CONNECTION_WORDS } from '@ipsonomo/language/screens/connection';
import { useEdit } from '../../data';
import { Refusals } from '../../parts';
import { issuesOf } from '../words';

interface Props {
  readonly id: string;
  readonly kind: Kind;
  readonly plan: Plan;
  readonly doc: PlanDoc;
}

/** What a description file says of connections goes into every one of its kind that says something else. */
export function GiveOffers({ id, kind, plan, doc }: Props) {
  const edit = useEdit(id);
  const all = kind.offers.flatMap((offer) => {
    const edits = offerEdits(doc, plan.devices, kind.id, offer);
    return edits.length > 0 ? [{ offer, edits }] : [];
  });
  return (
    <>
      {all.map(({ offer, edits }) => (
        <Button
          key={offer.title}
          type="outline"
          title={CONNECTION_WORDS.giveToAll({ title: offer.title, count: edits.length })}
          loading={edit.isPending}
          onPress={() =>
            edit.mutate({ edits, why: CONNECTION_WORDS.gaveToAll({ name: kind.name }) })
          }
        />
      ))}
      <Refusals issues={issuesOf(edit.error)} />
    </>
  );
}
