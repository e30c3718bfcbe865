import { isSamePrefix } from '@ipsonomo/core/net';
import {
  applyEdits,
  changeOf,
  docOf,
  planOf,
  type Edit,
  type PlanDoc,
  type Subnet,
} from '@ipsonomo/core/plan';
import { renumber, type Renumbering } from '@ipsonomo/core/reshape';
import { SUBNET_WORDS } from '@ipsonomo/language/screens/subnet';
import type { SubnetReading } from './subnet-draft';

export interface SubnetEdits {
  readonly edits: readonly Edit[];
  readonly renumbering: Renumbering | undefined;
  readonly why: string;
}

/**
 * First the fields in the old network, then the move with everything that is in it.
 * @param opened the subnet as it was when the form was opened: only what was typed since is changed,
 * and what somebody else changed meanwhile is a conflict and not overwritten
 */
export function subnetEdits(
  doc: PlanDoc,
  opened: Subnet,
  { thing, prefix }: Pick<SubnetReading, 'thing' | 'prefix'>,
  now: number,
): SubnetEdits | undefined {
  if (!thing || !prefix) return undefined;
  const own = changeOf('subnet', docOf('subnet', opened), thing);
  const changed = applyEdits(doc, own);
  const fields = {
    edits: own,
    renumbering: undefined,
    why: SUBNET_WORDS.changedSubnet({ name: opened.name }),
  };
  // In conflict already: the server says with what, before anything is moved.
  if (isSamePrefix(prefix, opened.prefix) || !changed.ok) return fields;
  const next = planOf(changed.value.doc);
  const subnet = next.subnets.find((one) => one.id === opened.id);
  if (!subnet) return fields;
  const renumbering = renumber(next, changed.value.doc, subnet, prefix, now);
  const why = SUBNET_WORDS.renumberedSubnet({ name: opened.name });
  return { edits: [...own, ...renumbering.edits], renumbering, why };
}
