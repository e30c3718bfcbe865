// The practice site's cabinets: what a person standing there sees and does.

import type { SwitchFace } from '../switches';

export type Lamp = 'off' | 'starting' | 'asking' | 'waiting' | 'steady' | 'conflict' | 'flashing';

export interface CabinetDevice {
  readonly id: string;
  readonly title: string;
  readonly kind: string;
  readonly place: string;
  readonly segment: string;
  /** What is printed on it; not always the truth. */
  readonly label: string;
  readonly power: boolean;
  readonly cable: boolean;
  readonly lamp: Lamp;
  /** What its display shows; most have only the lamp. */
  readonly display: string;
  readonly ownSteps: readonly string[];
  /** What sets it back to how it left its maker; empty where nothing at the device does. */
  readonly setBack: readonly string[];
  /** An address can be typed into it: keypad, maker's tool, card. */
  readonly isTypedInto: boolean;
  /** Its switches, left to right as they stand; empty where it has none. */
  readonly positions: readonly number[];
  readonly face: SwitchFace | null;
}

/** Something wrong that can be switched on. */
export interface CabinetFault {
  readonly id: string;
  readonly title: string;
  readonly on: boolean;
}

export interface CabinetView {
  readonly faults: readonly CabinetFault[];
  /** The switch the laptop's cable is plugged into. */
  readonly socket: string;
  readonly sockets: readonly { readonly id: string; readonly title: string }[];
  readonly devices: readonly CabinetDevice[];
}

export type CabinetAction =
  | { readonly kind: 'power' | 'cable'; readonly device: string; readonly on: boolean }
  | { readonly kind: 'power-all'; readonly on: boolean }
  | { readonly kind: 'own-step'; readonly device: string }
  | { readonly kind: 'set-back'; readonly device: string }
  | { readonly kind: 'turn'; readonly device: string; readonly positions: readonly number[] }
  | { readonly kind: 'type'; readonly device: string; readonly address: string }
  | { readonly kind: 'fault'; readonly fault: string; readonly on: boolean }
  | { readonly kind: 'socket'; readonly segment: string }
  | { readonly kind: 'reset' };
