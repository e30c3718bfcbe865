import type { HeardClient } from '@ipsonomo/core/answering';
import type { Clock } from '@ipsonomo/core/clock';
import { formatMac, UNSPECIFIED } from '@ipsonomo/core/net';
import type { TellNotice } from '@ipsonomo/core/plan';
import { DecodeError, senderOf, tryDissect, vlanOf, type Dissected } from '@ipsonomo/core/wire';
import type { Carrier, LinkState } from '../carriers/carrier';
import {
  FieldRefusal,
  Notices,
  type FieldPlan,
  type FieldStatus,
  type FieldTask,
  type FoundStation,
  type Sighting,
} from '../protocol';
import { Acts } from './acts';
import { Keeping } from './keeping';
import { Outbox } from './outbox';
import type { EngineReports } from './reports';
import type { Unit } from './unit';
import { Units } from './units';

/** What no host of ours has to do with: units answer it, or nobody does. */
const NOT_FOR_HOSTS: ReadonlySet<Dissected['kind']> = new Set([
  ...(['dhcp', 'discovery', 'lldp', 'ethernet'] as const),
]);

/**
 * Everything that happens on one wire: hearing, answering, proving, watching and pinning. It keeps
 * no timer: `run(now)` does what is due and `nextAt` tells when there is more. Times are milliseconds
 * since 1970.
 *
 * Nothing leaves unless somebody asked for it and it has not ended: answering while armed, and the
 * tasks. `silence` ends all of it at once.
 */
export class FieldEngine {
  private readonly units: Units;
  /** Those that want to hear frames. */
  private readonly hearers: readonly Unit[];
  private readonly acting: Acts;
  private readonly counters = { received: 0, malformed: 0 };
  readonly notices = new Notices(() => this.changed());
  private readonly notice: TellNotice = (code, facts) => {
    this.notices.add(code, facts, this.clock.now());
    this.changed();
  };
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
      leaves: (now) => this.units.coldStart.spoil(now),
    });
    this.units = new Units({
      ...{ carrier, clock, reports, record: this.keeping.record, notice: this.notice },
      transmit: (frame) => this.outbox.add(frame),
      changed: () => this.changed(),
      hasLink: () => this.link === 'up',
    });
    this.hearers = this.units.all.filter((unit) => unit.frame);
    const released = () => this.releaseVoices(this.clock.now());
    this.acting = new Acts(this.units, clock, released, () => this.silence());
  }

  // ---- what a person asks for

  /** What a person asks for; all of it needs a run that listens. */
  get acts(): Acts {
    this.needsListening();
    return this.acting;
  }

  get seen(): readonly Sighting[] {
    return this.units.present.all;
  }

  foundStations(): readonly FoundStation[] {
    return this.units.stations.list;
  }

  plan(plan: FieldPlan): void {
    this.fieldPlan = plan;
    const now = this.clock.now();
    for (const unit of this.units.all) unit.plan?.(plan, now);
    this.units.voices.plan(this.units.subnets.all, now);
    this.changed();
  }

  listen(runId: string): void {
    if (this.keeping.runId === runId) return;
    this.keeping.begin(runId);
    for (const unit of this.units.all) unit.forget?.();
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
    this.units.rogueDhcp.arm(millis, now);
    this.changed();
  }

  silence(): void {
    for (const unit of this.units.all) unit.clear?.();
    this.units.voices.clear();
    this.units.streams.clear();
    this.outbox.clear();
    this.changed();
  }

  /** Who let it answer is away. What was asked for besides goes on to its own end. */
  pageLost(): void {
    const { dhcpServer } = this.units;
    if (!dhcpServer.isArmed(this.clock.now())) return;
    dhcpServer.disarm();
    this.notice('page-lost', {});
  }

  closePage(): void {
    this.units.pages.close();
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
    const isOurs = frame.ethernet.to === mac || this.units.targets.areIn(frame);
    this.keeping.capture(bytes, now, isOurs ? 'ours' : 'others');
    for (const unit of this.hearers) unit.frame?.(frame, bytes, now);
    if (frame.kind === 'arp') this.sighted(frame, bytes, now);
    const { voices } = this.units;
    if (!NOT_FOR_HOSTS.has(frame.kind) && !voices.areNone && this.maySend(now))
      voices.frame(frame, now);
  }

  linkChanged(link: LinkState): void {
    if (link === this.link) return;
    this.link = link;
    const now = this.clock.now();
    for (const unit of this.units.all) unit.link?.(link === 'up', now);
    if (link !== 'up') {
      this.notice(link === 'gone' ? 'adapter-gone' : 'link-down', { source: this.carrier.source });
      this.units.socket.forget();
      this.silence(); // what was claimed on another wire is not ours on this one
    }
    this.changed();
  }

  run(now: number): void {
    const { dhcpServer, voices, all } = this.units;
    if (dhcpServer.armedUntil > 0 && now >= dhcpServer.armedUntil) {
      dhcpServer.disarm();
      this.changed();
    }
    voices.run(now);
    for (const unit of all) unit.run?.(now);
    this.releaseVoices(now);
  }

  nextAt(): number {
    const next = this.units.all.map((unit) => unit.nextAt?.() ?? Infinity);
    return Math.min(this.units.voices.nextAt(), ...next);
  }

  heardClients(): readonly HeardClient[] {
    return this.units.dhcpServer.clients;
  }

  status(): FieldStatus {
    const now = this.clock.now();
    const { dhcpServer, voices, socket, subnets, present, pages } = this.units;
    const { coldStart, proof, monitor } = this.units;
    const { requests, strangersDropped } = dhcpServer;
    return {
      source: this.carrier.source,
      mac: this.carrier.mac,
      link: this.link,
      jobId: this.fieldPlan?.jobId,
      runId: this.keeping.runId,
      voices: voices.states(),
      socket: socket.status(subnets.ofPlan, present.all, now),
      page: pages.page,
      drill: coldStart.state,
      proof: proof.state,
      vigil: monitor.state,
      answeringUntil: dhcpServer.isArmed(now) ? dhcpServer.armedUntil : undefined,
      answers: dhcpServer.size,
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
    return this.units.all.flatMap((unit) => unit.tasks?.() ?? []);
  }

  private maySend(now: number): boolean {
    return this.units.dhcpServer.isArmed(now) || this.tasks().length > 0;
  }

  /** An address of ours is held only while something may be sent from it. */
  private releaseVoices(now: number): void {
    const { voices } = this.units;
    if (this.maySend(now) || voices.areNone) return;
    voices.clear();
    this.changed();
  }

  private get isListening(): boolean {
    return this.keeping.runId !== undefined;
  }

  /** Another network on the same cable: it says which socket this is, and is never answered. */
  private isOfOtherVlan(bytes: Uint8Array, now: number): boolean {
    const vlan = vlanOf(bytes);
    if (vlan === undefined) return false;
    if (this.isListening && this.units.socket.tagged(vlan, now)) {
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

  private sighted(
    { arp }: Extract<Dissected, { kind: 'arp' }>,
    bytes: Uint8Array,
    now: number,
  ): void {
    const { senderAddress, senderMac } = arp;
    if (senderAddress === UNSPECIFIED) return;
    for (const unit of this.units.all) unit.sighting?.(senderAddress, senderMac, bytes, now);
  }

  private needsListening(): void {
    if (!this.isListening) throw FieldRefusal.of('field.notListening');
    if (this.link !== 'up') throw FieldRefusal.of('field.noLink', { source: this.carrier.source });
  }

  private changed(): void {
    this.reports.changed();
  }
}
