import { serverChosenBy, type HeardClient } from '@ipsonomo/core/answering';
import type { Clock } from '@ipsonomo/core/clock';
import type { HostInput } from '@ipsonomo/core/host';
import { formatIpv4, formatMac, UNSPECIFIED, type Ipv4 } from '@ipsonomo/core/net';
import type { TellNotice } from '@ipsonomo/core/plan';
import {
  DecodeError,
  DHCP_PORT,
  senderOf,
  tryDissect,
  vlanOf,
  type Dissected,
} from '@ipsonomo/core/wire';
import {
  type FieldPlan,
  FieldRefusal,
  type FieldStatus,
  type FieldTarget,
  type FieldTask,
  type FoundStation,
  Notices,
  type Sighting,
  type VigilRing,
} from '../protocol';
import { Acts } from './acts';
import { askingUnits } from './asking-units';
import type { Carrier, LinkState, TcpRequest, UdpQuestion } from '../carriers/carrier';
import { Giving } from './dhcp-server/dhcp-server';
import { HostStreams } from './talk/host-streams';
import { Identities } from './cip/identities';
import { Keeping } from './keeping';
import { Moves } from './moves/moves';
import { Outbox } from './outbox';
import { Pages } from './pages/pages';
import { Pinning } from './pin/pinning';
import { Present } from './hearing/present';
import { PowerWatch } from './power-watch/power-watch';
import { proofUnits } from './proof';
import type { EngineReports } from './reports';
import { Rivals } from './rogue-dhcp/rogue-dhcp';
import { Socket } from './hearing/socket';
import { Stations } from './dcp/stations';
import { Subnets } from './hearing/subnets';
import { Targets } from './hearing/targets';
import type { Unit } from './unit';
import { spreadNews } from './own-addresses/voice-news';
import { UseSigns } from './hearing/use-signs';
import { Voices } from './own-addresses/voices';
import { WhoIsAt } from './talk/who-is-at';

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
  private readonly asking: ReturnType<typeof askingUnits>;
  private readonly proof: ReturnType<typeof proofUnits>['proof'];
  private readonly power: PowerWatch;
  private readonly streams: HostStreams;
  private readonly pinning: Pinning;
  private readonly layer2: Stations;
  private readonly rivals: Rivals;
  private readonly present = new Present();
  private readonly socket = new Socket();
  private readonly subnets = new Subnets();
  private readonly signs = new UseSigns();
  private readonly moves: Moves;
  private readonly pages: Pages;
  private readonly acting: Acts;
  private readonly whoIsAt: WhoIsAt;
  private readonly targets = new Targets((mac) => this.present.addressOf(mac));
  private readonly counters = { received: 0, malformed: 0 };
  readonly notices = new Notices(() => this.changed());
  private readonly notice: TellNotice = (code, facts) => {
    this.notices.add(code, facts, this.clock.now());
    this.changed();
  };
  /** Whom our own addresses on the wire tell. */
  private readonly listeners;
  /** All that may send; each sees who has which address, in this order. */
  private readonly units: readonly Unit[];
  private fieldPlan: FieldPlan | undefined;
  private readonly keeping: Keeping;
  private readonly outbox: Outbox;
  private link: LinkState = 'up';

  constructor(
    private readonly carrier: Carrier,
    private readonly clock: Clock,
    folder: string,
    private readonly reports: EngineReports,
  ) {
    const { mac } = carrier;
    this.keeping = new Keeping(
      { folder, source: carrier.source, clock },
      {
        kept: (...written) => this.reports.events(...written),
        captureTells: (what) => this.notice(`capture-${what}`, {}),
        diskFull: () => {
          this.rest();
          this.notice('disk-full', {});
        },
      },
    );
    this.outbox = new Outbox({
      ...{ keeping: this.keeping, clock, send: (frame) => carrier.send(frame) },
      mayLeave: (now) => this.isListening && this.link === 'up' && this.maySend(now),
      leaves: (now) => this.asking.drill.spoil(now),
    });
    const { record } = this.keeping;
    const step = (subnetId: string, input: HostInput) =>
      this.voices.step(subnetId, input, this.clock.now());
    const wire = {
      ...{ mac, record, clock },
      transmit: (frame: Uint8Array) => this.outbox.add(frame),
      changed: () => this.changed(),
      needVoice: (subnetId: string) => this.needVoice(subnetId),
      voice: (subnetId: string) => this.voices.addressIn(subnetId),
      isReady: (subnetId: string) => this.voices.addressIn(subnetId) !== undefined,
      askArp: (subnetId: string, target: Ipv4) => step(subnetId, { kind: 'ask-arp', target }),
      ping: (id: string, to: Ipv4, identifier: number, sequence: number, timeToLive?: number) =>
        step(id, { kind: 'ping', to, identifier, sequence, timeToLive }),
      around: (address: Ipv4) => this.subnets.around(address),
      whereIs: (target: FieldTarget) => this.targets.whereIs(target),
      whoIsAt: (...asked: Parameters<WhoIsAt['ask']>) => this.whoIsAt.ask(...asked),
      open: (subnetId: string, request: TcpRequest) =>
        carrier.openTcp ? carrier.openTcp(request) : this.streams.open(subnetId, request),
      ask: (subnetId: string, question: UdpQuestion) =>
        carrier.askUdp ? carrier.askUdp(question) : this.streams.ask(subnetId, question),
      notice: this.notice,
      lost: (interfaceId: string) => this.giving.lost(interfaceId),
      hasLink: () => this.link === 'up',
      vigilBegins: (ring: VigilRing) => this.reports.vigil(ring),
    };
    this.whoIsAt = new WhoIsAt(wire);
    this.giving = new Giving({
      ...wire,
      heard: (client) => this.reports.heard(client),
      forgot: (client) => this.reports.forgot(client),
      learned: (target) => this.targets.learn(target),
      isWatched: (interfaceId) => this.power.has(interfaceId),
      watchedAsks: (interfaceId, frame) => this.power.asks(interfaceId, frame),
    });
    this.voices = new Voices(mac, {
      ...wire,
      noneFree: ({ name }) => this.notice('no-voice', { subnet: name }),
      news: (subnetId, news) => spreadNews(this.listeners, subnetId, news, this.clock.now()),
      taken: (address, by) =>
        this.notice('voice-taken', { address: formatIpv4(address), by: formatMac(by) }),
    });
    this.asking = askingUnits(wire);
    this.power = new PowerWatch({
      ...wire,
      ownerOf: (who) => this.giving.ownerOf(who),
      present: () => this.present.macs(),
      isFactory: (address) => this.targets.isFactory(address),
    });
    this.streams = new HostStreams(clock, step);
    this.layer2 = new Stations({ ...wire, found: () => this.reports.stations() }, clock);
    this.rivals = new Rivals({
      ...wire,
      titleOf: (client) => this.giving.titleOf(client),
      isArmed: (now) => this.giving.isArmed(now),
      arm: (until, now) => this.giving.arm(until, now),
      disarm: () => this.giving.disarm(),
      leave: (client, until) => this.giving.leave(client, until),
    });
    this.pinning = new Pinning(wire);
    this.moves = new Moves({ ...wire, whereWas: (target) => this.targets.whereWas(target) });
    this.pages = new Pages(wire, clock);
    const { rivals, power, layer2, pinning, giving, moves, pages } = this;
    const { whoIsAt, targets, subnets, signs, present, asking } = this;
    const around = { targets, subnets, present, layer2, giving };
    const { checks, sweep, proof } = proofUnits(wire, around);
    this.proof = proof;
    const identities = new Identities(wire);
    // A run first: it counts what is left before the others forget.
    const first = [proof, power, giving, checks, whoIsAt, pinning, layer2];
    this.units = [...first, moves, pages, identities, sweep, rivals, ...Object.values(asking)];
    const { walks, vigil } = asking;
    this.listeners = { giving, walks, streams: this.streams, askers: [checks, walks, vigil] };
    const acting = { ...asking, checks, moves, pages, power, pinning, layer2, identities };
    const released = () => this.releaseVoices(this.clock.now());
    const units = { ...acting, sweep, proof, signs, targets, subnets, record, giving };
    this.acting = new Acts(units, clock, released, () => this.silence());
  }

  // ---- what a person asks for

  /** What a person asks for; all of it needs a run that listens. */
  get acts(): Acts {
    this.needsListening();
    return this.acting;
  }

  get seen(): readonly Sighting[] {
    return this.present.all;
  }

  foundStations(): readonly FoundStation[] {
    return this.layer2.list;
  }

  plan(plan: FieldPlan): void {
    this.fieldPlan = plan;
    this.targets.plan(plan.targets);
    this.giving.plan(plan.targets, this.clock.now());
    this.layer2.plan(plan.targets);
    this.moves.plan(plan.targets);
    this.signs.plan(plan.targets);
    this.asking.drill.plan(plan.targets);
    this.rivals.plan(plan.subnets);
    this.subnets.plan(plan.subnets);
    this.voices.plan(this.subnets.all, this.clock.now());
    this.changed();
  }

  listen(runId: string): void {
    if (this.keeping.runId === runId) return;
    this.keeping.begin(runId);
    this.giving.forgetClients();
    this.layer2.forget();
    this.rivals.forget();
    this.present.clear();
    this.reports.present();
    this.socket.clear();
    this.signs.clear();
    this.asking.drill.forget();
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
    const now = this.clock.now();
    this.keeping.person = person;
    this.rivals.arm(millis, now);
    this.changed();
  }

  silence(): void {
    for (const unit of this.units) unit.clear();
    this.voices.clear();
    this.streams.clear();
    this.outbox.clear();
    this.changed();
  }

  /** Who let it answer is away. What was asked for besides goes on to its own end. */
  pageLost(): void {
    if (!this.giving.isArmed(this.clock.now())) return;
    this.giving.disarm();
    this.notice('page-lost', {});
  }

  closePage(): void {
    this.pages.close();
    this.releaseVoices(this.clock.now());
  }

  // ---- what happens

  /** Frames that are heard in one go. */
  readonly together = (take: () => void): void => this.outbox.together(take);

  frame(bytes: Uint8Array): void {
    const now = this.clock.now();
    this.counters.received += 1;
    if (this.isOfOtherVlan(bytes, now)) return;
    const frame = tryDissect(bytes);
    if (frame instanceof DecodeError) {
      this.counters.malformed += 1;
      this.keeping.capture(bytes, now, 'others');
      this.unreadable(bytes, frame);
      return;
    }
    const { mac } = this.carrier;
    if (frame.ethernet.from === mac || !this.isListening) return;
    const isOurs = frame.ethernet.to === mac || this.targets.areIn(frame);
    this.keeping.capture(bytes, now, isOurs ? 'ours' : 'others');
    this.socket.heard(now);
    if (frame.kind === 'arp') this.onArp(frame, bytes, now);
    else if (frame.kind === 'dhcp') this.onDhcp(frame, bytes, now);
    else if (frame.kind === 'discovery') this.layer2.frame(frame, bytes, now);
    else if (frame.kind === 'lldp' || frame.kind === 'ethernet') this.onSwitch(frame, now);
    else if (!this.voices.areNone && this.maySend(now)) this.voices.frame(frame, now);
  }

  linkChanged(link: LinkState): void {
    if (link === this.link) return;
    this.link = link;
    this.asking.drill.link(link === 'up', this.clock.now());
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
    for (const unit of this.units) unit.run?.(now);
    this.releaseVoices(now);
  }

  nextAt(): number {
    const next = this.units.map((unit) => unit.nextAt?.() ?? Infinity);
    return Math.min(this.voices.nextAt(), ...next);
  }

  heardClients(): readonly HeardClient[] {
    return this.giving.clients;
  }

  status(): FieldStatus {
    const now = this.clock.now();
    const { requests, strangersDropped } = this.giving;
    return {
      source: this.carrier.source,
      mac: this.carrier.mac,
      link: this.link,
      jobId: this.fieldPlan?.jobId,
      runId: this.keeping.runId,
      voices: this.voices.states(),
      socket: this.socket.status(this.subnets.ofPlan, this.present.all, now),
      page: this.pages.page,
      drill: this.asking.drill.state,
      proof: this.proof.state,
      vigil: this.asking.vigil.state,
      answeringUntil: this.giving.isArmed(now) ? this.giving.armedUntil : undefined,
      answers: this.giving.size,
      tasks: this.tasks(),
      counters: { ...this.counters, sent: this.outbox.sent, requests, strangersDropped },
      notices: this.notices.list,
    };
  }

  close(): void {
    this.rest();
    this.carrier.close();
  }

  private tasks(): readonly FieldTask[] {
    return this.units.flatMap((unit) => unit.tasks?.() ?? []);
  }

  private maySend(now: number): boolean {
    return this.giving.isArmed(now) || this.tasks().length > 0;
  }

  /** An address of ours is held only while something may be sent from it. */
  private releaseVoices(now: number): void {
    if (this.maySend(now) || this.voices.areNone) return;
    this.voices.clear();
    this.changed();
  }

  private get isListening(): boolean {
    return this.keeping.runId !== undefined;
  }

  /** Another network on the same cable: it says which socket this is, and is never answered. */
  private isOfOtherVlan(bytes: Uint8Array, now: number): boolean {
    const vlan = vlanOf(bytes);
    if (vlan === undefined) return false;
    if (this.isListening && this.socket.tagged(vlan, now)) {
      this.keeping.capture(bytes, now, 'others');
      this.changed();
    }
    return true;
  }

  /** Who sends it is told once; a frame too short for a sender is nobody's. */
  private unreadable(bytes: Uint8Array, { code }: DecodeError): void {
    const from = this.isListening ? senderOf(bytes) : undefined;
    if (from !== undefined && from !== this.carrier.mac)
      this.notice('unreadable', { by: formatMac(from), why: code });
  }

  private onSwitch(frame: Parameters<Socket['frame']>[0], now: number): void {
    this.signs.frame(frame.ethernet, now);
    if (this.socket.frame(frame, now)) this.changed();
  }

  private onArp(frame: Extract<Dissected, { kind: 'arp' }>, bytes: Uint8Array, now: number): void {
    const { senderAddress, senderMac } = frame.arp;
    this.signs.arp(frame.arp, now);
    if (senderAddress !== UNSPECIFIED) {
      if (this.present.saw(senderMac, senderAddress, now)) this.reports.present();
      for (const unit of this.units) unit.sighting?.(senderAddress, senderMac, bytes, now);
    }
    if (!this.voices.areNone && this.maySend(now)) this.voices.frame(frame, now);
  }

  private onDhcp(
    frame: Extract<Dissected, { kind: 'dhcp' }>,
    bytes: Uint8Array,
    now: number,
  ): void {
    const { dhcp } = frame;
    if (dhcp.operation === 'request') {
      this.asking.drill.request(dhcp, now);
      const chosen = serverChosenBy(dhcp);
      if (chosen !== undefined && !this.voices.isOurs(chosen))
        this.rivals.chosen(dhcp.clientMac, chosen, now);
      if (frame.udp.toPort === DHCP_PORT.server) this.giving.request(frame, bytes, now);
      return;
    }
    this.asking.drill.reply(dhcp, frame.ip.from, now);
    this.rivals.reply(frame, now);
  }

  private needVoice(subnetId: string): void {
    const subnet = this.subnets.find(subnetId);
    if (!subnet) return;
    this.voices.need(subnet, this.clock.now());
    this.changed(); // a claim needs its time: somebody has to look at the clock
  }

  private needsListening(): void {
    if (!this.isListening) throw FieldRefusal.of('field.notListening');
    if (this.link !== 'up') throw FieldRefusal.of('field.noLink', { source: this.carrier.source });
  }

  private changed(): void {
    this.reports.changed();
  }
}
