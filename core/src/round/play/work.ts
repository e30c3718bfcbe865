import { findKind, isAsking, type Device, type Interface, type Kind, type Plan } from '../../plan';
import type { RoundCall } from '../call';

// R-PLAY-TIMES: what a call takes, in whole seconds (common practice, no source): what hands do, what needs the laptop as
// well, and what the device does by itself.

/** Whom a part of a call keeps busy: hands at the device, hands and the laptop, or nobody but the device. */
export type Busy = 'hands' | 'laptop' | 'device';

export interface WorkPart {
  readonly busy: Busy;
  readonly seconds: number;
}

/** A call as it is worked off. */
export interface Work {
  readonly id: string;
  readonly cabinet: number;
  readonly area: string;
  /** What the laptop must be plugged into and set to. */
  readonly laptop: string | undefined;
  /** Two with the same one may not have power and be fresh at once. */
  readonly factory: string | undefined;
  readonly parts: readonly WorkPart[];
}

/** How quick people are, in seconds. */
export interface Pace {
  /** To a cabinet of the same area, and of another; the first one is another. */
  readonly walk: number;
  readonly walkFar: number;
  /** Another socket, or another address of the laptop. */
  readonly plug: number;
  readonly powerOn: number;
  /** Reading a label and binding what asks by it. */
  readonly label: number;
  readonly touch: number;
  readonly setSwitches: number;
  readonly page: number;
  readonly keypad: number;
  readonly tool: number;
  readonly card: number;
  /** What has to be done at the device so that it keeps its address. */
  readonly ownStep: number;
  /** A mistake of the site, until it is found and put right. */
  readonly mistake: number;
}

export const USUAL_PACE: Pace = {
  ...{ walk: 30, walkFar: 120, plug: 60, powerOn: 5, label: 20, touch: 5 },
  ...{ setSwitches: 30, page: 90, keypad: 60, tool: 90, card: 45, ownStep: 20, mistake: 300 },
};

interface Known {
  readonly device: Device;
  readonly at: Interface;
  readonly kind: Kind | undefined;
  readonly pace: Pace;
  /** The MAC of each is known from its box. */
  readonly isBound: boolean;
}

/** A kind that nobody knows takes as long as most. */
const SOME_BOOT = 5;

const hands = (seconds: number): WorkPart => ({ busy: 'hands', seconds });
const laptop = (seconds: number): WorkPart => ({ busy: 'laptop', seconds });
const byItself = (seconds: number): WorkPart => ({ busy: 'device', seconds });

/** Off and on again, until it is there. */
const powerCycle = ({ kind, pace }: Known): readonly WorkPart[] =>
  (kind?.needsPowerCycle ?? true)
    ? [hands(2 * pace.powerOn), byItself(kind?.bootSeconds ?? SOME_BOOT)]
    : [];

/** From the box to an address that stays, by its way. */
function partsOf(known: Known): readonly WorkPart[] {
  const { device, kind, pace, isBound, at } = known;
  const boot = kind?.bootSeconds ?? SOME_BOOT;
  const powered = [hands(pace.powerOn), byItself(boot)];
  const proof = laptop(pace.touch);
  switch (device.way) {
    case 'bootp':
    case 'dhcp-mac': {
      const bound = isBound || at.mac !== undefined ? pace.touch : pace.label + pace.touch;
      return [...powered, laptop(bound), ...pinned(known), proof];
    }
    case 'dhcp-name':
      return [hands(kind?.switches ? pace.setSwitches : 0), ...powered, laptop(pace.touch), proof];
    case 'dhcp-port':
      return [...powered, laptop(pace.touch), proof];
    case 'switches':
      return [hands(pace.setSwitches), ...powered, proof];
    case 'web-page':
      return [...powered, laptop(pace.page), ...powerCycle(known), proof];
    case 'layer2-name':
      return [...powered, laptop(pace.label + pace.touch), proof];
    case 'controller':
      return [...powered, laptop(pace.label + pace.touch), byItself(boot), proof];
    case 'keypad':
      return [...powered, hands(pace.keypad), ...powerCycle(known), proof];
    case 'makers-tool':
      return [...powered, laptop(pace.tool), ...powerCycle(known), proof];
    case 'card':
      return [hands(pace.card), ...powered, proof];
  }
}

/** It keeps what it was given: told over the wire, by a step at the device, or by itself. */
function pinned(known: Known): readonly WorkPart[] {
  const { kind, pace, device } = known;
  if (!isAsking(device.way) || kind?.pinning.by === 'stays') return [];
  if (kind?.pinning.by === 'own-step') return [hands(pace.ownStep), ...powerCycle(known)];
  return [laptop(pace.touch), ...powerCycle(known)];
}

export interface WorkWish {
  readonly pace?: Pace;
  readonly isBound?: boolean;
  /** Interfaces at which something is wrong on site. */
  readonly mistakes?: ReadonlySet<string>;
}

/** The work of these calls, in their order; a call of a device that is gone is left out. */
export function workOf(
  plan: Plan,
  calls: readonly RoundCall[],
  { pace = USUAL_PACE, isBound = false, mistakes = new Set() }: WorkWish = {},
): readonly Work[] {
  const planned = new Map(
    plan.devices.flatMap((device) =>
      device.interfaces.map((at) => [at.id, { device, at }] as const),
    ),
  );
  return calls.flatMap(({ id, cabinet, area, laptop: place, factory }) => {
    const one = planned.get(id);
    if (!one) return [];
    const kind = findKind(plan, one.device.kindId);
    const parts = partsOf({ ...one, kind, pace, isBound });
    const searched = mistakes.has(id) ? [...parts, laptop(pace.mistake)] : parts;
    return [{ id, cabinet, area, laptop: place, factory, parts: whole(searched) }];
  });
}

/** Parts that take no time are none; a whole second is the least that is told. */
const whole = (parts: readonly WorkPart[]): readonly WorkPart[] =>
  parts.flatMap((part) =>
    part.seconds > 0 ? [{ ...part, seconds: Math.max(1, Math.round(part.seconds)) }] : [],
  );
