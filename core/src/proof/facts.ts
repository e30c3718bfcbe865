import { formatIpv4 } from '../net';
import type { CheckFacts, Facts, Kind } from '../plan';
import { CHECK_NAMES, type CheckName } from './checks';
import { networkSaid, type Compared, type Found } from './compare-found';
import { DIFFERENCES, type DifferenceKind, type FoundDifference } from './differences';
import { foundModulesText } from './modules';

// What a check found, as it is kept in the facts of its evidence: flat, so that a list can show it.

/** @param offers what the modules of such a kind are called */
export function proofFacts(
  found: Found,
  { differences, passed }: Compared,
  offers: Kind['modules'] = [],
): CheckFacts {
  const { said, services, pingMillis } = found;
  const [worst] = differences;
  const network = networkSaid(found);

  // What is missing is left out; the rest has the names of a check's facts.
  return compact({
    passed: passed.join(' '),
    pingMillis: pingMillis === undefined ? undefined : Math.round(pingMillis * 10) / 10,
    name: found.station?.name,
    says: said?.by,
    product: said?.product ?? found.station?.type,
    revision: said?.revision,
    hardware: said?.hardware,
    serial: said?.serial,
    connection: said?.connection,
    modules: found.modules && foundModulesText(offers, found.modules),
    ...assemblyFacts(found.assemblies),
    page: found.page,
    mask: network && formatIpv4(network.mask),
    gateway: network && formatIpv4(network.gateway),
    services: services.map(({ port, state }) => `${port} ${state}`).join(', '),
    what: worst?.what,
    differs: differences.map(({ what }) => what).join(' '),
    ...Object.fromEntries(
      differences.flatMap(({ what, expected, found: has }) => [
        [`expected ${what}`, expected],
        [`found ${what}`, has],
      ]),
    ),
  }) as CheckFacts;
}

/** Instances that are there, and their sizes in bytes. */
const assemblyFacts = (assemblies: Found['assemblies']): Facts =>
  compact(
    Object.fromEntries(
      assemblies.flatMap(({ role, instance, isThere, bytes }) => [
        [`${role}-instance`, isThere ? instance : 'none'],
        ...(role === 'config' ? [] : [[role, bytes] as const]),
      ]),
    ),
  );

const compact = (facts: Readonly<Record<string, string | number | undefined>>): Facts =>
  Object.fromEntries(
    Object.entries(facts).flatMap(([key, value]) =>
      value === undefined || value === '' ? [] : [[key, value]],
    ),
  );

const isDifference = (text: string): text is DifferenceKind =>
  (DIFFERENCES as readonly string[]).includes(text);

/** The differences that such facts tell of, the worst first. */
export const differencesIn = (facts: CheckFacts): readonly FoundDifference[] =>
  (facts.differs ?? facts.what ?? '')
    .split(' ')
    .filter(isDifference)
    .map((what) => ({
      what,
      expected: facts[`expected ${what}`] ?? facts.expected ?? '',
      found: facts[`found ${what}`] ?? facts.found ?? '',
    }));

/** The checks that were passed; what was kept before they had names was ARP and ping. */
export const passedIn = (facts: CheckFacts): readonly CheckName[] => {
  const passed = (facts.passed ?? 'arp ping').split(' ');
  return CHECK_NAMES.filter((check) => passed.includes(check));
};
