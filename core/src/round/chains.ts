import { findKind, type Plan } from '../plan';

/**
 * Which devices hang behind which, by the cables of the plan: seen from the infrastructure, or where a
 * chain has none, from its controller, or else from its first device. Devices with nobody behind are left out.
 */
export function chainsOf(plan: Plan): ReadonlyMap<string, ReadonlySet<string>> {
  if (plan.cables.length === 0) return NO_CHAINS;
  const next = new Map<string, string[]>();
  const join = (a: string, b: string) => next.set(a, [...(next.get(a) ?? []), b]);
  for (const { from, to } of plan.cables) {
    join(from.deviceId, to.deviceId);
    join(to.deviceId, from.deviceId);
  }
  const behind = new Map<string, Set<string>>();
  const seen = new Set<string>();
  for (const start of startsOf(plan, next)) if (!seen.has(start)) walk(start, next, seen, behind);
  return behind;
}

const NO_CHAINS: ReadonlyMap<string, ReadonlySet<string>> = new Map();

/** Every device with a cable, where a chain is looked at from first. */
function startsOf(plan: Plan, next: ReadonlyMap<string, readonly string[]>): readonly string[] {
  const rank = new Map(
    plan.devices.map(({ id, kindId }) => {
      const role = findKind(plan, kindId)?.role;
      return [id, role === 'infrastructure' ? 0 : role === 'controllers' ? 1 : 2] as const;
    }),
  );
  const cabled = plan.devices.map(({ id }) => id).filter((id) => next.has(id));
  return cabled.sort((a, b) => (rank.get(a) ?? 2) - (rank.get(b) ?? 2));
}

/** Breadth first, so that in a ring everybody hangs on its shorter side. */
function walk(
  start: string,
  next: ReadonlyMap<string, readonly string[]>,
  seen: Set<string>,
  behind: Map<string, Set<string>>,
): void {
  const parent = new Map<string, string>();
  seen.add(start);
  const queue = [start];
  for (const here of queue)
    for (const there of next.get(here) ?? []) {
      if (seen.has(there)) continue;
      seen.add(there);
      parent.set(there, here);
      queue.push(there);
    }
  // From the far ends inwards, each hands what hangs behind it to the one before.
  for (const here of queue.reverse()) {
    const before = parent.get(here);
    if (before === undefined) continue;
    const all = behind.get(before) ?? new Set<string>();
    all.add(here);
    for (const one of behind.get(here) ?? []) all.add(one);
    behind.set(before, all);
  }
}
