import { toKind, type Kind } from '../plan';
import { TO_CONFIRM, type Description, type NoDescription, type Unread } from './description';
import { connectionsOf } from './eds-connections';
import { readSections, type EdsSections } from './eds-text';
import { numberOf } from './eds-values';

/**
 * Reads an electronic data sheet of EtherNet/IP (CIP volume 1, chapter 7; from memory): who made it,
 * its numbers, and how large its connections are. What is missing or broken is told by its line, and
 * the rest is read.
 */
export function readEds(text: string): Description | NoDescription {
  const { sections, unread: broken } = readSections(text);
  const device = sections.get('device');
  if (!device) return 'no-device';
  const unread: Unread[] = [...broken];
  const number = (key: string): number | undefined => numberOf(device.get(key), unread);
  const [vendor, type, product] = [number('vendcode'), number('prodtype'), number('prodcode')];
  if (vendor === undefined || product === undefined) return 'no-identity';
  const word = (key: string): string => device.get(key)?.values[0] ?? '';
  const name = word('prodname') || `Product ${product}`;
  const maker = word('vendname') || `Vendor ${vendor}`;
  const [major, minor] = [word('majrev'), word('minrev')];
  const connections = connectionsOf(sections, unread);
  return {
    unread,
    kinds: [
      toKind({
        id: `eds-${vendor}-${type ?? 0}-${product}`,
        ...{ maker: maker.slice(0, 80), name: name.slice(0, 120) },
        orderNumber: word('catalog').slice(0, 80),
        revision: major === '' ? '' : `${major}.${(minor || '0').padStart(2, '0')}`,
        ...roleOf(type),
        ways: [
          { way: 'bootp', first: [], steps: [] },
          { way: 'dhcp-mac', first: [], steps: [] },
        ],
        factory: { kind: 'asks', by: 'dhcp' },
        pinning: { by: 'tcpip-object', steps: [] },
        services: [{ protocol: 'tcp', port: 44_818, name: 'EtherNet/IP' }],
        identity: { vendor, type: type ?? 0, product },
        roles: [{ protocol: 'EtherNet/IP', side: 'serves' }],
        offers: connections.offers,
        offeredSizes: connections.sizes,
        mostConnections:
          numberOf(sections.get('capacity')?.get('maxioconnections'), unread) || undefined,
        leastIntervalMillis: connections.leastInterval,
        ports: portsOf(sections),
        note: TO_CONFIRM,
      }),
    ],
  };
}

/** What the sockets are called (Ethernet link class, `InterfaceLabel1 = "X1";`). */
function portsOf(sections: EdsSections): readonly string[] {
  const labels = [...(sections.get('ethernet link class') ?? [])]
    .filter(([key]) => /^interfacelabel\d+$/.test(key))
    .map(([, { values }]) => (values[0] ?? '').trim().slice(0, 40))
    .filter((label) => label !== '');
  return [...new Set(labels)].slice(0, 64);
}

/** Device profiles by their number (CIP volume 1, chapter 6; from memory). */
const PROFILES: Readonly<Record<number, readonly [role: Kind['role'], stem: string]>> = {
  2: ['drives', 'drive'],
  7: ['io', 'station'],
  12: ['gateways', 'gateway'],
  14: ['controllers', 'controller'],
  24: ['panels', 'panel'],
  27: ['io', 'valves'],
  37: ['drives', 'drive'],
};

function roleOf(type: number | undefined): Pick<Kind, 'role' | 'stem'> {
  const [role, stem] = PROFILES[type ?? -1] ?? ['io', 'device'];
  return { role, stem };
}
