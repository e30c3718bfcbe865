import type { CabinetAction, CabinetView } from '@ipsonomo/core/api';
import { isGroupMac, parseIpv4, toMac, toPrefixLength, type MacAddress } from '@ipsonomo/core/net';
import {
  DecodeError,
  decodeWith,
  encodeWith,
  ethernet,
  ETHERTYPE,
  fromLatin1,
  lldp,
  tryDissect,
  withTag,
  type Dissected,
} from '@ipsonomo/core/wire';
import type { Fault } from './faults';
import { isTypedInto, type DeviceDefinition } from './definition';
import { PracticeDevice } from './device';
import { PracticeRouter, type RouterDefinition, type SegmentFrame } from './router';
import type { RackNeighbour } from './rack';
import { PracticeSwitch } from './switch';

/** A switch, and what it says of itself. */
export interface Segment {
  readonly id: string;
  readonly title: string;
  readonly name: string;
  readonly mac: MacAddress;
  readonly vlan: number;
  /** The port the laptop is plugged into. */
  readonly port: string;
}

export interface SiteDefinition {
  readonly segments: readonly Segment[];
  readonly devices: readonly DeviceDefinition[];
  readonly routers: readonly RouterDefinition[];
  /** What can be made to go wrong. */
  readonly faults: readonly Fault[];
  /** Those of them that go wrong from the beginning, and are not told: they are there to be found. */
  readonly surprises?: readonly string[];
}

const LAPTOP = 'laptop';
/** Two MACs and what is carried. */
const HEAD = 14;
/** A switch speaks at once where a cable is plugged in, then every so often (IEEE 802.1AB: 30 s). */
const SPEAKS_EVERY = 30_000;
const SPEAKS_AFTER = 1000;
const NEIGHBOURS = toMac(0x0180c200000e);
/** Frames that answer one frame at the same instant; more would be devices talking in a circle. */
const STORM_LIMIT = 10_000;

/**
 * The practice site: switches, routers and devices that exchange real frames. It keeps no clock:
 * `run(now)` does what is due and `nextAt` tells when there is more.
 */
export class PracticeSite {
  private devices: PracticeDevice[] = [];
  /** Devices that lend addresses. */
  private lenders: readonly PracticeDevice[] = [];
  private byId = new Map<string, PracticeDevice>();
  private bySegment = new Map<string, PracticeDevice[]>();
  routers: PracticeRouter[] = [];
  private readonly faults = new Set<string>();
  private readonly hidden: ReadonlySet<string>;
  /** What was put right stays right, also where all is put back. */
  private readonly righted = new Set<string>();
  private switches = new Map<string, PracticeSwitch>();
  private socket = '';
  private speaksAt = 0;
  /** The laptop's port carries the other switch's network too, with its tag. */
  isTrunk = false;

  constructor(
    private readonly definition: SiteDefinition,
    private readonly random: () => number,
    private readonly toLaptop: (frame: Uint8Array) => void,
    now: number,
  ) {
    this.hidden = new Set(definition.surprises);
    this.reset(now);
  }

  /** One that had its power before anybody looked: whatever starts by itself has come up by now. */
  static thatIsUp(
    definition: SiteDefinition,
    random: () => number,
    toLaptop: (frame: Uint8Array) => void,
    now: number,
  ): PracticeSite {
    const longest = Math.max(...definition.devices.map(({ kind }) => kind.bootSeconds));
    const site = new PracticeSite(definition, random, toLaptop, now - (longest + 1) * 1000);
    for (let at = site.nextAt(); at <= now; at = site.nextAt()) site.run(at);
    return site;
  }

  private reset(now: number): void {
    const { devices, routers, segments } = this.definition;
    this.devices = devices.map((one) => new PracticeDevice(one, this.random, now));
    this.byId = new Map(this.devices.map((device) => [device.definition.id, device]));
    this.bySegment = new Map();
    this.lenders = this.devices.filter(({ definition }) => definition.lends !== undefined);
    for (const device of this.devices) {
      const { segment } = device.definition;
      const known = this.bySegment.get(segment);
      if (known) known.push(device);
      else this.bySegment.set(segment, [device]);
    }
    for (const device of this.devices) device.find = (at, address) => this.awakeAt(at, address);
    this.routers = routers.map((one) => new PracticeRouter(one));
    this.switches = new Map(segments.map(({ id }) => [id, new PracticeSwitch()]));
    this.socket = segments[0]?.id ?? '';
    this.speaksAt = now + SPEAKS_AFTER;
    this.faults.clear();
    this.isTrunk = false;
    for (const id of this.hidden) if (!this.righted.has(id)) this.setFault(id, true, now);
  }

  nextAt(): number {
    let next = this.speaksAt;
    for (const device of this.devices) next = Math.min(next, device.nextAt());
    for (const router of this.routers) next = Math.min(next, router.nextAt());
    return next;
  }

  run(now: number): void {
    if (now >= this.speaksAt) this.speak(now);
    for (const device of this.devices) {
      if (device.nextAt() > now) continue;
      const frames = device.run(now);
      if (device.cable) this.spread(this.leaving(device, frames), now);
    }
    for (const router of this.routers)
      if (router.nextAt() <= now)
        this.spread(
          router.run(now).map((out) => ({ ...out, port: router.definition.id })),
          now,
        );
  }

  /** A frame the laptop sends into its socket. */
  fromLaptop(frame: Uint8Array, now: number): void {
    this.spread([{ segment: this.socket, frame, port: LAPTOP }], now);
  }

  act(action: CabinetAction, now: number): void {
    if (action.kind === 'reset') {
      this.reset(now);
      return;
    }
    if (action.kind === 'socket') {
      if (!this.switches.has(action.segment)) return;
      this.switches.get(this.socket)?.forget(LAPTOP);
      this.socket = action.segment;
      this.speaksAt = now + SPEAKS_AFTER;
      return;
    }
    if (action.kind === 'fault') {
      this.setFault(action.fault, action.on, now);
      return;
    }
    if (action.kind === 'power-all') {
      for (const device of this.devices) device.setPower(action.on, now);
      return;
    }
    const device = this.device(action.device);
    if (!device) return;
    if (action.kind === 'own-step') device.doOwnStep();
    else if (action.kind === 'set-back') device.setBack();
    else if (action.kind === 'power') device.setPower(action.on, now);
    else if (action.kind === 'turn') device.turn(action.positions);
    else if (action.kind === 'type') typeInto(device, action.address);
    else this.plug(action.device, action.on);
  }

  device(id: string): PracticeDevice | undefined {
    return this.byId.get(id);
  }

  /** What one meets who walks along the cabinets. */
  private get shown(): readonly PracticeDevice[] {
    return this.devices.filter(({ cable, definition }) => cable || !definition.isBrought);
  }

  private awakeAt(segment: string, address: string): RackNeighbour | undefined {
    const device = this.devicesOn(segment).find((one) => one.power && one.lampSays === address);
    return (
      device && {
        rack: device.definition.rack ?? [],
        answer: (request) => device.answer(request),
      }
    );
  }

  plug(id: string, on: boolean): void {
    const device = this.device(id);
    if (!device) return;
    device.cable = on;
    this.switches.get(device.definition.segment)?.forget(id);
  }

  /** Puts right what is wrong from the beginning; false where it is not, or no longer. */
  putRight(id: string, now: number): boolean {
    if (!this.faults.has(id)) return false;
    this.righted.add(id);
    this.setFault(id, false, now);
    return true;
  }

  private setFault(id: string, on: boolean, now: number): void {
    const fault = this.definition.faults.find((one) => one.id === id);
    if (!fault || this.faults.has(id) === on) return;
    if (on) this.faults.add(id);
    else this.faults.delete(id);
    fault.set(this, on, now);
  }

  view(now: number): CabinetView {
    return {
      socket: this.socket,
      faults: this.definition.faults
        .filter(({ id }) => !this.hidden.has(id))
        .map(({ id, title }) => ({ id, title, on: this.faults.has(id) })),
      sockets: this.definition.segments.map(({ id, title }) => ({ id, title })),
      devices: this.shown.map((device) => {
        const { id, title, kind, place, segment } = device.definition;
        const ownSteps = kind.pinning.by === 'own-step' ? kind.pinning.steps : [];
        const display = device.lampSays;
        const { label, power, cable, positions } = device;
        return {
          id,
          title,
          kind: kind.name,
          place,
          segment,
          label,
          power,
          cable,
          lamp: device.lamp(now),
          positions,
          face: kind.switches ?? null,
          display,
          isTypedInto: isTypedInto(kind),
          ownSteps,
          setBack: kind.setBack,
        };
      }),
    };
  }

  /** What the laptop's switch says of the port it is in; a switch passes no such frame on. */
  private speak(now: number): void {
    this.speaksAt = now + SPEAKS_EVERY;
    const own = this.definition.segments.find(({ id }) => id === this.socket);
    if (!own) return;
    const { mac, name, port, vlan } = own;
    const payload = encodeWith(lldp, [
      { type: 1, data: Uint8Array.of(7, ...fromLatin1(name)) },
      { type: 2, data: Uint8Array.of(5, ...fromLatin1(port)) },
      { type: 3, data: Uint8Array.of(0, 120) },
      { type: 5, data: fromLatin1(name) },
      { type: 127, data: Uint8Array.of(0x00, 0x80, 0xc2, 1, vlan >>> 8, vlan & 0xff) },
    ]);
    const etherType = ETHERTYPE.lldp;
    this.toLaptop(encodeWith(ethernet, { to: NEIGHBOURS, from: mac, etherType, payload }));
  }

  private leaving(device: PracticeDevice, frames: readonly Uint8Array[]): readonly Sent[] {
    const { segment, id } = device.definition;
    return frames.map((frame) => ({ segment, frame, port: id }));
  }

  /** Carries frames, and the frames they cause, until the wire is quiet. */
  private spread(first: readonly Sent[], now: number): void {
    const queue = [...first];
    for (let count = 0; count < queue.length && count < STORM_LIMIT; count += 1) {
      const sent = queue[count];
      if (sent) queue.push(...this.deliver(sent, now));
    }
  }

  private deliver({ segment, frame, port }: Sent, now: number): readonly Sent[] {
    const dissected = tryDissect(frame);
    if (frame.length < HEAD) return [];
    const { from, to } = decodeWith(ethernet, frame);
    const only = this.switches.get(segment)?.towards(from, to, port);
    const reaches = (other: string) => other !== port && (only === undefined || only === other);
    if (segment === this.socket && reaches(LAPTOP)) this.toLaptop(frame);
    else if (this.isTrunk && isGroupMac(to)) this.toTrunk(segment, frame);
    // A switch passes on what it cannot read; no device of the site makes anything of it.
    if (dissected instanceof DecodeError) return [];
    const sent: Sent[] = [];
    const isForServers = dissected.kind === 'dhcp' && dissected.dhcp.operation === 'request';
    for (const device of isForServers ? this.lenders : this.reached(segment, only)) {
      if (!reaches(device.definition.id) || device.definition.segment !== segment) continue;
      const answers = device.receive(dissected, now);
      if (answers.length > 0) sent.push(...this.leaving(device, answers));
    }
    sent.push(...this.throughRouters(segment, dissected, reaches, now));
    return sent;
  }

  /** One where the switch knows its port, else all on the segment. */
  private reached(segment: string, only: string | undefined): readonly PracticeDevice[] {
    if (only === undefined) return this.devicesOn(segment);
    const device = this.byId.get(only);
    return device?.cable && device.definition.segment === segment ? [device] : [];
  }

  private toTrunk(segment: string, frame: Uint8Array): void {
    const from = this.definition.segments.find(({ id }) => id === segment);
    if (from && segment !== this.socket) this.toLaptop(withTag(frame, from.vlan));
  }

  private devicesOn(segment: string): readonly PracticeDevice[] {
    const all = this.bySegment.get(segment) ?? [];
    return all.every((device) => device.cable) ? all : all.filter((device) => device.cable);
  }

  private throughRouters(
    segment: string,
    frame: Dissected,
    reaches: (port: string) => boolean,
    now: number,
  ): readonly Sent[] {
    return this.routers
      .filter((router) => reaches(router.definition.id))
      .flatMap((router) =>
        router.receive(segment, frame, now).map((out) => ({ ...out, port: router.definition.id })),
      );
  }
}

/** What is no address is not taken. */
function typeInto(device: PracticeDevice, text: string): void {
  const address = parseIpv4(text);
  if (address.ok) device.type({ address: address.value, length: toPrefixLength(24) });
}

interface Sent extends SegmentFrame {
  readonly port: string;
}
