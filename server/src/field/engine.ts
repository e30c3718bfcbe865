import {
  DecodeError,
  DHCP_PORT,
  formatIpv4,
  formatMac,
  isAsking,
  serverChosenBy,
  tryDissect,
  UNSPECIFIED,
  type Dissected,
  type HeardClient,
  type HostNews,
  type Ipv4,
  type MacAddress,
} from '@ipsonomo/core';
import type { Carrier, LinkState } from './carrier';
import { Checks } from './checks';
import { Giving } from './giving';
import { HostStreams } from './host-streams';
import { Keeping } from './keeping';
import { Notices } from './notices';
import { Pinning } from './pinning';
import { Present } from './present';
import { PowerWatch } from './power-watch';
import {
  FieldRefusal,
  type FieldEvent,
  type FieldNotice,
  type FieldPlan,
  type FieldStatus,
  type FieldTarget,
  type FieldTask,
  type FoundStation,
  type Giving as StationGiving,
} from './protocol';
import { Rivals } from './rivals';
import { Socket } from './socket';
import { Stations } from './stations';
import { Voices } from './voices';

export interface EngineReports {
  events(events: readonly FieldEvent[]): void;
  heard(client: HeardClient): void;
  forgot(mac: MacAddress): void;
  /** The list of stations found over layer 2 changed. */
  stations(): void;
  changed(): void;
}

/**
 * Everything that happens on one wire: hearing, answering, proving, watching and pinning. It keeps
 * no timer: `run(now)` does what is due and `nextAt` tells when there is more. Times are milliseconds
 * since 1970.
 *
 * Nothing leaves unless somebody asked for it and it has not ended: answering while armed, and the
 * tasks. `silence` ends all of it at once.
 */
export class FieldEngine {
  private readonly giving: Giving;
  private readonly voices: Voices;
  private readonly checks: Checks;
  private readonly power: PowerWatch;
  private readonly streams: HostStreams;
  private readonly pinning: Pinning;
  private readonly layer2: Stations;
  private readonly rivals: Rivals;
  private readonly present = new Present();
  private readonly socket = new Socket();
  private readonly targets = new Map<string, FieldTarget>();
  private readonly counters = { received: 0, sent: 0, malformed: 0 };
  private readonly notices = new Notices();
  private fieldPlan: FieldPlan | undefined;
  private readonly keeping: Keeping;
  private link: LinkState = 'up';

  constructor(
    private readonly carrier: Carrier,
    private readonly clock: () => number,
    folder: string,
    private readonly reports: EngineReports,
  ) {
    const { mac } = carrier;
    this.keeping = new Keeping(
      { folder, source: carrier.source, clock },
      {
        kept: (event) => this.reports.events([event]),
        captureFull: () => this.notice('capture-full', {}),
        diskFull: () => {
          this.rest();
          this.notice('disk-full', {});
        },
      },
    );
    const transmit = (frame: Uint8Array) => this.transmit(frame);
    const needVoice = (subnetId: string) => this.needVoice(subnetId);
    const isReady = (subnetId: string) => this.voices.addressIn(subnetId) !== undefined;
    const askArp = (subnetId: string, target: Ipv4) =>
      this.voices.step(subnetId, { kind: 'ask-arp', target }, this.clock());
    const changed = () => this.changed();
    const { record } = this.keeping;
    this.giving = new Giving({
      mac,
      transmit,
      needVoice,
      askArp,
      voice: (subnetId) => this.voices.addressIn(subnetId),
      record,
      heard: (client) => this.reports.heard(client),
      forgot: (client) => this.reports.forgot(client),
      learned: (target) => this.targets.set(target.interfaceId, target),
      isWatched: (interfaceId) => this.power.has(interfaceId),
      watchedAsks: (interfaceId, frame) => this.power.asks(interfaceId, frame),
    });
    this.voices = new Voices(mac, {
      transmit,
      changed,
      noneFree: ({ name }) => this.notice('no-voice', { subnet: name }),
      news: (subnetId, news) => this.onVoiceNews(subnetId, news),
      taken: (address, by) =>
        this.notice('voice-taken', { address: formatIpv4(address), by: formatMac(by) }),
    });
    this.checks = new Checks({
      mac,
      isReady,
      needVoice,
      askArp,
      changed,
      ping: (subnetId, to, identifier, sequence) =>
        this.voices.step(subnetId, { kind: 'ping', to, identifier, sequence }, this.clock()),
      record,
    });
    this.power = new PowerWatch({
      ownerOf: (who) => this.giving.ownerOf(who),
      present: () => this.present.macs(),
      isReady,
      needVoice,
      askArp,
      changed,
      lost: (interfaceId) => this.giving.lost(interfaceId),
      record,
    });
    this.streams = new HostStreams((subnetId, input) =>
      this.voices.step(subnetId, input, this.clock()),
    );
    const voice = (subnetId: string) => this.voices.addressIn(subnetId);
    const lost = (interfaceId: string) => this.giving.lost(interfaceId);
    this.layer2 = new Stations(
      {
        ...{ mac, transmit, needVoice, voice, askArp, record, lost, changed },
        found: () => this.reports.stations(),
      },
      clock,
    );
    this.rivals = new Rivals({
      ...{ mac, transmit, needVoice, voice, changed },
      titleOf: (client) => this.giving.titleOf(client),
      isArmed: (now) => this.giving.isArmed(now),
      arm: (until, now) => this.giving.arm(until, now),
      disarm: () => this.giving.disarm(),
      notice: (code, facts) => this.notice(code, facts),
    });
    this.pinning = new Pinning({
      changed,
      needVoice,
      askArp,
      voice,
      open: (subnetId, request) =>
        carrier.openTcp ? carrier.openTcp(request) : this.streams.open(subnetId, request),
      record,
    });
  }

  // ---- what a person asks for

  /** Searching and flashing; both need a run that listens. */
  get stations(): Pick<Stations, 'search' | 'flash'> {
    this.needsListening();
    return this.layer2;
  }

  foundStations(): readonly FoundStation[] {
    return this.layer2.list;
  }

  async giveStation(interfaceId: string, giving: StationGiving, person: string): Promise<void> {
    this.needsListening();
    await this.layer2.give(this.targetOf(interfaceId), giving, person);
    this.releaseVoices(this.clock());
  }

  async resetStation(interfaceId: string, reason: string, person: string): Promise<void> {
    this.needsListening();
    await this.layer2.reset(this.targetOf(interfaceId), reason, person);
  }

  plan(plan: FieldPlan): void {
    this.fieldPlan = plan;
    this.targets.clear();
    for (const target of plan.targets) this.targets.set(target.interfaceId, target);
    this.giving.plan(plan.targets, this.clock());
    this.layer2.plan(plan.targets);
    this.rivals.plan(plan.subnets);
    this.voices.plan(plan.subnets, this.clock());
    this.changed();
  }

  listen(runId: string): void {
    if (this.keeping.runId === runId) return;
    this.keeping.begin(runId);
    this.giving.forgetClients();
    this.layer2.forget();
    this.rivals.forget();
    this.present.clear();
    this.socket.clear();
    this.changed();
  }

  /** Ends listening, and with it everything that sends. */
  rest(): void {
    this.silence();
    this.keeping.end();
    this.changed();
  }

  arm(millis: number, person: string): void {
    this.needsListening();
    const now = this.clock();
    this.keeping.person = person;
    this.rivals.arm(millis, now);
    this.changed();
  }

  silence(): void {
    this.giving.disarm();
    this.rivals.clear();
    this.checks.clear();
    this.power.clear();
    this.voices.clear();
    this.pinning.clear();
    this.layer2.clear();
    this.streams.clear();
    this.changed();
  }

  /** Who let it answer is away. What was asked for besides goes on to its own end. */
  pageLost(): void {
    if (!this.giving.isArmed(this.clock())) return;
    this.giving.disarm();
    this.notice('page-lost', {});
  }

  check(interfaceIds: readonly string[], person: string): void {
    this.needsListening();
    const targets = interfaceIds.map((id) => this.targetOf(id));
    this.checks.start(targets, person, this.clock());
  }

  watchPower(interfaceId: string, person: string): void {
    this.needsListening();
    const target = this.targetOf(interfaceId);
    // What asks is known by its MAC alone; what comes up by itself shows it then.
    if (target.mac === undefined && isAsking(target.way))
      throw new FieldRefusal('field.unbound', { title: target.title });
    this.power.start(target, person, this.clock());
  }

  /** Tells the device to keep its address; the outcome becomes evidence. */
  async pin(interfaceId: string, person: string): Promise<void> {
    this.needsListening();
    const target = this.targetOf(interfaceId);
    await this.pinning.start(target, person);
    this.releaseVoices(this.clock());
  }

  // ---- what happens

  frame(bytes: Uint8Array): void {
    const now = this.clock();
    this.counters.received += 1;
    const frame = tryDissect(bytes);
    if (frame instanceof DecodeError) {
      this.counters.malformed += 1;
      this.keeping.capture(bytes, now);
      return;
    }
    if (frame.ethernet.from === this.carrier.mac || !this.isListening) return;
    this.keeping.capture(bytes, now);
    this.socket.heard(now);
    if (frame.kind === 'arp') this.onArp(frame, bytes, now);
    else if (frame.kind === 'dhcp') this.onDhcp(frame, bytes, now);
    else if (frame.kind === 'discovery') this.layer2.frame(frame, bytes, now);
    else if (frame.kind === 'lldp' || frame.kind === 'ethernet') this.onSwitch(frame, now);
    else if (this.maySend(now)) this.voices.frame(frame, now);
  }

  linkChanged(link: LinkState): void {
    if (link === this.link) return;
    this.link = link;
    if (link !== 'up') {
      this.notice(link === 'gone' ? 'adapter-gone' : 'link-down', { source: this.carrier.source });
      this.socket.clear();
      this.silence(); // what was claimed on another wire is not ours on this one
    }
    this.changed();
  }

  run(now: number): void {
    if (this.giving.armedUntil > 0 && now >= this.giving.armedUntil) {
      this.giving.disarm();
      this.changed();
    }
    this.voices.run(now);
    this.rivals.run(now);
    this.giving.run(now);
    this.checks.run(now);
    this.power.run(now);
    this.releaseVoices(now);
  }

  nextAt(): number {
    const units = [this.voices, this.rivals, this.giving, this.checks, this.power];
    return Math.min(...units.map((unit) => unit.nextAt()));
  }

  heardClients(): readonly HeardClient[] {
    return this.giving.clients;
  }

  status(): FieldStatus {
    const now = this.clock();
    const { requests, strangersDropped } = this.giving;
    return {
      source: this.carrier.source,
      mac: this.carrier.mac,
      link: this.link,
      jobId: this.fieldPlan?.jobId,
      runId: this.keeping.runId,
      voices: this.voices.states(),
      socket: this.socket.status(this.fieldPlan?.subnets ?? [], this.present.all(), now),
      answeringUntil: this.giving.isArmed(now) ? this.giving.armedUntil : undefined,
      answers: this.giving.size,
      tasks: this.tasks(),
      counters: { ...this.counters, requests, strangersDropped },
      notices: this.notices.list,
    };
  }

  close(): void {
    this.rest();
    this.carrier.close();
  }

  private tasks(): readonly FieldTask[] {
    const units = [this.rivals, this.checks, this.power, this.pinning, this.layer2];
    return units.flatMap((unit) => unit.tasks());
  }

  private maySend(now: number): boolean {
    return this.giving.isArmed(now) || this.tasks().length > 0;
  }

  /** An address of ours is held only while something may be sent from it. */
  private releaseVoices(now: number): void {
    if (this.maySend(now) || this.voices.states().length === 0) return;
    this.voices.clear();
    this.changed();
  }

  private transmit(frame: Uint8Array): void {
    const now = this.clock();
    if (!this.isListening || this.link !== 'up' || !this.maySend(now)) return;
    this.keeping.capture(frame, now);
    if (!this.isListening) return; // it could not be kept
    this.counters.sent += 1;
    this.carrier.send(frame);
  }

  private get isListening(): boolean {
    return this.keeping.runId !== undefined;
  }

  private onSwitch(frame: Parameters<Socket['frame']>[0], now: number): void {
    if (this.socket.frame(frame, now)) this.changed();
  }

  private onArp(frame: Extract<Dissected, { kind: 'arp' }>, bytes: Uint8Array, now: number): void {
    const { senderAddress, senderMac } = frame.arp;
    if (senderAddress !== UNSPECIFIED) {
      this.present.saw(senderMac, senderAddress);
      this.power.sighting(senderAddress, senderMac, bytes, now);
      this.giving.sighting(senderAddress, senderMac, bytes, now);
      this.checks.sighting(senderAddress, senderMac);
      this.pinning.sighting(senderAddress, senderMac);
      this.layer2.sighting(senderAddress, senderMac);
    }
    if (this.maySend(now)) this.voices.frame(frame, now);
  }

  private onDhcp(
    frame: Extract<Dissected, { kind: 'dhcp' }>,
    bytes: Uint8Array,
    now: number,
  ): void {
    const { dhcp } = frame;
    if (dhcp.operation === 'request') {
      const chosen = serverChosenBy(dhcp);
      if (chosen !== undefined && !this.voices.isOurs(chosen))
        this.rivals.chosen(dhcp.clientMac, chosen, now);
      if (frame.udp.toPort === DHCP_PORT.server) this.giving.request(frame, bytes, now);
      return;
    }
    this.rivals.reply(frame, now);
  }

  private onVoiceNews(subnetId: string, news: HostNews): void {
    const now = this.clock();
    if (news.kind === 'claimed') this.giving.voiceReady(subnetId, now);
    else if (news.kind === 'pong') this.checks.pong(news.from, news.identifier, news.sequence, now);
    else this.streams.news(news);
  }

  private needVoice(subnetId: string): void {
    const subnet = this.fieldPlan?.subnets.find((one) => one.id === subnetId);
    if (!subnet) return;
    this.voices.need(subnet, this.clock());
    this.changed(); // a claim needs its time: somebody has to look at the clock
  }

  private needsListening(): void {
    if (!this.isListening) throw new FieldRefusal('field.notListening');
    if (this.link !== 'up') throw new FieldRefusal('field.noLink', { source: this.carrier.source });
  }

  private targetOf(interfaceId: string): FieldTarget {
    const target = this.targets.get(interfaceId);
    if (!target) throw new FieldRefusal('field.unknownTarget', { interfaceId });
    return target;
  }

  private notice(code: FieldNotice['code'], facts: FieldNotice['facts']): void {
    this.notices.add({ code, facts, at: this.clock() });
    this.changed();
  }

  private changed(): void {
    this.reports.changed();
  }
}
