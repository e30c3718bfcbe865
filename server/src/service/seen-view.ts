import {
  countingMac,
  formatIpv4,
  isKeyed,
  macOrNull,
  progressOf,
  type Device,
  type Evidence,
  type EvidenceKind,
  type EvidenceView,
  type Interface,
  type SeenView,
} from '@ipsonomo/core';

const CHECKS: readonly EvidenceKind[] = ['found-as-planned', 'contradicted', 'no-answer'];
const KEEPS: readonly EvidenceKind[] = ['told-to-keep', 'said-kept', 'keep-refused'];
const TROUBLES: readonly EvidenceKind[] = ['address-taken', 'twins', 'declined', 'set-refused'];
const TROUBLE_ENDS: readonly EvidenceKind[] = [
  ...TROUBLES,
  ...(['has-address', 'answered', 'named', 'given-for-now', 'told-to-keep'] as const),
  ...(['said-one-device'] as const),
];

/** What the latest evidence of an interface comes to. */
export function seenView(device: Device, at: Interface, evidence: readonly Evidence[]): SeenView {
  const counting = evidence.filter(
    (one) => one.address === undefined || one.address === at.address,
  );
  const { stage, notches } = progressOf(device.way, at, counting);
  const mac = countingMac(device.way, at, counting);
  const last = (kinds: readonly EvidenceKind[]): Evidence | undefined =>
    counting.findLast((one) => kinds.includes(one.kind) && (!one.mac || one.mac === mac));
  const trouble = last(TROUBLE_ENDS);
  return {
    stage,
    notches: notches.map(({ by, ...notch }) => ({ ...notch, by: by ? evidenceView(by) : null })),
    check: viewOrNull(last(CHECKS)),
    keep: viewOrNull(last(KEEPS)),
    askedBy: isKeyed(device.way) ? macOrNull(mac) : null,
    arrived: at.mac === undefined && !isKeyed(device.way) ? arrivedOf(counting) : null,
    before: at.mac === undefined ? beforeOf(counting) : null,
    trouble: trouble && TROUBLES.includes(trouble.kind) ? evidenceView(trouble) : null,
  };
}

/** Who answered alone where such a device is at first. */
function beforeOf(evidence: readonly Evidence[]): string | null {
  const found = evidence.findLast(({ kind }) => kind === 'found-before');
  return found?.facts['count'] === 1 ? String(found.facts['found']) : null;
}

const arrivedOf = (evidence: readonly Evidence[]): string | null =>
  macOrNull(evidence.findLast(({ kind }) => kind === 'kept' || kind === 'has-address')?.mac);

const viewOrNull = (one: Evidence | undefined): EvidenceView | null =>
  one ? evidenceView(one) : null;

export const evidenceView = (one: Evidence): EvidenceView => ({
  ...one,
  mac: macOrNull(one.mac),
  address: one.address === undefined ? null : formatIpv4(one.address),
});
