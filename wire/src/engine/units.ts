import type { Clock } from '@ipsonomo/core/clock';
import type { HostInput, HostNews } from '@ipsonomo/core/host';
import { formatIpv4, formatMac, type Ipv4 } from '@ipsonomo/core/net';
import type { TellNotice } from '@ipsonomo/core/plan';
import type { Carrier, TcpRequest, UdpQuestion } from '../carriers/carrier';
import type { FieldTarget, RecordEvidence, VigilRing } from '../protocol';
import { Identities } from './cip/identities';
import { PathAsking } from './cip/path-asking';
import { ColdStart } from './cold-start/cold-start';
import { Stations } from './dcp/stations';
import { DhcpServer } from './dhcp-server/dhcp-server';
import { Present } from './hearing/present';
import { Socket } from './hearing/socket';
import { Subnets } from './hearing/subnets';
import { Targets } from './hearing/targets';
import { UseSigns } from './hearing/use-signs';
import { RegisterAsking } from './modbus/register-asking';
import { Moves } from './moves/moves';
import { Pages } from './pages/pages';
import { Pinning } from './pin/pinning';
import { PingMonitor } from './ping-monitor/ping-monitor';
import { PowerWatch } from './power-watch/power-watch';
import { proofUnits } from './proof';
import type { EngineReports } from './reports';
import { RogueDhcp } from './rogue-dhcp/rogue-dhcp';
import { HostStreams } from './talk/host-streams';
import { WhoIsAt } from './talk/who-is-at';
import { Traces } from './trace/trace';
import type { Unit } from './unit';
import { spreadNews } from './voices/voice-news';
import { Voices } from './voices/voices';

/** What units stand on. */
export interface Ground {
  readonly carrier: Carrier;
  readonly clock: Clock;
  readonly reports: EngineReports;
  readonly record: RecordEvidence;
  readonly notice: TellNotice;
  readonly transmit: (frame: Uint8Array) => void;
  readonly changed: () => void;
  readonly hasLink: () => boolean;
}

/** The wire as units see it: what they may do there, and what they learn of others on it. */
function wireOf(units: Units, ground: Ground) {
  const { carrier, clock, reports, changed } = ground;
  const step = units.step;
  return {
    ...{ mac: carrier.mac, clock, changed },
    ...{ record: ground.record, transmit: ground.transmit, notice: ground.notice },
    hasLink: ground.hasLink,
    needVoice: (subnetId: string) => units.needVoice(subnetId),
    voice: (subnetId: string) => units.voices.addressIn(subnetId),
    isReady: (subnetId: string) => units.voices.addressIn(subnetId) !== undefined,
    isOurs: (address: Ipv4) => units.voices.isOurs(address),
    askArp: (subnetId: string, target: Ipv4) => step(subnetId, { kind: 'ask-arp', target }),
    ping: (id: string, to: Ipv4, identifier: number, sequence: number, timeToLive?: number) =>
      step(id, { kind: 'ping', to, identifier, sequence, timeToLive }),
    around: (address: Ipv4) => units.subnets.around(address),
    whereIs: (target: FieldTarget) => units.targets.whereIs(target),
    whereWas: (target: FieldTarget) => units.targets.whereWas(target),
    whoIsAt: (...asked: Parameters<WhoIsAt['ask']>) => units.whoIsAt.ask(...asked),
    open: (subnetId: string, request: TcpRequest) =>
      carrier.openTcp ? carrier.openTcp(request) : units.streams.open(subnetId, request),
    ask: (subnetId: string, question: UdpQuestion) =>
      carrier.askUdp ? carrier.askUdp(question) : units.streams.ask(subnetId, question),
    lost: (interfaceId: string) => units.dhcpServer.lost(interfaceId),
    vigilBegins: (ring: VigilRing) => reports.vigil(ring),
  };
}

type Wire = ReturnType<typeof wireOf>;

/** All that is done on one wire, each in a unit of its own. Whoever adds one creates it here and puts it into `all`. */
export class Units {
  // What is heard, and known from the plan.
  readonly targets: Targets = new Targets((mac) => this.present.addressOf(mac));
  readonly subnets = new Subnets();
  readonly signs = new UseSigns();
  readonly socket: Socket;
  readonly present: Present;
  // What others stand on: addresses of ours, and conversations from them.
  readonly voices: Voices;
  readonly streams: HostStreams;
  readonly whoIsAt: WhoIsAt;
  // What is done.
  readonly dhcpServer: DhcpServer;
  readonly rogueDhcp: RogueDhcp;
  readonly stations: Stations;
  readonly power: PowerWatch;
  readonly pinning: Pinning;
  readonly moves: Moves;
  readonly pages: Pages;
  readonly identities: Identities;
  readonly paths: PathAsking;
  readonly registers: RegisterAsking;
  readonly traces: Traces;
  readonly monitor: PingMonitor;
  readonly coldStart: ColdStart;
  readonly checks: ReturnType<typeof proofUnits>['checks'];
  readonly sweep: ReturnType<typeof proofUnits>['sweep'];
  readonly proof: ReturnType<typeof proofUnits>['proof'];
  readonly record: RecordEvidence;

  /** In the order in which they are asked. */
  readonly all: readonly Unit[];

  constructor(private readonly ground: Ground) {
    const { clock, reports } = ground;
    const wire = wireOf(this, ground);
    this.record = ground.record;
    this.socket = new Socket(ground.changed);
    this.present = new Present(() => reports.present());
    this.voices = this.voicesOn(wire);
    this.streams = new HostStreams(clock, this.step);
    this.whoIsAt = new WhoIsAt(wire);
    this.dhcpServer = this.dhcpServerOn(wire);
    this.rogueDhcp = this.rogueDhcpOn(wire);
    this.stations = new Stations({ ...wire, found: () => reports.stations() }, clock);
    this.power = this.powerWatchOn(wire);
    this.pinning = new Pinning(wire);
    this.moves = new Moves(wire);
    this.pages = new Pages(wire, clock);
    this.identities = new Identities(wire);
    this.paths = new PathAsking(wire);
    this.registers = new RegisterAsking(wire);
    this.traces = new Traces(wire);
    this.monitor = new PingMonitor(wire);
    this.coldStart = new ColdStart(wire);
    const { checks, sweep, proof } = proofUnits(wire, this);
    this.checks = checks;
    this.sweep = sweep;
    this.proof = proof;
    const { targets, subnets, signs, socket, present } = this;
    const { coldStart, power, rogueDhcp, dhcpServer, whoIsAt, pinning, stations } = this;
    const { moves, pages, identities, traces, paths, registers, monitor } = this;
    this.all = [
      ...[targets, subnets, signs, socket, present],
      // A run first: it counts what is left before the others forget.
      ...[proof, power],
      // Whether a client chose another server is known before it is answered.
      ...[coldStart, rogueDhcp, dhcpServer],
      ...[checks, whoIsAt, pinning, stations, moves, pages, identities, sweep],
      ...[traces, paths, registers, monitor],
    ];
  }

  /** Something for the host that has our address in a subnet. */
  readonly step = (subnetId: string, input: HostInput): void =>
    this.voices.step(subnetId, input, this.ground.clock.now());

  needVoice(subnetId: string): void {
    const subnet = this.subnets.find(subnetId);
    if (!subnet) return;
    this.voices.need(subnet, this.ground.clock.now());
    this.ground.changed(); // a claim needs its time: somebody has to look at the clock
  }

  private voicesOn({ mac, notice, transmit, changed, clock }: Wire): Voices {
    return new Voices(mac, {
      ...{ transmit, changed },
      noneFree: ({ name }) => notice('no-voice', { subnet: name }),
      news: (subnetId: string, news: HostNews) =>
        spreadNews(this.all, this.streams, subnetId, news, clock.now()),
      taken: (address, by) =>
        notice('voice-taken', { address: formatIpv4(address), by: formatMac(by) }),
    });
  }

  private dhcpServerOn(wire: Wire): DhcpServer {
    const { reports } = this.ground;
    return new DhcpServer({
      ...wire,
      heard: (client) => reports.heard(client),
      forgot: (client) => reports.forgot(client),
      learned: (target) => this.targets.learn(target),
      isWatched: (interfaceId) => this.power.has(interfaceId),
      watchedAsks: (interfaceId, frame) => this.power.asks(interfaceId, frame),
    });
  }

  private rogueDhcpOn(wire: Wire): RogueDhcp {
    return new RogueDhcp({
      ...wire,
      titleOf: (client) => this.dhcpServer.titleOf(client),
      isArmed: (now) => this.dhcpServer.isArmed(now),
      arm: (until, now) => this.dhcpServer.arm(until, now),
      disarm: () => this.dhcpServer.disarm(),
      leave: (client, until) => this.dhcpServer.leave(client, until),
    });
  }

  private powerWatchOn(wire: Wire): PowerWatch {
    return new PowerWatch({
      ...wire,
      ownerOf: (who) => this.dhcpServer.ownerOf(who),
      present: () => this.present.macs(),
      isFactory: (address) => this.targets.isFactory(address),
    });
  }
}
