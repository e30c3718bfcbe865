import { pause, type Clock } from '@ipsonomo/core/clock';
import { formatIpv4, formatMac, type Ipv4, type MacAddress } from '@ipsonomo/core/net';
import type { TellNotice } from '@ipsonomo/core/plan';
import {
  DISCOVERY_GROUP,
  discoveryFrame,
  identifyAll,
  identifyName,
  orderOf,
  outcomeOf,
  responseWindow,
  stationOf,
  type DiscoveryMessage,
  type Dissected,
  type Station,
  type StationOrder,
  type StationRefusal,
} from '@ipsonomo/core/wire';
import type { Unit } from '../unit';
import {
  FieldRefusal,
  type FieldPlan,
  type FieldTarget,
  type FieldTask,
  type FoundStation,
  type Giving,
  type RecordEvidence,
} from '../../protocol';

type DiscoveryFrame = Extract<Dissected, { kind: 'discovery' }>;

export interface StationEvents {
  readonly mac: MacAddress;
  transmit(frame: Uint8Array): void;
  whoIsAt(
    subnetId: string,
    address: Ipv4,
    millis?: number,
  ): Promise<ReadonlySet<MacAddress> | 'no-voice'>;
  readonly record: RecordEvidence;
  notice: TellNotice;
  /** The list of found stations changed. */
  found(): void;
  /** An address was taken from it: the next sighting is news. */
  lost(interfaceId: string): void;
  changed(): void;
}

/** Answers to a search are spread over so many hundredths of a second. */
const SPREAD = 64;
/** A second round catches what was lost in the first. */
const ROUNDS = 2;
const MARGIN = 200;
const MOST_STATIONS = 1024;
const TRIES = 3;
/** How long a station may take to answer what it was told (from memory). */
const PATIENCE = 1000;
/** Who else has a name or an address would answer within this time. */
const LISTEN = 400;
/** Until a station uses an address it was given. */
const LOOKS = 8;
const LOOK_EVERY = 300;

interface Waiting {
  readonly from: MacAddress;
  readonly answer: (outcome: StationRefusal) => void;
}

/** What came of a set; `stopped` where somebody fell silent in the middle. */
type Outcome = StationRefusal | 'silent' | 'stopped';

/** Why a station was not given what is planned. */
type Trouble =
  { readonly why: Outcome | 'no-voice' } | { readonly why: 'taken'; readonly by: string };

/**
 * R-LAYER2: stations found and named over layer 2. Searching and flashing need no more than somebody who asks
 * for it; a set goes to a bound MAC alone, and only after nobody else answered for the name or the address.
 */
export class Stations implements Unit {
  private readonly known = new Map<MacAddress, FoundStation>();
  private readonly targets = new Map<MacAddress, FieldTarget>();
  private readonly tasksNow = new Map<string, FieldTask>();
  private readonly waiting = new Map<number, Waiting>();
  private readonly discovered = new Set<string>();
  private transaction = 0x4950_0000;
  private generation = 0;

  constructor(
    private readonly events: StationEvents,
    private readonly clock: Clock,
  ) {}

  get list(): readonly FoundStation[] {
    return [...this.known.values()];
  }

  plan({ targets }: FieldPlan): void {
    this.targets.clear();
    for (const target of targets)
      if (target.mac !== undefined) this.targets.set(target.mac, target);
    const now = this.clock.now();
    for (const one of this.known.values()) this.tell(one, now);
  }

  /** What another run found is not known in this one. */
  forget(): void {
    this.known.clear();
    this.discovered.clear();
    this.events.found();
  }

  clear(): void {
    this.generation += 1;
    this.tasksNow.clear();
    this.waiting.clear();
  }

  tasks(): readonly FieldTask[] {
    return [...this.tasksNow.values()];
  }

  /** Asks everybody, twice. Resolves once the last answer may have come. */
  async search(): Promise<void> {
    if (this.tasksNow.has('search')) return;
    await this.during('search', { kind: 'search', interfaceId: undefined }, async (goesOn) => {
      for (let round = 0; round < ROUNDS && goesOn(); round += 1) {
        this.say(DISCOVERY_GROUP, identifyAll(this.nextTransaction(), SPREAD));
        await pause(this.clock, responseWindow(SPREAD) + MARGIN);
      }
    });
  }

  /** Its lamp shows which one it is. Refuses with `station.silent` or `station.refused`. */
  async flash(mac: MacAddress): Promise<void> {
    const task = { kind: 'flash', interfaceId: this.targets.get(mac)?.interfaceId } as const;
    await this.during(`flash ${mac}`, task, async (goesOn) => {
      const outcome = await this.order(mac, { kind: 'flash' }, goesOn);
      const where = { mac: formatMac(mac) };
      if (outcome === 'silent') throw FieldRefusal.of('station.silent', where);
      if (outcome !== 'done') throw FieldRefusal.of('station.refused', { ...where, why: outcome });
    });
  }

  /**
   * Gives the planned name and address to the bound station. What came of it is evidence.
   * Refuses with `field.unbound` or `field.busy`.
   */
  async give(target: FieldTarget, giving: Giving, person: string): Promise<void> {
    await this.set(target, (mac, goesOn) => this.giveAll(target, mac, giving, person, goesOn));
  }

  /** Name and address go: as it left its maker. */
  async reset(target: FieldTarget, reason: string, person: string): Promise<void> {
    await this.set(target, async (mac, goesOn) => {
      this.keepFound(target, mac, person);
      const outcome = await this.order(mac, { kind: 'factory' }, goesOn);
      if (outcome !== 'done') return this.refused(target, 'reset', { why: outcome }, person);
      this.events.record('reset', target, { reason }, { person });
      this.events.lost(target.interfaceId);
      await this.readBack(goesOn, mac);
    });
  }

  /** An answer, a hello, or somebody else's search. */
  frame(frame: Dissected, bytes: Uint8Array, now: number): void {
    if (frame.kind === 'discovery') this.said(frame, bytes, now);
  }

  private said({ ethernet, discovery }: DiscoveryFrame, bytes: Uint8Array, now: number): void {
    if (discovery.act === 'set') {
      const outcome = outcomeOf(discovery);
      const waiting = this.waiting.get(discovery.transaction);
      if (outcome && waiting?.from === ethernet.from) waiting.answer(outcome);
      else if (outcome && this.isAsked(ethernet.from))
        this.events.notice('other-question', { by: formatMac(ethernet.from) });
      return;
    }
    const isTold = discovery.act === 'identify' && discovery.type === 'success';
    if (!isTold && discovery.act !== 'hello') return;
    const station = stationOf(ethernet.from, discovery);
    const before = this.known.get(station.mac);
    const one: FoundStation = {
      station: merged(before?.station, station),
      ...{ firstAt: before?.firstAt ?? now, lastAt: now },
      frame: bytes,
    };
    if (!before && this.known.size >= MOST_STATIONS) return;
    this.known.set(station.mac, one);
    this.tell(one, now);
    this.events.found();
  }

  private isAsked(mac: MacAddress): boolean {
    return [...this.waiting.values()].some(({ from }) => from === mac);
  }

  /** A station that the plan knows: found once a run, and its name whenever that is another. */
  private tell({ station, frame }: FoundStation, now: number): void {
    const target = this.targets.get(station.mac);
    if (!target) return;
    const { interfaceId, heardBy, stationName } = target;
    const name = station.name ?? '';
    const key = `${interfaceId} ${station.mac} ${name}`;
    if (this.discovered.has(key)) return;
    this.discovered.add(key);
    if (heardBy === 'discovered')
      this.events.record('discovered', target, { name }, { frame, at: now });
    if (name === stationName && name !== '')
      this.events.record('named', target, { name }, { frame, at: now });
  }

  private async set(
    target: FieldTarget,
    act: (mac: MacAddress, goesOn: () => boolean) => Promise<void>,
  ): Promise<void> {
    const { interfaceId, title, mac } = target;
    if (mac === undefined) throw FieldRefusal.of('field.unbound', { title });
    const key = `set ${interfaceId}`;
    if (this.tasksNow.has(key)) throw FieldRefusal.of('field.busy', { title });
    const task = { kind: 'station-set', interfaceId } as const;
    await this.during(key, task, (goesOn) => act(mac, goesOn));
  }

  private async giveAll(
    target: FieldTarget,
    mac: MacAddress,
    giving: Giving,
    person: string,
    goesOn: () => boolean,
  ): Promise<void> {
    const { stationName, address, length, gateway } = target;
    const refused = (what: string, trouble: Trouble) => this.refused(target, what, trouble, person);
    const nameHeld = await this.whoElseIs(stationName, mac, goesOn);
    if (nameHeld) return refused('name', { why: 'taken', by: nameHeld });
    const addressHeld = giving === 'name' ? undefined : await this.whoElseHas(target, mac, goesOn);
    if (addressHeld) return refused('address', addressHeld);
    this.keepFound(target, mac, person);
    const name = { kind: 'name', name: stationName, stay: 'stored' } as const;
    const named = await this.order(mac, name, goesOn);
    if (named !== 'done') return refused('name', { why: named });
    if (giving === 'name') {
      await this.readBack(goesOn, mac);
      return;
    }
    const given = { kind: 'address', address, length, gateway, stay: giving } as const;
    const addressed = await this.order(mac, given, goesOn);
    if (addressed !== 'done') return refused('address', { why: addressed });
    const facts = { by: 'layer2', gave: formatIpv4(address) };
    const kind = giving === 'stored' ? 'told-to-keep' : 'given-for-now';
    this.events.record(kind, target, facts, { person });
    await this.readBack(goesOn, mac);
    for (let looks = 0; looks < LOOKS && goesOn(); looks += 1) {
      const who = await this.events.whoIsAt(target.subnetId, address, LOOK_EVERY);
      if (who !== 'no-voice' && who.has(mac)) break;
    }
  }

  /** What another plant left in it is kept before it is changed. */
  private keepFound(target: FieldTarget, mac: MacAddress, person: string): void {
    const one = this.known.get(mac);
    const name = one?.station.name ?? '';
    const address = one?.station.address;
    const isElsewhere = address?.state !== undefined && address.state !== 'none';
    const isUsed = name !== '' && name !== target.stationName;
    if (!one || !(isUsed || (isElsewhere && address?.address !== target.address))) return;
    const facts = {
      ...(name === '' ? {} : { name }),
      ...(isElsewhere && address ? { has: formatIpv4(address.address) } : {}),
    };
    this.events.record('found-values', target, facts, { frame: one.frame, person });
  }

  /** Everybody is asked for the name; another than this one that has it is named. */
  private async whoElseIs(
    name: string,
    mac: MacAddress,
    goesOn: () => boolean,
  ): Promise<string | undefined> {
    const since = this.clock.now();
    if (goesOn()) this.say(DISCOVERY_GROUP, identifyName(this.nextTransaction(), name));
    await pause(this.clock, LISTEN);
    const other = this.list.find(
      (one) => one.station.name === name && one.station.mac !== mac && one.lastAt >= since,
    );
    return other && formatMac(other.station.mac);
  }

  private async whoElseHas(
    target: FieldTarget,
    mac: MacAddress,
    goesOn: () => boolean,
  ): Promise<Trouble | undefined> {
    const { subnetId, address } = target;
    const macs = await this.events.whoIsAt(subnetId, address);
    if (!goesOn()) return { why: 'stopped' };
    if (macs === 'no-voice') return { why: 'no-voice' };
    const other = [...macs].find((one) => one !== mac);
    return other === undefined ? undefined : { why: 'taken', by: formatMac(other) };
  }

  /** What it is now: asked of everybody, since a station answers identify to the group alone. */
  private async readBack(goesOn: () => boolean, mac: MacAddress): Promise<void> {
    const since = this.clock.now();
    for (let tries = 0; tries < TRIES && goesOn(); tries += 1) {
      this.say(DISCOVERY_GROUP, identifyAll(this.nextTransaction(), 1));
      await pause(this.clock, LISTEN);
      if ((this.known.get(mac)?.lastAt ?? 0) >= since) return;
    }
  }

  private async order(
    to: MacAddress,
    order: StationOrder,
    goesOn: () => boolean,
  ): Promise<Outcome> {
    const transaction = this.nextTransaction();
    let outcome: StationRefusal | undefined;
    let wake: () => void = () => undefined;
    this.waiting.set(transaction, {
      from: to,
      answer: (one) => {
        outcome = one;
        wake();
      },
    });
    for (let tries = 0; tries < TRIES && goesOn() && !outcome; tries += 1) {
      this.say(to, orderOf(transaction, order));
      if (!outcome)
        await Promise.race([pause(this.clock, PATIENCE), new Promise<void>((go) => (wake = go))]);
    }
    this.waiting.delete(transaction);
    return outcome ?? (goesOn() ? 'silent' : 'stopped');
  }

  private refused(target: FieldTarget, what: string, trouble: Trouble, person: string): void {
    this.events.record('set-refused', target, { what, ...trouble }, { person });
  }

  /** A task while it lasts: only then may anything leave. */
  private async during(
    key: string,
    task: Omit<FieldTask, 'phase'>,
    act: (goesOn: () => boolean) => Promise<void>,
  ): Promise<void> {
    const { generation } = this;
    this.tasksNow.set(key, { ...task, phase: 'talking' });
    this.events.changed();
    try {
      await act(() => this.generation === generation);
    } finally {
      if (this.generation === generation) this.tasksNow.delete(key);
      this.events.changed();
    }
  }

  private say(to: MacAddress, message: DiscoveryMessage): void {
    this.events.transmit(discoveryFrame(this.events.mac, to, message));
  }

  private nextTransaction(): number {
    this.transaction = (this.transaction + 1) >>> 0;
    return this.transaction;
  }
}

/** What is told now; what is not told any more was not changed by silence. */
const merged = (before: Station | undefined, now: Station): Station => ({
  mac: now.mac,
  name: now.name ?? before?.name,
  type: now.type ?? before?.type,
  vendor: now.vendor ?? before?.vendor,
  device: now.device ?? before?.device,
  address: now.address ?? before?.address,
});
