import type { HostAddress } from '@ipsonomo/core/host';
import { must, parsePrefix, toPrefixLength, type Prefix } from '@ipsonomo/core/net';
import type { Kind } from '@ipsonomo/core/plan';
import {
  addressBySwitches,
  nameBySwitches,
  placesOf,
  readSwitches,
  type SwitchReading,
} from '@ipsonomo/core/switches';
import { sourceOf } from '@ipsonomo/core/wire';

/** What survives a power cut. */
export interface Memory {
  /** Attribute 3 of the TCP/IP interface object. */
  readonly control: number;
  readonly stored: HostAddress | undefined;
  readonly stationName: string;
  /** Of its web page; undefined as it left its maker. */
  readonly password?: string;
}

/** What a device does when it gets power. */
export type Start =
  | { readonly kind: 'asks'; readonly by: 'bootp' | 'dhcp'; readonly name: string | undefined }
  | { readonly kind: 'address'; readonly address: HostAddress }
  /** No address and no asking: until somebody gives it one over layer 2. */
  | { readonly kind: 'waits' };

const CONTROL = { stored: 0, bootp: 1, dhcp: 2 } as const;

/** As the device comes out of its box. */
export function factoryMemory(kind: Kind): Memory {
  const { factory, stationName } = kind;
  const control = factory.kind === 'asks' ? CONTROL[factory.by] : CONTROL.stored;
  const fixed = { length: toPrefixLength(24) };
  const stored = factory.kind === 'fixed' ? { address: factory.address, ...fixed } : undefined;
  return { control, stored, stationName };
}

/** Where the switches choose a last number and nothing is stored. */
const FIRST_NETWORK = must(parsePrefix('192.168.1.0/24'));

/**
 * What its switches, read now, and its memory come to. Switches that send it back to the factory
 * change the memory.
 * @param network the network its switches choose the last number in, where it was told one
 */
export function startOf(
  kind: Kind,
  positions: readonly number[],
  memory: Memory,
  network: Prefix = FIRST_NETWORK,
): { readonly start: Start; readonly memory: Memory } {
  const face = kind.switches;
  const read = face && readSwitches(face, positions);
  const byMemory = { start: startByMemory(memory), memory };
  if (!face || !read?.ok) return byMemory;
  const reading: SwitchReading = read.value;
  switch (reading.act?.kind) {
    case 'last-number':
    case 'host-part':
    case 'fixed': {
      const base = face.base ?? network;
      const address = addressBySwitches(face, reading, base);
      if (address === undefined) return { start: { kind: 'waits' }, memory };
      const at = { address, length: base.length };
      return { start: { kind: 'address', address: at }, memory };
    }
    case 'asks':
      return { start: { kind: 'asks', by: reading.act.by, name: undefined }, memory };
    case 'name': {
      const name = nameBySwitches(reading.act.pattern, reading.value);
      const named = { ...memory, stationName: name };
      if (kind.ways.some(({ way }) => way === 'dhcp-name'))
        return { start: { kind: 'asks', by: 'dhcp', name }, memory: named };
      return { start: startByMemory(named), memory: named };
    }
    case 'factory':
      return { start: { kind: 'waits' }, memory: factoryMemory(kind) };
    case 'stored':
    case 'locked':
      return byMemory;
    case undefined:
      return { start: { kind: 'waits' }, memory };
  }
}

function startByMemory({ control, stored }: Memory): Start {
  const source = sourceOf(control);
  if (source === 'bootp' || source === 'dhcp') return { kind: 'asks', by: source, name: undefined };
  return stored ? { kind: 'address', address: stored } : { kind: 'waits' };
}

/** All switches at their first position, as they come out of the box. */
export const untouched = (kind: Kind): readonly number[] =>
  kind.switches ? Array.from({ length: placesOf(kind.switches) }, () => 0) : [];
