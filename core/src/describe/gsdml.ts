import { toKind, type Guide, type Kind } from '../plan';
import { TO_CONFIRM, type Description, type NoDescription } from './description';
import { GsdmlFile } from './gsdml-file';
import { modulesOf, portsOf } from './gsdml-modules';
import { below, within, type XmlElement } from './xml';

/**
 * Reads a description of a PROFINET device (GSDML, ISO 15745-3 profile; elements and units from
 * memory): each of its access points is a kind, with maker and device number, order number, revision,
 * the station name it comes with, its modules and their bytes, its ports and how it may be addressed.
 */
export function readGsdml(root: XmlElement): Description | NoDescription {
  const file = new GsdmlFile(root);
  const [identity] = within(root, 'DeviceIdentity');
  const points = within(root, 'DeviceAccessPointItem');
  if (!identity || points.length === 0) return 'no-device';
  const vendor = file.whole(identity, 'VendorID', 0xffff);
  const device = file.whole(identity, 'DeviceID', 0xffff);
  if (vendor === undefined || device === undefined) return 'no-identity';
  const shared: Shared = {
    ...roleOf(within(root, 'Family')[0]?.attributes['MainFamily']),
    maker: (valueOf(identity, 'VendorName') ?? `Vendor ${vendor}`).slice(0, 80),
    station: { vendor, device },
  };
  const taken = new Set<string>();
  const kinds = points.map((point) => kindOf(file, point, shared, taken));
  return { kinds, unread: [...file.unread].sort((a, b) => a.line - b.line) };
}

interface Shared extends Pick<Kind, 'role' | 'stem' | 'maker'> {
  readonly station: NonNullable<Kind['station']>;
}

const valueOf = (from: XmlElement, ...names: readonly string[]): string | undefined => {
  const text = below(from, ...names)[0]?.attributes['Value']?.trim();
  return text === '' ? undefined : text;
};

/** `MinDeviceInterval` counts steps of 31.25 µs. */
const STEPS_PER_MILLI = 32;

function kindOf(file: GsdmlFile, point: XmlElement, shared: Shared, taken: Set<string>): Kind {
  const { ID = '' } = point.attributes;
  const steps = file.whole(point, 'MinDeviceInterval', 4096);
  const name = file.nameOf(point) ?? (ID || `Device ${shared.station.device}`);
  const revision = valueOf(point, 'ModuleInfo', 'SoftwareRelease');
  const relations = within(point, 'ApplicationRelations')[0];
  return toKind({
    ...shared,
    id: idOf(shared.station, ID, taken),
    name: name.slice(0, 120),
    orderNumber: (valueOf(point, 'ModuleInfo', 'OrderNumber') ?? '').slice(0, 80),
    revision: (revision ?? valueOf(point, 'ModuleInfo', 'HardwareRelease') ?? '').slice(0, 40),
    ways: waysOf(point.attributes['AddressAssignment'] ?? 'DCP'),
    factory: { kind: 'nameless' },
    wins: ['stored', 'controller'],
    pinning: { by: 'stays', steps: [] },
    needsPowerCycle: false,
    services: [{ protocol: 'udp', port: 34_964, name: 'PROFINET' }],
    stationName: (point.attributes['DNS_CompatibleName'] ?? '').slice(0, 240),
    roles: [{ protocol: 'PROFINET', side: 'serves' }],
    modules: modulesOf(file, point).slice(0, 2000),
    ports: portsOf(file, point),
    // None at all is no statement.
    mostConnections: (relations && file.whole(relations, 'NumberOfAR', 0xffff)) || undefined,
    leastIntervalMillis: steps ? Math.max(1, Math.ceil(steps / STEPS_PER_MILLI)) : undefined,
    note: TO_CONFIRM,
  });
}

function idOf({ vendor, device }: Shared['station'], point: string, taken: Set<string>): string {
  const base = `gsdml-${vendor}-${device}-${point.replace(/[^\w.-]/g, '_').slice(0, 50)}`;
  let id = base;
  for (let next = 2; taken.has(id); next += 1) id = `${base}-${next}`;
  taken.add(id);
  return id;
}

/** What `AddressAssignment` says, separated by semicolons; `LOCAL` is set on the device itself. */
const ASSIGNMENTS: Readonly<Record<string, readonly Guide['way'][]>> = {
  DCP: ['layer2-name', 'controller'],
  DHCP: ['dhcp-name'],
  LOCAL: ['keypad'],
};

function waysOf(assignment: string): readonly Guide[] {
  const ways = assignment.split(/[;\s]+/).flatMap((word) => ASSIGNMENTS[word.toUpperCase()] ?? []);
  const all = ways.length > 0 ? ways : (ASSIGNMENTS['DCP'] ?? []);
  return [...new Set(all)].map((way) => ({ way, first: [], steps: [] }));
}

const FAMILIES: Readonly<Record<string, readonly [role: Kind['role'], stem: string]>> = {
  'i/o': ['io', 'station'],
  drives: ['drives', 'drive'],
  valves: ['io', 'valves'],
  hmi: ['panels', 'panel'],
  controllers: ['controllers', 'controller'],
  plcs: ['controllers', 'controller'],
  gateway: ['gateways', 'gateway'],
  encoders: ['sensors', 'encoder'],
  sensors: ['sensors', 'sensor'],
  'ident systems': ['sensors', 'reader'],
  'network components': ['infrastructure', 'switch'],
};

function roleOf(family: string | undefined): Pick<Kind, 'role' | 'stem'> {
  const [role, stem] = FAMILIES[(family ?? '').trim().toLowerCase()] ?? ['io', 'device'];
  return { role, stem };
}
