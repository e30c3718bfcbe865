import type { Ipv4, MacAddress } from '../net';
import { isOneOf, type Evidence, type EvidenceKind } from './evidence';
import { isKeyed, type Way } from './words';

/** How far an interface has come. */
export const STAGES = ['planned', 'heard', 'given', 'pinned', 'proven'] as const;

export type Stage = (typeof STAGES)[number];

type EvidencedStage = Exclude<Stage, 'planned'>;
type StageRow = Readonly<Record<EvidencedStage, EvidenceKind>>;

const row = (heard: EvidenceKind): StageRow => ({
  heard,
  given: 'has-address',
  pinned: 'kept',
  proven: 'found-as-planned',
});

/**
 * R-STAGE: the one event that reaches each stage, for each way. A tick is in none of them. Ways in
 * which nothing is sent before the address is there are heard by any frame of the MAC.
 */
export const STAGE_EVIDENCE: Readonly<Record<Way, StageRow>> = {
  bootp: row('asked'),
  'dhcp-mac': row('asked'),
  'dhcp-name': row('asked-by-name'),
  'dhcp-port': row('asked-by-port'),
  switches: row('seen'),
  'web-page': row('seen'),
  'layer2-name': row('discovered'),
  controller: row('discovered'),
  keypad: row('seen'),
  'makers-tool': row('seen'),
  card: row('seen'),
};

/** What takes a stage back until its own event is seen again. */
const BREAKS: Readonly<Record<EvidencedStage, readonly EvidenceKind[]>> = {
  heard: [],
  given: ['asks-again', 'address-taken', 'declined', 'released', 'twins', 'reset'],
  pinned: ['asks-again', 'reset'],
  proven: ['contradicted', 'no-answer', 'asks-again', 'reset'],
};

interface Notch {
  readonly stage: Stage;
  /** `read`: read off the device by a person, and not seen on the wire. */
  readonly state: 'open' | 'reached' | 'broken' | 'read';
  /** What showed it. */
  readonly by: Evidence | undefined;
}

interface PlannedAddress {
  readonly mac: MacAddress | undefined;
  readonly address: Ipv4;
}

/**
 * The MAC that counts as an interface's: the bound one, or where a name or a port is the key, the one
 * that asked under it last.
 */
export function countingMac(
  way: Way,
  planned: Pick<PlannedAddress, 'mac'>,
  evidence: readonly Evidence[],
): MacAddress | undefined {
  if (!isKeyed(way)) return planned.mac;
  return latest(evidence, [STAGE_EVIDENCE[way].heard])?.mac ?? planned.mac;
}

/** The five notches of an interface and the stage they come to. */
interface Progress {
  readonly stage: Stage;
  readonly notches: readonly Notch[];
}

/**
 * Computes the stage from the evidence; it is stored nowhere. Evidence of another MAC or another
 * address than the ones now planned does not count.
 * @param evidence in any order
 */
export function progressOf(
  way: Way,
  planned: PlannedAddress,
  evidence: readonly Evidence[],
): Progress {
  const mac = countingMac(way, planned, evidence);
  const counting = evidence.filter(
    (one) =>
      mac !== undefined &&
      (one.mac === undefined || one.mac === mac || one.kind === 'contradicted') &&
      (one.address === undefined || one.address === planned.address),
  );
  const notches: Notch[] = [{ stage: 'planned', state: 'reached', by: undefined }];
  for (const stage of ['heard', 'given', 'pinned', 'proven'] as const) {
    const reached = latest(counting, [STAGE_EVIDENCE[way][stage]]);
    const broken = latest(counting, BREAKS[stage]);
    if (broken && (!reached || broken.at > reached.at))
      notches.push({ stage, state: 'broken', by: broken });
    else notches.push(reached ? { stage, state: 'reached', by: reached } : unseen(stage, evidence));
  }
  const gap = notches.findIndex((notch) => notch.state !== 'reached');
  const last = gap < 0 ? notches.length - 1 : gap - 1;
  return { stage: notches[last]?.stage ?? 'planned', notches };
}

/** R-READ-OFF: what a person read off the device is told apart from what was seen, and raises no stage. */
function unseen(stage: Stage, evidence: readonly Evidence[]): Notch {
  const read =
    stage === 'given' ? latest(evidence, ['read-off', 'read-otherwise', 'reset']) : undefined;
  return read?.kind === 'read-off' && read.facts.address !== undefined
    ? { stage, state: 'read', by: read }
    : { stage, state: 'open', by: undefined };
}

const latest = (
  evidence: readonly Evidence[],
  kinds: readonly EvidenceKind[],
): Evidence | undefined =>
  evidence
    .filter((one) => isOneOf(kinds, one))
    .reduce<Evidence | undefined>(
      (best, one) => (best && best.at > one.at ? best : one),
      undefined,
    );
