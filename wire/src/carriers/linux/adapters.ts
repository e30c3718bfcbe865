import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { networkInterfaces, type NetworkInterfaceInfo } from 'node:os';

/** A network adapter of this machine, as Linux tells it in /sys/class/net. */
export interface Adapter {
  readonly name: string;
  readonly mac: string;
  readonly link: 'up' | 'down';
  readonly wireless: boolean;
  /** Neither a cable nor a radio: a bridge, a tunnel, a container's end. */
  readonly virtual: boolean;
  readonly addresses: readonly string[];
  /** In Mbit/s; null where it has no link, or does not say. */
  readonly speed: number | null;
  /** Frames that came in since the machine started. */
  readonly received: number;
}

/** Every address of an adapter, IPv6 too, as a socket names it. */
export function addressesOf(name: string): readonly string[] {
  const all = adaptersNow();
  return Object.hasOwn(all, name) ? (all[name] ?? []).map((one) => one.address) : [];
}

/** None where the machine is out of descriptors: that is no reason to fall over. */
function adaptersNow(): NodeJS.Dict<NetworkInterfaceInfo[]> {
  try {
    return networkInterfaces();
  } catch {
    return {};
  }
}

const ROOT = '/sys/class/net';
const ETHERNET = '1';

export function readAdapterFile(name: string, file: string): string | undefined {
  try {
    return readFileSync(join(ROOT, name, file), 'utf8').trim();
  } catch {
    return undefined; // gone, or not readable while the link is down
  }
}

/** Every Ethernet adapter, cables first. */
export function listAdapters(): readonly Adapter[] {
  if (!existsSync(ROOT)) return [];
  const addresses = adaptersNow();
  return readdirSync(ROOT)
    .filter((name) => name !== 'lo' && readAdapterFile(name, 'type') === ETHERNET)
    .map((name): Adapter => ({
      name,
      mac: readAdapterFile(name, 'address') ?? '',
      link: isUp(name) ? 'up' : 'down',
      wireless: existsSync(join(ROOT, name, 'wireless')),
      virtual: !existsSync(join(ROOT, name, 'device')),
      speed: speedOf(name),
      received: Number(readAdapterFile(name, 'statistics/rx_packets') ?? 0),
      addresses: (addresses[name] ?? []).filter((a) => a.family === 'IPv4').map((a) => a.address),
    }))
    .sort((a, b) => Number(a.virtual) - Number(b.virtual) || a.name.localeCompare(b.name));
}

/** Without a link, and on what has none of its own, Linux says -1 or nothing. */
function speedOf(name: string): number | null {
  const speed = Number(readAdapterFile(name, 'speed') ?? -1);
  return speed > 0 ? speed : null;
}

export const isUp = (name: string): boolean => readAdapterFile(name, 'carrier') === '1';

export const indexOf = (name: string): number => Number(readAdapterFile(name, 'ifindex') ?? 0);

/** VLANs, bridges and bonds that stand on an adapter, and what stands on those. */
export function adaptersAbove(name: string, known: readonly string[] = []): readonly string[] {
  let entries: readonly string[] = [];
  try {
    entries = readdirSync(join(ROOT, name));
  } catch {
    return known; // it is gone
  }
  return entries
    .filter((entry) => entry.startsWith('upper_'))
    .map((entry) => entry.slice('upper_'.length))
    .filter((above) => !known.includes(above))
    .reduce((all, above) => adaptersAbove(above, [...all, above]), known);
}
