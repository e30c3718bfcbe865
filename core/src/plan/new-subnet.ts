import type { Ipv4, Prefix } from '../net';
import { defaultBands } from './allocate';
import type { Edit } from './edits';
import { docOf } from './document';
import { FIRST_REALM, toSubnet, type Plan } from './model';

export interface WantedSubnet {
  readonly id: string;
  readonly name: string;
  readonly prefix: Prefix;
  readonly gateway: Ipv4 | undefined;
  readonly vlan: number | undefined;
  readonly purpose: string;
}

/** The realm that a new subnet stands in, until a person says otherwise. */
export const firstRealm = ({ realms }: Plan): string => realms[0]?.id ?? FIRST_REALM.id;

/** The edit that adds a subnet, with the bands of the plan's template. */
export function subnetEdit(plan: Plan, wanted: WantedSubnet): Edit {
  const bands = defaultBands(wanted.prefix, plan.settings.bandTemplate);
  const subnet = toSubnet({ ...wanted, realmId: firstRealm(plan), bands });
  return { op: 'add', type: 'subnet', thing: docOf('subnet', subnet) };
}
