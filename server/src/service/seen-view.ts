import {
  macOrNull,
  type EvidenceView,
  type EvidenceViewOf,
  type SeenView,
} from '@ipsonomo/core/api';
import { formatIpv4 } from '@ipsonomo/core/net';
import {
  CHECK_KINDS,
  countingMac,
  isKeyed,
  isOneOf,
  progressOf,
  type Device,
  type Evidence,
  type EvidenceKind,
  type Interface,
} from '@ipsonomo/core/plan';

const KEEPS = ['told-to-keep', 'said-kept', 'keep-refused'] as const;
const TROUBLES = ['address-taken', 'twins', 'declined', 'set-refused'] as const;
const TROUBLE_ENDS = [
  ...TROUBLES,
  ...(['has-address', 'answered', 'named', 'given-for-now', 'told-to-keep'] as const),
  ...(['said-one-device'] as const),
] as const;

/** What the latest evidence of an interface comes to. */
export function seenView(device: Device, at: Interface, evidence: readonly Evidence[]): SeenView {
  const counting = evidence.filter(
    (one) => one.address === undefined || one.address === at.address,
  );
  const { stage, notches } = progressOf(device.way, at, counting);
  const mac = countingMac(device.way, at, counting);
  const own = counting.filter((one) => !one.mac || one.mac === mac);
  const last = <K extends EvidenceKind>(kinds: readonly K[]) =>
    own.findLast((one) => isOneOf(kinds, one));
  const trouble = last(TROUBLE_ENDS);
  return {
    stage,
    notches: notches.map(({ by, ...notch }) => ({ ...notch, by: by ? evidenceView(by) : null })),
    check: viewOrNull(last(CHECK_KINDS)),
    keep: viewOrNull(last(KEEPS)),
    askedBy: isKeyed(device.way) ? macOrNull(mac) : null,
    arrived: at.mac === undefined && !isKeyed(device.way) ? arrivedOf(counting) : null,
    before: at.mac === undefined ? beforeOf(counting) : null,
    trouble: trouble && isOneOf(TROUBLES, trouble) ? evidenceView(trouble) : null,
  };
}

/** Who answered alone where such a device is at first. */
function beforeOf(evidence: readonly Evidence[]): string | null {
  const found = evidence.findLast((one) => one.kind === 'found-before');
  return found?.facts.count === 1 ? (found.facts.found ?? null) : null;
}

const arrivedOf = (evidence: readonly Evidence[]): string | null =>
  macOrNull(evidence.findLast(({ kind }) => kind === 'kept' || kind === 'has-address')?.mac);

const viewOrNull = <E extends Evidence>(one: E | undefined): ViewOf<E> | null =>
  one ? evidenceView(one) : null;

type ViewOf<E> = E extends { readonly kind: infer K extends EvidenceKind }
  ? EvidenceViewOf<K>
  : EvidenceView;

/** As it is told: addresses and MACs as text. */
export const evidenceView = <E extends Evidence>(one: E): ViewOf<E> =>
  ({
    ...one,
    mac: macOrNull(one.mac),
    address: one.address === undefined ? null : formatIpv4(one.address),
  }) as unknown as ViewOf<E>;
