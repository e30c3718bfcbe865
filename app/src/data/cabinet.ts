// The practice site's cabinets as the server tells them.

export interface CabinetDevice {
  readonly id: string;
  readonly title: string;
  readonly kind: string;
  readonly place: string;
  readonly segment: string;
  readonly label: string;
  readonly power: boolean;
  readonly cable: boolean;
  readonly lamp: 'off' | 'starting' | 'asking' | 'steady' | 'conflict';
  readonly display: string;
  readonly ownSteps: readonly string[];
}

export interface CabinetView {
  readonly socket: string;
  readonly sockets: readonly { readonly id: string; readonly title: string }[];
  readonly devices: readonly CabinetDevice[];
}

export type CabinetAction =
  | { readonly kind: 'power' | 'cable'; readonly device: string; readonly on: boolean }
  | { readonly kind: 'own-step'; readonly device: string }
  | { readonly kind: 'socket'; readonly segment: string }
  | { readonly kind: 'reset' };
