import type { SwitchElement } from '@ipsonomo/core/switches';

/** What one drawn element is told: its own positions, and how they change. */
export interface ElementProps<K extends SwitchElement['kind']> {
  readonly element: Extract<SwitchElement, { kind: K }>;
  readonly positions: readonly number[];
  readonly wanted: readonly number[] | undefined;
  readonly onTurn: ((at: number, position: number) => void) | undefined;
}
