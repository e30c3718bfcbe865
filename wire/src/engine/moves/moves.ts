import { formatIpv4, formatMac, type Ipv4, type MacAddress } from '@ipsonomo/core/net';
import type { EvidenceKind, FactsOf } from '@ipsonomo/core/plan';
import type {
  FieldPlan,
  FieldSubnet,
  FieldTarget,
  FieldTask,
  RecordEvidence,
} from '../../protocol';
import type { Unit } from '../unit';

export interface MoveEvents {
  readonly mac: MacAddress;
  needVoice(subnetId: string): void;
  isReady(subnetId: string): boolean;
  askArp(subnetId: string, address: Ipv4): void;
  /** The subnet to speak in about an address. */
  around(address: Ipv4): FieldSubnet;
  /** Where a device is before it is given what is planned; undefined where nobody knows. */
  whereWas(target: FieldTarget): Ipv4 | undefined;
  readonly record: RecordEvidence;
  changed(): void;
}

const ASK_EVERY = 500;
/** After so many asks it is plain who answers, and who does not any more. */
const LOOKS = 3;
const SILENT_AFTER = 4;
const PATIENCE = 15 * 60_000;

/** Who answers for one address, and how long ago in asks. */
class Place {
  private readonly seen = new Map<MacAddress, number>();

  constructor(
    readonly address: Ipv4,
    readonly subnetId: string,
  ) {}

  asked(): void {
    for (const [mac, asks] of this.seen) this.seen.set(mac, asks + 1);
  }

  saw(mac: MacAddress): void {
    this.seen.set(mac, 0);
  }

  get macs(): readonly MacAddress[] {
    return [...this.seen].filter(([, asks]) => asks < SILENT_AFTER).map(([mac]) => mac);
  }
}

interface Move {
  target: FieldTarget;
  readonly person: string;
  readonly before: Place | undefined;
  readonly after: Place;
  readonly startedAt: number;
  nextAt: number;
  asks: number;
  /** Who answered alone at the old address: the device, though nobody held its label against it. */
  mover: MacAddress | undefined;
  /** Who was at the new address when it was looked for first, while nothing was bound. */
  readonly residents: Set<MacAddress>;
  /** Since how many asks it is at its new address. */
  arrived: number;
  readonly told: Set<string>;
  /** Who was told to answer at the old address; undefined before the first look. */
  foundBefore: string | undefined;
}

/**
 * R-MOVE: follows a device that is given its address by hand, on its page, its keypad, with its maker's tool:
 * from where it was to where it is planned. It is done once it answers at the new address and no longer at the
 * old one; Ipsonomo only asks by ARP.
 */
export class Moves implements Unit {
  private readonly moves = new Map<string, Move>();

  constructor(private readonly events: MoveEvents) {}

  start(target: FieldTarget, person: string, now: number): void {
    const from = this.events.whereWas(target);
    const subnet = from === undefined ? undefined : this.events.around(from);
    const before = from !== undefined && subnet ? new Place(from, subnet.id) : undefined;
    this.moves.set(target.interfaceId, {
      ...{ target, person, before, after: new Place(target.address, target.subnetId) },
      ...{ startedAt: now, nextAt: now, asks: 0, mover: target.mac, arrived: 0 },
      ...{ residents: new Set(), told: new Set(), foundBefore: undefined },
    });
    this.events.needVoice(target.subnetId);
    if (subnet) this.events.needVoice(subnet.id);
    this.events.changed();
  }

  /** The plan changed: somebody may have been bound meanwhile. */
  plan({ targets }: FieldPlan): void {
    for (const [id, move] of this.moves) {
      const target = targets.find(({ interfaceId }) => interfaceId === id);
      if (target?.address !== move.target.address) this.moves.delete(id);
      else {
        move.target = target;
        move.mover = target.mac ?? move.mover;
      }
    }
  }

  clear(): void {
    this.moves.clear();
  }

  tasks(): readonly FieldTask[] {
    return [...this.moves.values()].map((move) => ({
      kind: 'follow',
      interfaceId: move.target.interfaceId,
      phase: phaseOf(move),
    }));
  }

  nextAt(): number {
    return Math.min(Infinity, ...[...this.moves.values()].map((move) => move.nextAt));
  }

  sighting(address: Ipv4, mac: MacAddress): void {
    if (mac === this.events.mac) return;
    for (const { before, after } of this.moves.values())
      for (const place of [before, after]) if (place?.address === address) place.saw(mac);
  }

  run(now: number): void {
    for (const move of this.moves.values()) {
      if (now < move.nextAt) continue;
      move.nextAt = now + ASK_EVERY;
      if (now - move.startedAt > PATIENCE) this.end(move);
      else this.next(move);
    }
  }

  private next(move: Move): void {
    const places = [move.before, move.after].filter((one) => one !== undefined);
    if (!places.every(({ subnetId }) => this.events.isReady(subnetId))) return;
    if (move.asks >= LOOKS) this.conclude(move);
    if (!this.moves.has(move.target.interfaceId)) return;
    move.asks += 1;
    for (const place of places) {
      place.asked();
      this.events.askArp(place.subnetId, place.address);
    }
  }

  private conclude(move: Move): void {
    const { before, after, target } = move;
    const old = before?.macs ?? [];
    if (target.mac === undefined && old.length === 1) move.mover = old[0];
    if (move.mover === undefined) this.unknown(move);
    const isThere = move.mover !== undefined && after.macs.includes(move.mover);
    // Where it is already where it should be, nobody has to be told where it was.
    if (before && (!isThere || old.length > 0)) this.foundBefore(move, before, old);
    const others = move.mover === undefined ? [] : after.macs.filter((mac) => mac !== move.mover);
    for (const mac of others)
      this.once(move, `taken ${mac}`, 'address-taken', { by: formatMac(mac) });
    if (!isThere) move.arrived = 0;
    else this.isThere(move, old);
  }

  /**
   * Nothing is bound and nothing was seen at the old address. What was at the new one before is somebody, whose
   * label has to be looked at; what comes there while it is awaited is the device.
   */
  private unknown(move: Move): void {
    const { macs } = move.after;
    if (move.asks === LOOKS) for (const mac of macs) move.residents.add(mac);
    const found = [...move.residents].map(formatMac).join(', ');
    if (found !== '') this.once(move, 'residents', 'contradicted', { what: 'unbound', found });
    const [came, other] = macs.filter((mac) => !move.residents.has(mac));
    if (other === undefined) move.mover = came;
  }

  /** Whoever answers at the old address is told whenever that changes, and also when it changes back. */
  private foundBefore(move: Move, { address }: Place, old: readonly MacAddress[]): void {
    const found = old.map(formatMac).join(', ');
    if (found === move.foundBefore) return;
    move.foundBefore = found;
    const at = { at: formatIpv4(address), ...(found === '' ? {} : { found }) };
    this.record(move, 'found-before', { ...at, count: old.length });
  }

  private isThere(move: Move, old: readonly MacAddress[]): void {
    const { before, target, mover } = move;
    move.arrived += 1;
    this.events.changed();
    const using = { using: formatIpv4(target.address) };
    if (target.mac === undefined) {
      this.once(move, `seen ${mover}`, 'seen', using);
      this.once(move, `there ${mover}`, 'has-address', using);
    }
    const isStillThere = mover !== undefined && old.includes(mover);
    const was = before ? { was: formatIpv4(before.address) } : {};
    if (!isStillThere && move.arrived > 1) {
      if (before) this.once(move, 'left', 'left-old', was);
      this.end(move);
    } else if (isStillThere && move.arrived > 2 * SILENT_AFTER)
      this.once(move, 'still', 'still-at-old', was);
  }

  private once<K extends EvidenceKind>(move: Move, key: string, kind: K, facts: FactsOf<K>): void {
    if (move.told.has(key)) return;
    move.told.add(key);
    this.record(move, kind, facts);
  }

  private record<K extends EvidenceKind>(
    { target, person, mover }: Move,
    kind: K,
    facts: FactsOf<K>,
  ): void {
    const mac = kind === 'address-taken' ? target.mac : mover;
    this.events.record(kind, { ...target, mac }, facts, { person });
    this.events.changed();
  }

  private end(move: Move): void {
    this.moves.delete(move.target.interfaceId);
    this.events.changed();
  }
}

function phaseOf({ asks, before, after, mover }: Move): string {
  if (asks < LOOKS) return 'looking';
  if (mover !== undefined && after.macs.includes(mover))
    return before?.macs.includes(mover) ? 'at-both' : 'at-new';
  const old = before?.macs.length ?? 0;
  return old > 1 ? 'several' : old === 1 ? 'at-old' : 'nowhere';
}
