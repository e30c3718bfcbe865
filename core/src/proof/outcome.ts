import { formatIpv4, maskOf } from '../net';
import {
  findKind,
  findSubnet,
  gatewayOf,
  maskLengthOf,
  oncePer,
  stationNameOf,
  type Acceptance,
  type PlannedInterface,
  type CheckKind,
  type ToldAs,
  type Plan,
} from '../plan';
import type { CheckName, RequiredCheck } from './checks';
import { differencesIn, passedIn } from './facts';
import { identityText, stationText } from './compare-found';
import { CHECK_OF, type DifferenceKind, type FoundDifference } from './differences';
import { assembliesAt, plannedAssemblies } from './assemblies';
import { modulesAt } from './modules';

/** What a run comes to for one interface. */
export type ProofOutcome =
  | { readonly kind: 'proven' }
  /** Something is other than planned; `accepted` are the differences that stay with a reason. */
  | {
      readonly kind: 'contradicted' | 'accepted';
      readonly differences: readonly FoundDifference[];
      readonly accepted: readonly FoundDifference[];
    }
  | { readonly kind: 'silent' }
  /** Found as planned, but some of it too long ago. */
  | { readonly kind: 'stale'; readonly checks: readonly CheckName[] }
  /** Not asked at all, or not for all that its kind needs now. */
  | { readonly kind: 'not-asked'; readonly checks: readonly CheckName[] };

export type ProofKind = ProofOutcome['kind'];

const HOUR = 3_600_000;

interface Judging {
  readonly acceptances: readonly Acceptance[];
  readonly planned: PlannedTexts;
  readonly now: number;
}

/** What the last check says. */
type LastCheck = ToldAs<CheckKind> & { readonly at: number };

/** What an acceptance names: this value of this interface, found so. */
export const foundKey = (interfaceId: string, { what, found }: FoundDifference): string =>
  `found ${what}@${interfaceId}=${found}`.slice(0, 300);

/**
 * What the plan says now of the value that a difference is about; undefined where that cannot change, or where a MAC
 * that changes takes its evidence with it.
 */
type PlannedTexts = (difference: FoundDifference) => string | undefined;

export function plannedTexts(plan: Plan, { device, at }: PlannedInterface): PlannedTexts {
  const subnet = findSubnet(plan, at.subnetId);
  const gateway = subnet && gatewayOf(at, subnet);
  const kind = findKind(plan, device.kindId);
  const texts: Readonly<Partial<Record<DifferenceKind, string>>> = {
    ...{ serial: device.serial, name: stationNameOf(device) },
    ...{ revision: kind?.revision ?? '', article: kind?.orderNumber ?? '' },
    ...(subnet ? { mask: formatIpv4(maskOf(maskLengthOf(at, subnet))) } : {}),
    gateway: gateway === undefined ? 'none' : formatIpv4(gateway),
  };
  const assemblies = plannedAssemblies(device);
  return ({ what, expected }) => {
    switch (what) {
      case 'kind':
        // Over layer 2 it tells two numbers, else three.
        return expected.split(' / ').length === 2
          ? stationText(kind?.station)
          : identityText(kind?.identity);
      case 'module':
        return modulesAt(device.modules, expected);
      case 'size':
        return assembliesAt(assemblies, 'bytes', expected);
      case 'instance':
        return assembliesAt(assemblies, 'instance', expected);
      default:
        return texts[what];
    }
  };
}

const keysOf = oncePer(
  (acceptances: readonly Acceptance[]): ReadonlySet<string> =>
    new Set(acceptances.map(({ key }) => key)),
);

/** When what was found at a time is too old for a check: from the millisecond after it on. */
export const lastsUntil = ({ mostHours }: RequiredCheck, at: number): number =>
  at + mostHours * HOUR;

/**
 * R-PROVEN: every interface ends as one of these. Whatever was found counts only as long as the checks of its kind
 * and way allow.
 */
export function proofOutcome(
  interfaceId: string,
  required: readonly RequiredCheck[],
  last: LastCheck | undefined,
  { acceptances, planned, now }: Judging,
): ProofOutcome {
  if (!last) return { kind: 'not-asked', checks: required.map(({ check }) => check) };
  if (last.kind === 'no-answer') return { kind: 'silent' };
  if (last.kind === 'contradicted') {
    const keys = keysOf(acceptances);
    const told = differencesIn(last.facts);
    // The plan says something else by now: that is to be asked again.
    const all = told.filter((one) => (planned(one) ?? one.expected) === one.expected);
    if (all.length === 0 && told.length > 0)
      return { kind: 'not-asked', checks: [...new Set(told.map(({ what }) => CHECK_OF[what]))] };
    const accepted = all.filter((one) => keys.has(foundKey(interfaceId, one)));
    const differences = all.filter((one) => !accepted.includes(one));
    const isAccepted = differences.length === 0 && accepted.length > 0;
    return { kind: isAccepted ? 'accepted' : 'contradicted', differences, accepted };
  }
  const passed = passedIn(last.facts);
  const missing = required.filter(({ check }) => !passed.includes(check));
  if (missing.length > 0) return { kind: 'not-asked', checks: missing.map(({ check }) => check) };
  const old = required.filter((one) => now > lastsUntil(one, last.at));
  if (old.length > 0) return { kind: 'stale', checks: old.map(({ check }) => check) };
  return { kind: 'proven' };
}
