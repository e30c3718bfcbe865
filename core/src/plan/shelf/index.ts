import type { Kind } from '../kind';
import type { Plan } from '../model';
import { ASKING_KINDS } from './asking';
import { NAMED_KINDS } from './named';
import { OTHER_DEVICE, OTHER_SILENT_DEVICE } from './other';
import { SWITCHED_KINDS } from './switched';

export { toKind } from './build';
export { OTHER_DEVICE, OTHER_SILENT_DEVICE } from './other';

/** The kinds that ship with Ipsonomo; makers and devices are invented. */
export const SHELF: readonly Kind[] = [
  OTHER_DEVICE,
  OTHER_SILENT_DEVICE,
  ...ASKING_KINDS,
  ...SWITCHED_KINDS,
  ...NAMED_KINDS,
];

const byId: ReadonlyMap<string, Kind> = new Map(SHELF.map((kind) => [kind.id, kind]));

export const findShelfKind = (id: string): Kind | undefined => byId.get(id);

const ownKinds = new WeakMap<readonly Kind[], ReadonlyMap<string, Kind>>();

/** A kind of the plan's own, or one of the shelf. */
export function findKind(plan: Pick<Plan, 'kinds'>, id: string): Kind | undefined {
  let own = ownKinds.get(plan.kinds);
  if (!own) ownKinds.set(plan.kinds, (own = new Map(plan.kinds.map((kind) => [kind.id, kind]))));
  return own.get(id) ?? byId.get(id);
}

/** Every kind a device of the plan can be of; its own first. */
export const kindsOf = (plan: Pick<Plan, 'kinds'>): readonly Kind[] => [
  ...plan.kinds,
  ...SHELF.filter((kind) => !plan.kinds.some((own) => own.id === kind.id)),
];
