import {
  fail,
  firstHostOf,
  isSamePrefix,
  issueOf,
  ok,
  type Issue,
  type Prefix,
  type Result,
} from '../net';
import {
  applyEdits,
  changeOf,
  defaultBands,
  docOf,
  findDoc,
  planOf,
  repackBlock,
  splitBlock,
  toSubnet,
  type Block,
  type Edit,
  type Need,
  type Plan,
  type PlanDoc,
  type Split,
  type Subnet,
} from '../plan';
import { renumber } from './renumber';

/** A block split, as a change of the plan. */
interface SplitChange {
  readonly split: Split;
  readonly edits: readonly Edit[];
  /** Subnets that come of it. */
  readonly added: readonly Subnet[];
}

/**
 * Splits a block: every need gets its place and keeps it, and a subnet where there is none yet.
 * Nothing that has a place moves.
 */
export function editsOfSplit(
  plan: Plan,
  doc: PlanDoc,
  block: Block,
  idOf: (type: string) => string,
): Result<SplitChange, readonly Issue[]> {
  const done = splitBlock(block.prefix, block.needs);
  if (!done.ok) return done;
  const split = done.value;
  const added = split.placed.flatMap(({ need, prefix }): readonly Subnet[] => {
    const isThere = plan.subnets.some(
      (one) => one.realmId === block.realmId && isSamePrefix(one.prefix, prefix),
    );
    if (isThere) return [];
    const bands = defaultBands(prefix, plan.settings.bandTemplate);
    const gateway = firstHostOf(prefix);
    const { realmId } = block;
    return [toSubnet({ id: idOf('subnet'), name: need.name, realmId, prefix, gateway, bands })];
  });
  const edits = [
    ...blockEdits(doc, { ...block, needs: placedNeeds(block.needs, split) }),
    ...added.map((one): Edit => ({ op: 'add', type: 'subnet', thing: docOf('subnet', one) })),
  ];
  return ok({ split, edits, added });
}

/** The needs with the places they got. */
const placedNeeds = (needs: readonly Need[], { placed }: Split): readonly Need[] =>
  needs.map((need) => ({
    ...need,
    fixed: placed.find((one) => one.need === need)?.prefix ?? need.fixed,
  }));

function blockEdits(doc: PlanDoc, block: Block): readonly Edit[] {
  const thing = findDoc(doc, 'block', block.id);
  const wanted = docOf('block', block);
  return thing ? changeOf('block', thing, wanted) : [{ op: 'add', type: 'block', thing: wanted }];
}

/** A need that a repack moves. */
export interface Moved {
  readonly name: string;
  readonly before: Prefix;
  readonly after: Prefix;
  /** Addresses of devices that change with it. */
  readonly addresses: number;
}

export interface Repacking {
  readonly edits: readonly Edit[];
  readonly moved: readonly Moved[];
}

/**
 * Packs a block anew: as if no need had a place. Subnets that move are renumbered with everything in
 * them; what moves is listed, so that it can be shown before anything does.
 */
export function editsOfRepack(
  plan: Plan,
  doc: PlanDoc,
  block: Block,
  now: number,
): Result<Repacking, readonly Issue[]> {
  const done = repackBlock(block.prefix, block.needs);
  if (!done.ok) return done;
  const places = new Map(done.value.placed.map((one) => [one.need.name, one.prefix]));
  const moved: Moved[] = [];
  const edits: Edit[] = [];
  // Each subnet is renumbered in the plan that the ones before it have made.
  let current = { plan, doc };
  for (const need of block.needs) {
    const after = places.get(need.name);
    if (!need.fixed || !after || isSamePrefix(need.fixed, after)) continue;
    const before = need.fixed;
    const subnet = plan.subnets.find(
      (one) => one.realmId === block.realmId && isSamePrefix(one.prefix, before),
    );
    const change = subnet && renumber(current.plan, current.doc, subnet, after, now);
    moved.push({ name: need.name, before, after, addresses: change?.rows.length ?? 0 });
    if (!change) continue;
    const outcome = applyEdits(current.doc, change.edits);
    if (!outcome.ok)
      return fail([issueOf('edit.conflict', need.name, { count: outcome.error.length })]);
    edits.push(...change.edits);
    current = { doc: outcome.value.doc, plan: planOf(outcome.value.doc) };
  }
  const needs = block.needs.map((need) => ({
    ...need,
    fixed: places.get(need.name) ?? need.fixed,
  }));
  return ok({ edits: [...edits, ...blockEdits(doc, { ...block, needs })], moved });
}
