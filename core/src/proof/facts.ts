import { formatIpv4 } from '../net';
import type { Facts } from '../plan';
import { CHECK_NAMES, type CheckName } from './checks';
import {
  DIFFERENCES,
  type Compared,
  type DifferenceKind,
  type Found,
  type FoundDifference,
} from './compare-found';

// What a check found, as it is kept in the facts of its evidence: flat, so that a list can show it.

/** The values that were found, whether they are as planned or not. */
export const FOUND_VALUES = [
  ...(['name', 'product', 'revision', 'serial', 'mask', 'gateway', 'page', 'services'] as const),
] as const;
export type FoundValue = (typeof FOUND_VALUES)[number];

export function proofFacts(found: Found, { differences, passed }: Compared): Facts {
  const { said, services, pingMillis } = found;
  const [worst] = differences;
  return compact({
    passed: passed.join(' '),
    pingMillis: pingMillis === undefined ? undefined : Math.round(pingMillis * 10) / 10,
    name: found.stationName,
    says: said?.by,
    product: said?.product,
    revision: said?.revision,
    serial: said?.serial,
    used: said ? (said.isUsed ? 'yes' : 'no') : undefined,
    page: found.page,
    mask: found.network && formatIpv4(found.network.mask),
    gateway: found.network && formatIpv4(found.network.gateway),
    services: services.map(({ port, state }) => `${port} ${state}`).join(', '),
    what: worst?.what,
    differs: differences.map(({ what }) => what).join(' '),
    ...Object.fromEntries(
      differences.flatMap(({ what, expected, found: has }) => [
        [`expected ${what}`, expected],
        [`found ${what}`, has],
      ]),
    ),
  });
}

const compact = (facts: Readonly<Record<string, string | number | undefined>>): Facts =>
  Object.fromEntries(
    Object.entries(facts).flatMap(([key, value]) =>
      value === undefined || value === '' ? [] : [[key, value]],
    ),
  );

const isDifference = (text: string): text is DifferenceKind =>
  (DIFFERENCES as readonly string[]).includes(text);

/** The differences that such facts tell of, the worst first. */
export const differencesIn = (facts: Facts): readonly FoundDifference[] =>
  String(facts['differs'] ?? facts['what'] ?? '')
    .split(' ')
    .filter(isDifference)
    .map((what) => ({
      what,
      expected: String(facts[`expected ${what}`] ?? facts['expected'] ?? ''),
      found: String(facts[`found ${what}`] ?? facts['found'] ?? ''),
    }));

/** The checks that were passed; what was kept before they had names was ARP and ping. */
export const passedIn = (facts: Facts): readonly CheckName[] => {
  const passed = String(facts['passed'] ?? 'arp ping').split(' ');
  return CHECK_NAMES.filter((check) => passed.includes(check));
};
