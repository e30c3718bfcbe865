import { snagKey, type Snag, type SnagRule } from '@ipsonomo/core/snags';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { SNAGS_WORDS } from '@ipsonomo/language/screens/snags';

/** What a snag is about, in the order in which a plan is made. */
const CAUSES: readonly (readonly [words: string, beginnings: readonly string[]])[] = [
  [SNAGS_WORDS.subnetsAndBlocks, ['SUBNET', 'VLAN', 'REALM', 'RANGE', 'BAND', 'BLOCK']],
  [SNAGS_WORDS.gatewaysMasksRoutes, ['GATEWAY', 'GATEWAYS', 'MASK', 'OWN', 'ROUTE', 'TRANSLATION']],
  [SNAGS_WORDS.addresses, ['ADDRESS', 'MAC', 'INTERFACES', 'FACTORY', 'SERVER', 'LOAN']],
  [SNAGS_WORDS.kindsWaysSwitches, ['KIND', 'WAY', 'SWITCH', 'PROTOCOL']],
  [SNAGS_WORDS.foundNotPlanned, ['FOUND']],
  [COMMON_WORDS.names, ['HOST', 'STATION', 'DHCP', 'VARIABLE', 'NAME', 'TITLE']],
];

const REST = SNAGS_WORDS.connectionsModulesLinesCables;

/** @example causeOf('S-ADDRESS-TWICE') // 'Addresses' */
export function causeOf(rule: SnagRule): string {
  const word = rule.split('-')[1] ?? '';
  return CAUSES.find(([, beginnings]) => beginnings.includes(word))?.[0] ?? REST;
}

export interface CauseGroup {
  readonly cause: string;
  readonly snags: readonly Snag[];
}

/** By cause, the worst cause first; within one as they came, the worst first. */
export function byCause(snags: readonly Snag[]): readonly CauseGroup[] {
  const groups = new Map<string, Snag[]>();
  for (const snag of snags) {
    const cause = causeOf(snag.rule);
    const list = groups.get(cause);
    if (list) list.push(snag);
    else groups.set(cause, [snag]);
  }
  // Snags come worst first, so the first of each cause is its worst, and causes stand in that order.
  return [...groups].map(([cause, list]) => ({ cause, snags: list }));
}

export interface Sorted {
  readonly open: readonly Snag[];
  readonly accepted: readonly Snag[];
}

/** What somebody has accepted stands apart. */
export function apart(snags: readonly Snag[], accepted: ReadonlySet<string>): Sorted {
  const isAccepted = (snag: Snag) => accepted.has(snagKey(snag));
  return {
    open: snags.filter((snag) => !isAccepted(snag)),
    accepted: snags.filter(isAccepted),
  };
}

/** Those of one subnet, or of devices with an interface in it. */
export const ofThings = (snags: readonly Snag[], ids: ReadonlySet<string>): readonly Snag[] =>
  snags.filter((snag) => ids.has(snag.id) || snag.also.some((id) => ids.has(id)));
