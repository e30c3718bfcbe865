import type { HostAddress } from '@ipsonomo/core/host';
import { parseStationName } from '@ipsonomo/core/names';
import { lengthOfMask, maskOf, toIpv4, UNSPECIFIED, type MacAddress } from '@ipsonomo/core/net';
import type { Kind } from '@ipsonomo/core/plan';
import {
  answerToSet,
  BLOCK,
  blocksOfStation,
  DISCOVERY_GROUP,
  discoveryFrame,
  nameAskedFor,
  QUALIFIER,
  readIpv4,
  toLatin1,
  type Dissected,
  type DiscoveryBlock,
  type DiscoveryMessage,
  type Stay,
} from '@ipsonomo/core/wire';

type DiscoveryFrame = Extract<Dissected, { kind: 'discovery' }>;

/** What the station in a device is at this moment. */
export interface StationNow {
  readonly mac: MacAddress;
  readonly kind: Kind;
  readonly name: string;
  readonly address: HostAddress | undefined;
  readonly conflict: boolean;
  /** Its controller runs it: it refuses to be changed. */
  readonly isRunning: boolean;
}

/** What a station was told and does. */
export type StationDeed =
  | { readonly kind: 'name'; readonly name: string; readonly stay: Stay }
  | { readonly kind: 'address'; readonly address: HostAddress | undefined; readonly stay: Stay }
  | { readonly kind: 'flash' }
  | { readonly kind: 'factory' };

export interface StationAnswer {
  readonly frame: Uint8Array;
  /** Milliseconds until it leaves: answers to a question to all are spread. */
  readonly after: number;
  readonly deeds: readonly StationDeed[];
}

/** Codes of refused sets (from memory; see `STATION_REFUSALS`). */
const CODE = { done: 0, option: 1, suboption: 2, notSet: 3, local: 5, running: 6 } as const;

/** What a station answers to a frame; nothing where it is not meant. */
export function answerDiscovery(now: StationNow, frame: DiscoveryFrame): StationAnswer | undefined {
  const { discovery, ethernet } = frame;
  if (discovery.type !== 'request') return undefined;
  const reply = (message: DiscoveryMessage, after = 0, deeds: readonly StationDeed[] = []) => ({
    ...{ frame: discoveryFrame(now.mac, ethernet.from, message), after, deeds },
  });
  if (discovery.act === 'identify') {
    if (ethernet.to !== DISCOVERY_GROUP) return undefined;
    const asked = nameAskedFor(discovery);
    if (asked !== undefined && asked !== now.name) return undefined;
    const told = { ...discovery, type: 'success', delay: 0, blocks: tellAll(now) } as const;
    const spread = Math.max(1, discovery.delay);
    return reply(told, (now.mac % spread) * 10);
  }
  if (discovery.act !== 'set' || ethernet.to !== now.mac) return undefined;
  const outcomes = discovery.blocks.map((block) => deedOf(now, block));
  const codes = outcomes.map((one) => (typeof one === 'number' ? one : CODE.done));
  const deeds = outcomes.filter((one) => typeof one !== 'number');
  return reply(answerToSet(discovery, codes), 0, deeds);
}

function tellAll({ mac, kind, name, address, conflict }: StationNow): readonly DiscoveryBlock[] {
  const nowhere = { address: UNSPECIFIED, mask: UNSPECIFIED, gateway: UNSPECIFIED, state: 'none' };
  return blocksOfStation({
    ...{ mac, name, type: kind.name, vendor: kind.station?.vendor, device: kind.station?.device },
    address: address
      ? {
          ...{ address: address.address, mask: maskOf(address.length) },
          ...{ gateway: address.gateway ?? address.address, state: conflict ? 'conflict' : 'set' },
        }
      : { ...nowhere, state: 'none' },
  });
}

const about = (block: DiscoveryBlock, name: keyof typeof BLOCK): boolean =>
  block.option === BLOCK[name][0] && block.suboption === BLOCK[name][1];

/** What one block of a set comes to: a deed, or the code of its refusal. */
function deedOf(now: StationNow, block: DiscoveryBlock): StationDeed | number {
  if (about(block, 'signal')) return { kind: 'flash' };
  const stay = ((block.word ?? 0) & 1) === QUALIFIER.stored ? 'stored' : 'temporary';
  if (about(block, 'factory')) return now.isRunning ? CODE.running : { kind: 'factory' };
  if (about(block, 'stationName')) {
    if (now.isRunning) return CODE.running;
    const name = toLatin1(block.data);
    return name === '' || parseStationName(name).ok ? { kind: 'name', name, stay } : CODE.local;
  }
  if (!about(block, 'address')) return block.option > 5 ? CODE.option : CODE.suboption;
  if (now.isRunning) return CODE.running;
  const address = addressIn(block.data);
  return address === 'bad' ? CODE.local : { kind: 'address', address, stay };
}

function addressIn(data: Uint8Array): HostAddress | undefined | 'bad' {
  if (data.length !== 12) return 'bad';
  const [address, mask, gateway] = [0, 4, 8].map((at) => readIpv4(data, at));
  if (address === undefined || mask === undefined || gateway === undefined) return 'bad';
  if (address === toIpv4(0)) return undefined;
  const length = lengthOfMask(mask);
  if (length === undefined) return 'bad';
  return { address, length, ...(gateway === address ? {} : { gateway }) };
}
