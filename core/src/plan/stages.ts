import type { Ipv4, MacAddress } from '../net';
import { isKeyed, type Way } from './words';

/** How far an interface has come. */
export const STAGES = ['planned', 'heard', 'given', 'pinned', 'proven'] as const;

export type Stage = (typeof STAGES)[number];

/** What can have been seen or decided. Every kind carries its own facts. */
export const EVIDENCE_KINDS = [
  /** A BootP or DHCP request of the MAC was heard. */
  'asked',
  /** A request with the planned name (option 12 or 61) was heard. */
  'asked-by-name',
  /** A request through the planned switch port (option 82) was heard. */
  'asked-by-port',
  /** Any frame of the MAC was seen. */
  'seen',
  /** It answered layer-2 discovery. */
  'discovered',
  /** A person held label against MAC and bound it. */
  'bound',
  /** A reply with the planned address was sent. */
  'answered',
  /** The MAC used the planned address: an ARP answer or announcement. */
  'has-address',
  /** The device was told to keep its address and read back as such. */
  'told-to-keep',
  /** The device refused to keep its address. */
  'keep-refused',
  /** It has its planned name over layer 2. */
  'named',
  /** It took an address over layer 2 that lasts to the next power-off. */
  'given-for-now',
  /** It did not take what it was told over layer 2, or somebody else has it. */
  'set-refused',
  /** Set back to how it left its maker. */
  'reset',
  /** A person says the kind's own step was done: said, not seen. */
  'said-kept',
  /** It stopped answering after its power was cut. */
  'gone',
  /** Who answered where it was before, or nobody. */
  'found-before',
  /** It answers no longer where it was before. */
  'left-old',
  /** It answers at its new address and still at the old one. */
  'still-at-old',
  /** A person read the planned address off its display or its page: weaker than seen on the wire. */
  'read-off',
  /** A person read something else off it than is planned. */
  'read-otherwise',
  /** A person says it was given: said, not seen. */
  'said-given',
  /** A person says it was set back or released by who owned it: said, not seen. */
  'said-set-back',
  /** One device alone has its MAC, although two were heard. */
  'said-one-device',
  /** A person went on although a controller uses it. */
  'overruled',
  /** What was in it before it was changed. */
  'found-values',
  /** It told who it is, and whether a controller uses it. */
  'identified',
  /** A person opened its web page. */
  'page-opened',
  /** While it was awaited, something came up with another address. */
  'arrived-elsewhere',
  /** It was away for less time than it needs to start: its power was not cut. */
  'back-too-soon',
  /** After power off and on it was at the planned address, not given by Ipsonomo. */
  'kept',
  /** After power off and on it asked for an address again. */
  'asks-again',
  /** It answered ARP and ping from the planned address with the planned MAC. */
  'found-as-planned',
  /** Something else was found than planned. */
  'contradicted',
  /** The way to it, router by router. */
  'walked',
  /** Who is at the end of a route path was asked along it. */
  'path-asked',
  /** One register of it, or of one behind it, was read. */
  'register-read',
  /** It was asked in a steady beat over minutes or hours. */
  'watched-over',
  /** How it came back from a cold start that was only watched. */
  'came-back',
  /** Nothing answered at the planned address. */
  'no-answer',
  /** Another MAC answers for the planned address. */
  'address-taken',
  /** The client refused the address as in use (RFC 2131 §3.1). */
  'declined',
  /** The client gave the address back. */
  'released',
  /** Two devices have this MAC; neither is answered. */
  'twins',
] as const;

export type EvidenceKind = (typeof EVIDENCE_KINDS)[number];

/** Values that belong to something that was seen, by their names. */
export type Facts = Readonly<Record<string, string | number>>;

/** One thing that was seen or decided; never changed and never removed. */
export interface Evidence {
  readonly id: string;
  readonly kind: EvidenceKind;
  /** Milliseconds since 1970. */
  readonly at: number;
  readonly mac: MacAddress | undefined;
  readonly address: Ipv4 | undefined;
  /** The wire: `practice` or `live:eth0`. */
  readonly source: string;
  readonly person: string;
  readonly facts: Facts;
}

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

export interface Notch {
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
export interface Progress {
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
  return read?.kind === 'read-off' && read.facts['address'] !== undefined
    ? { stage, state: 'read', by: read }
    : { stage, state: 'open', by: undefined };
}

const latest = (
  evidence: readonly Evidence[],
  kinds: readonly EvidenceKind[],
): Evidence | undefined =>
  evidence
    .filter((one) => kinds.includes(one.kind))
    .reduce<Evidence | undefined>(
      (best, one) => (best && best.at > one.at ? best : one),
      undefined,
    );
