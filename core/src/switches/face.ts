import type { Ipv4, Prefix } from '../net';

/**
 * The switches of a device as they sit on it, left to right. A *position* is what one of them can be
 * turned or pushed to: a dial has one, a row of DIP switches one for each switch (0 off, 1 on).
 */
export interface SwitchFace {
  readonly elements: readonly SwitchElement[];
  /** What values mean, first match counts; a value that is in none of them is not allowed. */
  readonly meanings: readonly SwitchMeaning[];
  /**
   * The network a last number belongs to where the device knows it by itself; undefined where it is
   * the network of the stored address, and so of the plan.
   */
  readonly base: Prefix | undefined;
}

/** What the sum of an element belongs to: the number, the mode, or nothing the address knows of. */
export type SwitchUse = 'number' | 'mode' | 'other';

export type SwitchElement =
  | {
      readonly kind: 'dial';
      readonly label: string;
      /** How many positions: 10 decimal, 16 hex, fewer for a mode dial. */
      readonly positions: number;
      readonly look: 'rotary' | 'thumbwheel';
      /** What one position is worth. */
      readonly weight: number;
      readonly use: SwitchUse;
    }
  | {
      readonly kind: 'dip';
      readonly label: string;
      /** What each switch is worth when on, left to right; the bit order of the row. */
      readonly weights: readonly number[];
      readonly use: SwitchUse;
    };

/** What a device does with a value at power-up. */
export type SwitchAct =
  /** Its last number is the value. */
  | { readonly kind: 'last-number' }
  /** Its host part is the value: network + value. */
  | { readonly kind: 'host-part' }
  | { readonly kind: 'fixed'; readonly address: Ipv4 }
  | { readonly kind: 'asks'; readonly by: 'bootp' | 'dhcp' }
  /** It asks by DHCP, or is found, under a name made of the value; `{n}` or `{nnn}` is the number. */
  | { readonly kind: 'name'; readonly pattern: string }
  /** The stored address counts. */
  | { readonly kind: 'stored' }
  /** Back to the state it left its maker in. */
  | { readonly kind: 'factory' }
  /** The stored address counts and cannot be changed. */
  | { readonly kind: 'locked' };

export interface SwitchMeaning {
  /** The value of the mode switches this holds for; undefined for any. */
  readonly mode: number | undefined;
  readonly from: number;
  readonly to: number;
  readonly act: SwitchAct;
}

/** How many positions the face has in all. */
export const placesOf = (face: SwitchFace): number =>
  face.elements.reduce((sum, one) => sum + (one.kind === 'dial' ? 1 : one.weights.length), 0);
