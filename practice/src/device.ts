import type { Lamp } from '@ipsonomo/core/api';
import {
  newHost,
  nextTickOf,
  stepHost,
  type HostAddress,
  type HostInput,
  type HostNews,
  type HostState,
} from '@ipsonomo/core/host';
import { formatIpv4 } from '@ipsonomo/core/net';
import { readSwitches } from '@ipsonomo/core/switches';
import {
  DHCP_PORT,
  encodeWith,
  dhcpMessage,
  RECORD_PORT,
  type CipReply,
  type CipRequest,
  type DhcpMessage,
  type Dissected,
  type UnconnectedSend,
} from '@ipsonomo/core/wire';
import {
  declineOf,
  receiveReply,
  runClient,
  startClient,
  type ClientNews,
  type ClientState,
  type ClientStep,
  type ClientTraits,
} from './client';
import * as asking from './asking';
import { isTypedInto, type DeviceDefinition } from './definition';
import { Later } from './later';
import { Lending } from './lending';
import { identityOf } from './identity';
import { forwardAlong, type FindNeighbour } from './rack';
import { isAway, renumbered, spoil, type Quirk } from './quirks';
import { answerRecord } from './record-service';
import { Services, type ServedDevice } from './services';
import { factoryMemory, startOf, untouched, type Memory, type Start } from './start';
import { answerCip } from './tcpip-service';
import { clientTraits, hostTraits } from './traits';
import { StationController } from './station-controller';
import { answerDiscovery, type StationDeed } from './station';

/**
 * A device on the practice wire: the same host as Ipsonomo's own, a client that asks, and a memory
 * that keeps an address only once it was told to. Time comes in; frames go out.
 */
export class PracticeDevice {
  power = true;
  cable: boolean;
  /** As its switches stand; they are read when it gets power. */
  positions: readonly number[];
  private memory: Memory;
  private start: Start = { kind: 'waits' };
  /** A name until the next power-off. */
  private passingName: string | undefined;
  private readonly lending: Lending | undefined;
  private flashesUntil = 0;
  private readonly later = new Later();
  private host: HostState;
  private client: ClientState | undefined;
  private bootsAt: number;
  private conflict = false;
  private heldBack = 0;
  /** How it is other than it should be. */
  readonly quirks: Set<Quirk>;
  /** What is printed on it. */
  label: string;
  private readonly services: Services;
  private readonly controller: StationController;
  /** Who is on a segment, for a rack that passes requests on. */
  find: FindNeighbour = () => undefined;
  /** Its controller gave it its address and is connected since. */
  private isRun = false;
  private restartsAt = Infinity;
  /** When it has something to do, where that was asked since something happened to it. */
  private dueAt: number | undefined;

  constructor(
    readonly definition: DeviceDefinition,
    private readonly random: () => number,
    now: number,
  ) {
    const { kind, stored, stationName } = definition;
    this.quirks = new Set(definition.quirks);
    this.label = definition.label;
    this.cable = !definition.unplugged;
    this.services = new Services(random);
    this.controller = new StationController(definition.mac, definition.project ?? []);
    this.lending = definition.lends && new Lending(definition.lends);
    this.positions = untouched(kind);
    const made = factoryMemory(kind);
    this.memory = {
      control: stored ? 0 : made.control,
      stored: stored ?? made.stored,
      stationName: stationName ?? made.stationName,
    };
    this.host = this.freshHost();
    // What keeps an address from before has been running for long.
    this.bootsAt = stored ? now : now + this.bootTime();
  }

  get address(): HostAddress | undefined {
    return this.host.configured;
  }

  /** What it answers to a request that a rack passed on to it. */
  answer(request: CipRequest): CipReply {
    const { kind, mac, configured, owned, memory, quirks, assemblies } = this.served;
    const identity = identityOf(kind, mac, quirks);
    const { control } = memory;
    return answerCip({ control, configured, owned, identity, assemblies }, request);
  }

  /** What its services answer by. */
  private get served(): ServedDevice {
    const { kind, mac, line = [], rack, assemblies = [] } = this.definition;
    const { memory, quirks } = this;
    const times = quirks.has('other-size') ? 2 : 1;
    return {
      ...{ kind, mac, configured: this.address, memory, quirks, line },
      owned: this.isOwned || this.isRun,
      assemblies: assemblies.map((one) => ({ ...one, bytes: one.bytes * times })),
      forward: rack && ((send: UnconnectedSend) => forwardAlong(rack, send, this.find)),
    };
  }

  lamp(now: number): Lamp {
    if (!this.power) return 'off';
    if (now < this.flashesUntil) return 'flashing';
    if (this.conflict) return 'conflict';
    if (this.host.configured) return 'steady';
    if (this.bootsAt !== Infinity) return 'starting';
    return this.client ? 'asking' : 'waiting';
  }

  get lampSays(): string {
    const address = this.host.configured;
    return address ? formatIpv4(address.address) : '';
  }

  setPower(on: boolean, now: number): void {
    if (on === this.power) return;
    this.dueAt = undefined;
    this.power = on;
    this.host = this.freshHost();
    this.client = undefined;
    this.conflict = false;
    this.services.forget();
    this.isRun = false;
    this.controller.power(false, now);
    this.restartsAt = Infinity;
    this.passingName = undefined;
    this.flashesUntil = 0;
    this.later.clear();
    this.bootsAt = on ? now + this.bootTime() : Infinity;
  }

  /** The step a person does at the device so that it keeps its address; false where it has none. */
  doOwnStep(): boolean {
    if (this.definition.kind.pinning.by !== 'own-step' || !this.host.configured) return false;
    this.memory = { ...this.memory, control: 0, stored: this.host.configured };
    return true;
  }

  /** At the next power-up it is as it left its maker. */
  setBack(): void {
    if (this.definition.kind.setBack.length > 0) this.memory = factoryMemory(this.definition.kind);
  }

  /** It keeps an address from before, and does not ask. */
  keepFromBefore(stored: HostAddress, now: number): void {
    this.memory = { ...this.memory, control: 0, stored };
    this.restart(now);
  }

  private restart(now: number): void {
    this.setPower(false, now);
    this.setPower(true, now);
  }

  /** Turns its switches; they are read at the next power-up. */
  turn(positions: readonly number[]): void {
    const face = this.definition.kind.switches;
    if (face && readSwitches(face, positions).ok) this.positions = positions;
  }

  /** An address typed on its keypad, or written by its maker's tool or a card. */
  type(address: HostAddress): void {
    if (isTypedInto(this.definition.kind))
      this.memory = { ...this.memory, control: 0, stored: address };
  }

  /** Known until something happens to it: of thousands hardly one has anything to do. */
  nextAt(): number {
    if (this.dueAt !== undefined) return this.dueAt;
    if (!this.power) return Infinity;
    const client = this.client ? Math.max(this.client.nextAt, this.heldBack) : Infinity;
    return (this.dueAt = Math.min(
      this.bootsAt,
      this.restartsAt,
      this.controller.nextAt(),
      client,
      this.later.nextAt(),
      nextTickOf(this.host) ?? Infinity,
    ));
  }

  /** Everything that is due. */
  run(now: number): readonly Uint8Array[] {
    if (!this.power) return [];
    this.dueAt = undefined;
    const frames: Uint8Array[] = [];
    if (now >= this.restartsAt) this.restart(now);
    if (now >= this.bootsAt) {
      this.bootsAt = Infinity;
      frames.push(...this.boot(now));
    }
    if (this.client && now >= this.heldBack)
      frames.push(...this.onClient(runClient(this.client, this.traits(), now), now));
    frames.push(...this.later.due(now), ...this.controller.run(now));
    for (const target of this.controller.asksFor(now))
      frames.push(...this.step({ kind: 'ask-arp', target }, now));
    frames.push(...this.step({ kind: 'tick' }, now));
    return frames;
  }

  receive(frame: Dissected, now: number): readonly Uint8Array[] {
    if (!this.power || !this.cable || this.bootsAt !== Infinity) return [];
    if (isAway(this.quirks, now)) return [];
    if (frame.kind === 'discovery') return this.onDiscovery(frame, now);
    if (frame.kind === 'dhcp' && this.client && asking.isFor(this.definition.mac, frame))
      return this.onClient(receiveReply(this.client, this.traits(), frame.dhcp, now), now);
    return this.step({ kind: 'frame', frame }, now);
  }

  private onDiscovery(
    frame: Extract<Dissected, { kind: 'discovery' }>,
    now: number,
  ): readonly Uint8Array[] {
    const { mac, kind, runBy } = this.definition;
    this.dueAt = undefined;
    this.controller.hear(frame);
    if (!kind.station) return [];
    const isByController = frame.ethernet.from === runBy;
    const answer = answerDiscovery(
      {
        ...{ mac, kind, address: this.host.configured, conflict: this.conflict },
        name: this.stationName,
        isRunning: this.isOwned || (this.isRun && !isByController),
      },
      frame,
    );
    if (!answer) return [];
    if (answer.after > 0) {
      this.later.push(now + answer.after, spoil(answer.frame, this.quirks));
      return [];
    }
    if (isByController && answer.deeds.some(({ kind: what }) => what === 'address'))
      this.isRun = true;
    const deeds = answer.deeds.flatMap((deed) => this.obey(deed, now));
    return [spoil(answer.frame, this.quirks), ...deeds];
  }

  private get isOwned(): boolean {
    return (this.definition.owned ?? false) || this.quirks.has('owned');
  }

  private get stationName(): string {
    const name = this.passingName ?? this.memory.stationName;
    return this.quirks.has('capital-name') ? name.toUpperCase() : name;
  }

  /** Somebody named it before. */
  rename(stationName: string): void {
    this.memory = { ...this.memory, stationName };
  }

  /** Another name stands in its project. */
  renameStation(from: string, to: string, now: number): void {
    this.controller.rename(from, to);
    this.controller.power(this.power, now);
    this.dueAt = undefined;
  }

  private obey(deed: StationDeed, now: number): readonly Uint8Array[] {
    switch (deed.kind) {
      case 'flash':
        this.flashesUntil = now + asking.FLASH;
        return [];
      case 'name':
        this.passingName = deed.name;
        if (deed.stay === 'stored') this.memory = { ...this.memory, stationName: deed.name };
        return [];
      case 'factory':
        this.memory = factoryMemory(this.definition.kind);
        this.passingName = undefined;
        return this.step({ kind: 'configure', to: undefined }, now);
      case 'address': {
        const { address, stay } = deed;
        this.client = undefined;
        // An address for now leaves none behind: after power-off there is nothing stored.
        const stored = stay === 'stored' ? address : undefined;
        this.memory = { ...this.memory, control: 0, stored };
        if (!address) return this.step({ kind: 'configure', to: undefined }, now);
        return this.step({ kind: 'claim', wanted: address, timing: asking.PLAIN_CLAIM }, now);
      }
    }
  }

  private freshHost(): HostState {
    return newHost(hostTraits(this.definition));
  }

  private bootTime(): number {
    return this.definition.kind.bootSeconds * 1000 + Math.floor(this.random() * 500);
  }

  private traits(): ClientTraits {
    return clientTraits(this.definition, this.start);
  }

  private boot(now: number): readonly Uint8Array[] {
    const { kind, network } = this.definition;
    this.controller.power(true, now);
    const { start, memory } = startOf(kind, this.positions, this.memory, network);
    this.start = start;
    this.memory = memory;
    if (start.kind === 'asks') {
      this.client = startClient(Math.floor(this.random() * 2 ** 32), now);
      return [];
    }
    if (start.kind === 'waits') return [];
    // As it left its maker it just takes its address; so do all its brothers (common practice, no source).
    const isFactory =
      kind.factory.kind === 'fixed' && kind.factory.address === start.address.address;
    const timing = isFactory ? asking.PLAIN_CLAIM : asking.STORED_CLAIM;
    return this.step({ kind: 'claim', wanted: start.address, timing }, now);
  }

  private onClient(step: ClientStep, now: number): readonly Uint8Array[] {
    this.client = step.state;
    this.dueAt = undefined;
    return step.news.flatMap((news) => this.onClientNews(news, now));
  }

  private onClientNews(news: ClientNews, now: number): readonly Uint8Array[] {
    switch (news.kind) {
      case 'send': {
        const { to, message } = news;
        if (to === 'everybody') return [this.request(message)];
        const payload = encodeWith(dhcpMessage, message);
        return this.step({ kind: 'send-udp', ...asking.PORTS, to, payload }, now);
      }
      case 'take': {
        const timing = this.traits().by === 'dhcp' ? asking.DHCP_CLAIM : asking.PLAIN_CLAIM;
        return this.step({ kind: 'claim', wanted: news.address, timing }, now);
      }
      case 'drop':
        return this.step({ kind: 'configure', to: undefined }, now);
    }
  }

  private request(message: DhcpMessage): Uint8Array {
    const said = renumbered(message, this.quirks);
    if (this.client) this.client = { ...this.client, transaction: said.transaction };
    return asking.askFrame(this.definition.mac, said, this.quirks);
  }

  private step(input: HostInput, now: number): readonly Uint8Array[] {
    const step = stepHost(this.host, input, now);
    if (step.state !== this.host || step.news.length > 0) this.dueAt = undefined;
    this.host = step.state;
    return [...step.frames, ...step.news.flatMap((news) => this.onHostNews(news, now))];
  }

  private onHostNews(news: HostNews, now: number): readonly Uint8Array[] {
    switch (news.kind) {
      case 'claimed':
        this.conflict = false;
        return [];
      case 'conflict':
        this.conflict = true;
        return this.client && !this.host.configured ? this.decline(this.client, now) : [];
      case 'received':
        return this.onData(news.id, news.data, now);
      case 'accepted':
        this.services.accepted(news.id, news.localPort);
        return [];
      case 'closed':
        this.services.closed(news.id);
        return [];
      case 'udp':
        return this.onDatagram(news, now);
      default:
        return [];
    }
  }

  private onDatagram(
    { from, fromPort, toPort, payload: call }: Extract<HostNews, { kind: 'udp' }>,
    now: number,
  ): readonly Uint8Array[] {
    if (toPort === DHCP_PORT.server) return this.lend(call);
    if (toPort !== RECORD_PORT) return [];
    const payload = answerRecord({ ...this.definition, quirks: this.quirks }, call);
    if (!payload) return [];
    const ends = { to: from, fromPort: RECORD_PORT, toPort: fromPort };
    return this.step({ kind: 'send-udp', ...ends, payload }, now);
  }

  private lend(payload: Uint8Array): readonly Uint8Array[] {
    const own = this.host.configured;
    const frame = own && this.lending?.frame(payload, own, this.definition.mac);
    return frame ? [frame] : [];
  }

  private decline(client: ClientState, now: number): readonly Uint8Array[] {
    const message = declineOf(client, this.traits(), now);
    this.client = startClient(client.transaction + 1, now);
    this.heldBack = now + asking.AFTER_DECLINE;
    return this.onClientNews({ kind: 'send', message, to: 'everybody' }, now);
  }

  private onData(id: string, received: Uint8Array, now: number): readonly Uint8Array[] {
    const served = this.services.received(id, received, this.served);
    const { data, ends, memory, apply, restarts } = served;
    this.memory = memory;
    if (restarts) this.restartsAt = now + asking.RESTARTS_AFTER;
    return [
      ...(data.length > 0 ? this.step({ kind: 'write', id, data }, now) : []),
      ...(ends ? this.step({ kind: 'close', id }, now) : []),
      ...(apply
        ? this.step({ kind: 'claim', wanted: apply, timing: asking.PLAIN_CLAIM }, now)
        : []),
    ];
  }
}
