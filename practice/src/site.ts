import {
  DecodeError,
  tryDissect,
  type CabinetAction,
  type CabinetView,
  type Dissected,
} from '@ipsonomo/core';
import { PracticeDevice, type DeviceDefinition } from './device';
import { PracticeRouter, type RouterDefinition, type SegmentFrame } from './router';
import { PracticeSwitch } from './switch';

export interface SiteDefinition {
  readonly segments: readonly { readonly id: string; readonly title: string }[];
  readonly devices: readonly DeviceDefinition[];
  readonly routers: readonly RouterDefinition[];
}

const LAPTOP = 'laptop';
/** Frames that answer one frame at the same instant; more would be devices talking in a circle. */
const STORM_LIMIT = 10_000;

/**
 * The practice site: switches, routers and devices that exchange real frames. It keeps no clock:
 * `run(now)` does what is due and `nextAt` tells when there is more.
 */
export class PracticeSite {
  private devices: PracticeDevice[] = [];
  private routers: PracticeRouter[] = [];
  private switches = new Map<string, PracticeSwitch>();
  private socket = '';

  constructor(
    private readonly definition: SiteDefinition,
    private readonly random: () => number,
    private readonly toLaptop: (frame: Uint8Array) => void,
    now: number,
  ) {
    this.reset(now);
  }

  private reset(now: number): void {
    const { devices, routers, segments } = this.definition;
    this.devices = devices.map((one) => new PracticeDevice(one, this.random, now));
    this.routers = routers.map((one) => new PracticeRouter(one));
    this.switches = new Map(segments.map(({ id }) => [id, new PracticeSwitch()]));
    this.socket = segments[0]?.id ?? '';
  }

  nextAt(): number {
    return Math.min(
      ...this.devices.map((device) => device.nextAt()),
      ...this.routers.map((router) => router.nextAt()),
    );
  }

  run(now: number): void {
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
      return;
    }
    const device = this.devices.find((one) => one.definition.id === action.device);
    if (!device) return;
    if (action.kind === 'power') device.setPower(action.on, now);
    else if (action.kind === 'own-step') device.doOwnStep();
    else if (action.kind === 'turn') device.turn(action.positions);
    else {
      device.cable = action.on;
      this.switches.get(device.definition.segment)?.forget(device.definition.id);
    }
  }

  view(now: number): CabinetView {
    return {
      socket: this.socket,
      sockets: this.definition.segments,
      devices: this.devices.map((device) => {
        const { id, title, kind, place, segment, label } = device.definition;
        const ownSteps = kind.pinning.by === 'own-step' ? kind.pinning.steps : [];
        const display = device.lampSays;
        const { power, cable, positions } = device;
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
          ownSteps,
        };
      }),
    };
  }

  private leaving(device: PracticeDevice, frames: readonly Uint8Array[]): readonly Sent[] {
    const { segment, id } = device.definition;
    return frames.map((frame) => ({ segment, frame, port: id }));
  }

  /** Carries frames, and the frames they cause, until the wire is quiet. */
  private spread(first: readonly Sent[], now: number): void {
    const queue = [...first];
    for (let count = 0; queue.length > 0 && count < STORM_LIMIT; count += 1) {
      const sent = queue.shift();
      if (sent) queue.push(...this.deliver(sent, now));
    }
  }

  private deliver({ segment, frame, port }: Sent, now: number): readonly Sent[] {
    const dissected = tryDissect(frame);
    if (dissected instanceof DecodeError) return [];
    const { from, to } = dissected.ethernet;
    const only = this.switches.get(segment)?.towards(from, to, port);
    const reaches = (other: string) => other !== port && (only === undefined || only === other);
    if (segment === this.socket && reaches(LAPTOP)) this.toLaptop(frame);
    return [
      ...this.devicesOn(segment)
        .filter((device) => reaches(device.definition.id))
        .flatMap((device) => this.leaving(device, device.receive(dissected, now))),
      ...this.throughRouters(segment, dissected, reaches, now),
    ];
  }

  private devicesOn(segment: string): readonly PracticeDevice[] {
    return this.devices.filter((device) => device.cable && device.definition.segment === segment);
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

interface Sent extends SegmentFrame {
  readonly port: string;
}
