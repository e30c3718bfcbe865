import {
  countingMac,
  dhcpNameOf,
  findKind,
  formatIpv4,
  formatMac,
  givenAddresses,
  interfacesOf,
  pagePortOf,
  speaksEnip,
  progressOf,
  STAGE_EVIDENCE,
  UNSPECIFIED,
  voiceAddress,
  type Device,
  type Evidence,
  stationNameOf,
  type FieldView,
  type HeardClient,
  type HeardView,
  type Interface,
  type Ipv4,
  type MacAddress,
  type Plan,
  type PresentView,
  type RunView,
  type SocketView,
  type StationView,
  type TwinView,
  type WireChoice,
} from '@ipsonomo/core';
import { MessageChannel } from 'node:worker_threads';
import { addressesOf } from '../field/adapters';
import type { Field } from '../field/field';
import type { Practice } from '../field/practice';
import type { Sighting } from '../field/present';
import type {
  FieldPlan,
  FieldStatus,
  FieldTarget,
  FoundStation,
  Giving,
  SocketStatus,
} from '../field/protocol';
import type { RelayedPage } from '../pages/relay';
import { WireStream } from '../pages/wire-stream';
import { Presence } from '../common/presence';
import { Turns } from '../common/turns';
import { Refusal } from '../store/refusal';
import type { Store } from '../store/store';
import type { Person } from './change-plan';
import { findInterface } from './read-plan';

const VOICE_CANDIDATES = 4;
const MOST_MINUTES = 60;

/** Everything a person asks of the wire. One job at a time has it. */
export class FieldService {
  private readonly turns = new Turns();
  /** R-PAGE: whoever let it answer and is away for so long is not watching any more. */
  private readonly watched = new Presence(() => {
    void this.field.call({ kind: 'page-lost' });
  });

  constructor(
    private readonly field: Field,
    private readonly store: Store,
    private readonly practice: Practice,
    private readonly clock: () => number,
  ) {}

  view(): FieldView {
    return fieldView(this.field.status, this.clock());
  }

  heard(): readonly HeardView[] {
    return this.field.heard.map(heardView);
  }

  /** @param cameInBy the server's own address of the connection that asks, if one does */
  chooseWire(choice: WireChoice, cameInBy?: string): Promise<void> {
    return this.turns.take(() => this.openWire(choice, cameInBy));
  }

  private async openWire(choice: WireChoice, cameInBy: string | undefined): Promise<void> {
    if (choice.kind === 'live' && cameInBy && addressesOf(choice.adapter).includes(cameInBy))
      throw Refusal.of('wire.ownWeb', '', { adapter: choice.adapter });
    await this.rest();
    if (choice.kind === 'live')
      await this.field.call({ kind: 'open-live', adapter: choice.adapter });
    else await this.field.call({ kind: 'open-practice', port: this.practice.wire() });
  }

  listen(jobId: string, person: Person): Promise<void> {
    return this.turns.take(() => this.beginRun(jobId, person));
  }

  private async beginRun(jobId: string, person: Person): Promise<void> {
    const { source, jobId: current, runId } = this.field.status;
    if (source === undefined) throw Refusal.of('field.noWire', '');
    if (runId !== undefined && current === jobId) return;
    if (runId !== undefined) throw Refusal.of('field.otherJob', '');
    await this.sendPlan(jobId);
    const run = await this.store.addRun(jobId, source, person.name);
    await this.field.call({ kind: 'listen', runId: run.id });
  }

  async rest(): Promise<void> {
    await this.field.call({ kind: 'rest' });
  }

  /** @param browser whose absence ends it; undefined where nobody sits before a page */
  async arm(minutes: number, person: Person, browser?: string): Promise<void> {
    const millis = Math.min(minutes, MOST_MINUTES) * 60_000;
    await this.field.call({ kind: 'arm', millis, person: person.name });
    this.watched.begin(browser);
  }

  /** A page says that it is still there. */
  here(browser: string | undefined): void {
    this.watched.here(browser);
  }

  silence(): Promise<void> {
    this.watched.end();
    return this.field.call({ kind: 'silence' });
  }

  async check(jobId: string, interfaceIds: readonly string[], person: Person): Promise<void> {
    await this.listen(jobId, person);
    await this.field.call({ kind: 'check', interfaceIds, person: person.name });
  }

  async watchPower(
    jobId: string,
    interfaceId: string,
    person: Person,
    evenSo?: string,
  ): Promise<void> {
    await this.listen(jobId, person);
    await this.field.call({ kind: 'watch-power', interfaceId, person: person.name, evenSo });
  }

  async pin(jobId: string, interfaceId: string, person: Person, evenSo?: string): Promise<void> {
    const plan = await this.store.plan(jobId);
    const found = findInterface(plan, interfaceId);
    if (!found) throw Refusal.of('thing.unknown', 'device');
    if (findKind(plan, found.device.kindId)?.pinning.by !== 'tcpip-object')
      throw Refusal.of('pin.noObject', '', { title: found.device.title });
    await this.listen(jobId, person);
    await this.field.call({ kind: 'pin', interfaceId, person: person.name, evenSo });
  }

  async follow(jobId: string, interfaceId: string, person: Person): Promise<void> {
    await this.listen(jobId, person);
    await this.field.call({ kind: 'follow', interfaceId, person: person.name });
  }

  async openPage(jobId: string, interfaceId: string, person: Person): Promise<void> {
    await this.listen(jobId, person);
    await this.field.call({ kind: 'open-page', interfaceId, person: person.name });
  }

  closePage(): Promise<void> {
    return this.field.call({ kind: 'close-page' });
  }

  /** The page of a device that is open, and how to reach it. */
  page(): RelayedPage | undefined {
    const { page } = this.field.status;
    if (!page) return undefined;
    return {
      host: formatIpv4(page.address),
      connect: () => {
        const { port1, port2 } = new MessageChannel();
        void this.field.call({ kind: 'converse', port: port1 }).catch(() => port2.close());
        return new WireStream(port2);
      },
    };
  }

  stations(): readonly StationView[] {
    return this.field.stations.map(stationView);
  }

  present(): readonly PresentView[] {
    return this.field.present.map(presentView);
  }

  /** Everybody, whatever their addresses: by ARP, and over layer 2. */
  async sweep(jobId: string, person: Person): Promise<void> {
    await this.listen(jobId, person);
    await this.field.call({ kind: 'sweep' });
    await this.field.call({ kind: 'search' });
  }

  async search(jobId: string, person: Person): Promise<void> {
    await this.listen(jobId, person);
    await this.field.call({ kind: 'search' });
  }

  async flash(jobId: string, mac: MacAddress, person: Person): Promise<void> {
    await this.listen(jobId, person);
    await this.field.call({ kind: 'flash', mac });
  }

  async giveStation(
    jobId: string,
    interfaceId: string,
    giving: Giving,
    person: Person,
  ): Promise<void> {
    await this.listen(jobId, person);
    await this.field.call({ kind: 'give-station', interfaceId, giving, person: person.name });
  }

  async resetStation(
    jobId: string,
    interfaceId: string,
    reason: string,
    person: Person,
  ): Promise<void> {
    await this.listen(jobId, person);
    await this.field.call({ kind: 'reset-station', interfaceId, reason, person: person.name });
  }

  async runs(jobId: string): Promise<readonly RunView[]> {
    const runs = await this.store.runs(jobId);
    return runs.map((run) => ({
      id: run.id,
      source: run.source,
      startedAt: run.started_at.getTime(),
      endedAt: run.ended_at?.getTime() ?? null,
      person: run.person,
    }));
  }

  /**
   * The plan changed: the wire has to know it before the next request. A plan that cannot be read
   * may have unbound somebody, so then the wire falls silent.
   */
  planChanged(jobId: string): Promise<void> {
    return this.turns.take(async () => {
      if (this.field.status.jobId !== jobId) return;
      try {
        await this.sendPlan(jobId);
      } catch (error) {
        await this.silence();
        throw error;
      }
    });
  }

  /** The live adapter's own addresses; nothing of the web is served through them. */
  liveAdapter(): { readonly name: string; readonly addresses: readonly string[] } | undefined {
    const name = adapterOf(this.field.status.source);
    return name === undefined ? undefined : { name, addresses: addressesOf(name) };
  }

  /** A run ends when somebody ends it, or by itself where nothing more can be kept. */
  runChanged(before: string | undefined): void {
    if (before === undefined) return;
    // While the database is away it stays open there; the next start ends it.
    void this.store.endRun(before).catch(() => undefined);
  }

  /** One after the other, or an older plan could reach the wire after a newer one. */
  private async sendPlan(jobId: string): Promise<void> {
    const [plan, evidence] = await Promise.all([
      this.store.plan(jobId),
      this.store.latestEvidence(jobId),
    ]);
    await this.field.call({ kind: 'plan', plan: fieldPlanOf(jobId, plan, evidence) });
  }
}

function fieldPlanOf(
  jobId: string,
  plan: Plan,
  evidence: ReadonlyMap<string, readonly Evidence[]>,
): FieldPlan {
  const subnets = new Map(plan.subnets.map((subnet) => [subnet.id, subnet]));
  return {
    jobId,
    targets: interfacesOf(plan).flatMap(({ device, at }) => {
      const subnet = subnets.get(at.subnetId);
      if (!subnet) return [];
      const kind = findKind(plan, device.kindId);
      const seen = evidence.get(at.id) ?? [];
      const { notches } = progressOf(device.way, at, seen);
      return [
        {
          interfaceId: at.id,
          jobId,
          title: device.title,
          subnetId: at.subnetId,
          mac: countingMac(device.way, at, seen),
          key: keyOf(device, at),
          address: at.address,
          length: subnet.prefix.length,
          gateway: subnet.gateway,
          hostName: device.name,
          way: device.way,
          stationName: stationNameOf(device),
          answersPing: kind?.answersPing ?? true,
          heardBy: STAGE_EVIDENCE[device.way].heard,
          bootSeconds: kind?.bootSeconds ?? 0,
          factory: kind?.factory.kind === 'fixed' ? kind.factory.address : undefined,
          page: kind && pagePortOf(kind),
          revision: kind?.revision ?? '',
          hasIdentity: kind !== undefined && speaksEnip(kind),
          controller: plan.devices.find(({ id }) => id === device.controllerId)?.title ?? '',
          holds: notches.some(({ stage, state }) => stage === 'given' && state === 'reached'),
        },
      ];
    }),
    subnets: plan.subnets.map((subnet) => ({
      id: subnet.id,
      name: subnet.name,
      network: subnet.prefix.network,
      length: subnet.prefix.length,
      gateway: subnet.gateway,
      voices: voiceCandidates(plan, subnet.id),
      servers: subnet.dhcpServers,
    })),
  };
}

/** What such a device is recognised by, where that is not its MAC. */
function keyOf(device: Device, at: Interface): FieldTarget['key'] {
  if (device.way === 'dhcp-name') return { by: 'name', name: dhcpNameOf(device) };
  if (device.way !== 'dhcp-port') return { by: 'mac' };
  // One whose port is not known yet is answered by nobody.
  return { by: 'port', port: at.port };
}

function voiceCandidates(plan: Plan, subnetId: string): readonly Ipv4[] {
  const subnet = plan.subnets.find((one) => one.id === subnetId);
  const taken = new Set(givenAddresses(plan, subnetId));
  const voices: Ipv4[] = [];
  while (subnet && voices.length < VOICE_CANDIDATES) {
    const next = voiceAddress(subnet, taken);
    if (next === undefined) break;
    voices.push(next);
    taken.add(next);
  }
  return voices;
}

export const heardView = (client: HeardClient): HeardView => ({
  mac: formatMac(client.mac),
  protocol: client.traits.protocol,
  message: client.message,
  hostName: client.traits.hostName ?? null,
  vendorClass: client.traits.vendorClass ?? null,
  clientId: client.traits.clientId ?? null,
  address: client.address === undefined ? null : formatIpv4(client.address),
  port: client.port ?? null,
  count: client.count,
  firstAt: client.firstAt,
  lastAt: client.lastAt,
  twins: client.twins
    ? { differs: client.twins, voices: client.voices.slice(0, 2).map(twinView) }
    : null,
});

export const presentView = ({ mac, address, lastAt }: Sighting): PresentView => ({
  ...{ mac: formatMac(mac), address: formatIpv4(address), lastAt },
});

export const stationView = ({ station, firstAt, lastAt }: FoundStation): StationView => {
  const { mac, name, type, vendor, device, address } = station;
  const has = address !== undefined && address.address !== UNSPECIFIED;
  return {
    ...{ mac: formatMac(mac), name: name ?? null, type: type ?? null },
    ...{ vendor: vendor ?? null, device: device ?? null },
    address: has ? formatIpv4(address.address) : null,
    isInConflict: address?.state === 'conflict',
    ...{ firstAt, lastAt },
  };
};

const twinView = ({ traits, transactions, lastAt }: HeardClient['voices'][number]): TwinView => ({
  hostName: traits.hostName ?? null,
  clientId: traits.clientId ?? null,
  vendorClass: traits.vendorClass ?? null,
  parameters: traits.parameters ?? null,
  transaction: (transactions[0] ?? 0).toString(16).padStart(8, '0'),
  lastAt,
});

const adapterOf = (source: string | undefined): string | undefined =>
  /^live:(.*)$/.exec(source ?? '')?.[1];

function ownAddresses(source: string | undefined): readonly string[] {
  const adapter = adapterOf(source);
  return adapter === undefined ? [] : addressesOf(adapter).filter((one) => one.includes('.'));
}

const socketView = ({ neighbour, bridge, heardAt, ...rest }: SocketStatus): SocketView => ({
  ...rest,
  heardAt: heardAt ?? null,
  neighbour: neighbour
    ? {
        ...neighbour,
        mac: formatMac(neighbour.mac),
        vlan: neighbour.vlan ?? null,
        address: neighbour.address ?? null,
      }
    : null,
  bridge: bridge ? { ...bridge, mac: formatMac(bridge.mac) } : null,
});

export const fieldView = (status: FieldStatus, now: number): FieldView => ({
  source: status.source ?? null,
  link: status.link,
  jobId: status.jobId ?? null,
  runId: status.runId ?? null,
  socket: socketView(status.socket),
  voices: status.voices.map((voice) => ({ ...voice, address: formatIpv4(voice.address) })),
  ownAddresses: ownAddresses(status.source),
  answeringUntil: status.answeringUntil ?? null,
  answers: status.answers,
  tasks: status.tasks.map((task) => ({ ...task, interfaceId: task.interfaceId ?? null })),
  counters: status.counters,
  notices: status.notices,
  now,
});
