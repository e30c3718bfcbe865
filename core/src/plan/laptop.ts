import {
  containsAddress,
  formatIpv4,
  maskOf,
  toIpv4,
  toPrefixLength,
  type Ipv4,
  type Prefix,
} from '../net';
import { givenAddresses, type Plan, type Subnet } from './model';
import { voiceAddress } from './allocate';

// The technician's own laptop in the subnet of a device: needed for a maker's tool, and for a browser that
// does not go through Ipsonomo.

export const LAPTOP_SYSTEMS = ['Windows', 'macOS', 'Linux'] as const;
export type LaptopSystem = (typeof LAPTOP_SYSTEMS)[number];

interface LaptopAddress {
  readonly address: Ipv4;
  readonly prefix: Prefix;
  /** The subnet of the plan; undefined where it is the one around a factory address. */
  readonly subnet: Subnet | undefined;
}

/** Last number of the first address that is proposed beside a factory address. */
const BESIDE = 245;

/**
 * R-LAPTOP: an address for the laptop beside a device: one that is free in the plan and was not heard on the
 * wire. From the laptops' band of a planned subnet, highest first; beside a factory address from .245 down.
 * @param heard addresses seen on the wire, and those Ipsonomo speaks from itself
 */
export function laptopAddress(
  plan: Plan,
  target: Ipv4,
  heard: ReadonlySet<Ipv4>,
): LaptopAddress | undefined {
  const subnet = plan.subnets.find(({ prefix }) => containsAddress(prefix, target));
  if (subnet) {
    const taken = new Set([...givenAddresses(plan, subnet.id), ...heard, target]);
    const address = voiceAddress(subnet, taken);
    return address === undefined ? undefined : { address, prefix: subnet.prefix, subnet };
  }
  const length = toPrefixLength(24);
  const prefix = { network: toIpv4(target - (target % 256)), length };
  const free = Array.from({ length: BESIDE }, (_, at) => toIpv4(prefix.network + BESIDE - at));
  const address = free.find((one) => one !== target && !heard.has(one) && one !== prefix.network);
  return address === undefined ? undefined : { address, prefix, subnet: undefined };
}

/** Commands as a person types them, in their order. */
interface LaptopCommands {
  readonly set: readonly string[];
  readonly back: readonly string[];
}

const quoted = (text: string): string => `"${text.replace(/["\\$`]/g, '')}"`;

/**
 * The commands that put a second address on an adapter and take it off again. Those of Linux run in a test;
 * the others are from memory and not tried.
 */
export function laptopCommands(
  system: LaptopSystem,
  adapter: string,
  { address, prefix }: Pick<LaptopAddress, 'address' | 'prefix'>,
): LaptopCommands {
  const at = formatIpv4(address);
  const mask = formatIpv4(maskOf(prefix.length));
  switch (system) {
    case 'Windows': {
      const name = `interface=${quoted(adapter)}`;
      return {
        set: [
          `netsh interface ipv4 set interface ${name} dhcpstaticipcoexistence=enabled`,
          `netsh interface ipv4 add address ${quoted(adapter)} ${at} ${mask}`,
        ],
        back: [
          `netsh interface ipv4 delete address ${quoted(adapter)} ${at}`,
          `netsh interface ipv4 set interface ${name} dhcpstaticipcoexistence=disabled`,
        ],
      };
    }
    case 'macOS':
      return {
        set: [`sudo ifconfig ${adapter} alias ${at} ${mask}`],
        back: [`sudo ifconfig ${adapter} -alias ${at}`],
      };
    case 'Linux':
      return {
        set: [`sudo ip address add ${at}/${prefix.length} dev ${adapter}`],
        back: [`sudo ip address del ${at}/${prefix.length} dev ${adapter}`],
      };
  }
}
