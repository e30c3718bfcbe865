import { must, parseIpv4, parseMac, parsePrefix } from '../../src/net';
import {
  findShelfKind,
  toDevice,
  toInterface,
  toKind,
  toPlan,
  toSubnet,
  type Connection,
  type ConnectionEnd,
  type Device,
  type Interface,
  type Kind,
  type Plan,
  type Subnet,
} from '../../src/plan';

// A small plan without a snag; each test spoils one thing of it.

export const ip = (text: string) => must(parseIpv4(text));
export const net = (text: string) => must(parsePrefix(text));
export const mac = (text: string) => must(parseMac(text));

export const HALL = toSubnet({
  ...{ id: 'hall', name: 'Filter hall', prefix: net('172.22.40.0/24'), vlan: 40 },
  gateway: ip('172.22.40.1'),
  bands: [
    { role: 'infrastructure', first: ip('172.22.40.1'), last: ip('172.22.40.9') },
    { role: 'controllers', first: ip('172.22.40.10'), last: ip('172.22.40.19') },
    { role: 'drives', first: ip('172.22.40.80'), last: ip('172.22.40.99') },
    { role: 'io', first: ip('172.22.40.100'), last: ip('172.22.40.149') },
    { role: 'pool', first: ip('172.22.40.200'), last: ip('172.22.40.239') },
    { role: 'laptops', first: ip('172.22.40.245'), last: ip('172.22.40.253') },
  ],
  held: [{ first: ip('172.22.40.180'), last: ip('172.22.40.189'), note: 'IT' }],
});

export const FEED = toSubnet({
  ...{ id: 'feed', name: 'Feeding', prefix: net('172.22.41.0/24'), vlan: 41 },
  gateway: ip('172.22.41.1'),
});

export const at = (deviceId: string, address: string, fields: Partial<Interface> = {}): Interface =>
  toInterface({
    ...{ id: `${deviceId}-at`, deviceId, subnetId: HALL.id, address: ip(address) },
    ...fields,
  });

export const device = (id: string, address: string, fields: Partial<Device> = {}): Device =>
  toDevice({
    ...{ id, title: id, name: id.toLowerCase(), kindId: 'belloch-drive-d4', way: 'dhcp-mac' },
    interfaces: [at(id, address)],
    ...fields,
  });

/** A controller, a drive of it, a valve block with a connection, a station with switches. */
export const CONTROLLER = device('plc', '172.22.40.10', {
  ...{ kindId: 'osterhew-controller-k', way: 'makers-tool' },
});
export const DRIVE = device('drive', '172.22.40.80', { controllerId: 'plc' });
export const OTHER = device('other', '172.22.40.81');

const end = (fields: Partial<ConnectionEnd> = {}): ConnectionEnd => ({
  ...{ inSize: 8, outSize: 16, unitBits: '8', viewpoint: 'controller', headerBytes: 0 },
  ...{
    inInstance: 100,
    outInstance: 101,
    configInstance: 102,
    configBytes: undefined,
    intervalMillis: 10,
  },
  ...{ revision: '4.02', register: undefined, counting: 'from-0' },
  ...fields,
});

export const connection = (
  device_: Partial<ConnectionEnd> = {},
  controller: Partial<ConnectionEnd> = {},
  protocol: Connection['protocol'] = 'EtherNet/IP',
): Connection => ({ protocol, device: end(device_), controller: end(controller) });

export const STATION = device('station', '172.22.40.120', {
  ...{ kindId: 'wendle-station-20', way: 'switches' },
});
export const ROUTER = device('router', '172.22.40.1', {
  ...{ kindId: 'eskmere-router-4', way: 'web-page' },
  interfaces: [
    at('router', '172.22.40.1', { gateway: 'none' }),
    at('router', '172.22.41.1', { id: 'router-feed', subnetId: FEED.id, gateway: 'none' }),
  ],
});

export const PLAN: Plan = toPlan({
  subnets: [HALL, FEED],
  devices: [CONTROLLER, DRIVE, OTHER, STATION, ROUTER],
});

/** The plan with devices of the same id replaced and new ones added. */
export const withDevices = (...devices: readonly Device[]): Plan => ({
  ...PLAN,
  devices: [
    ...PLAN.devices.map((one) => devices.find((other) => other.id === one.id) ?? one),
    ...devices.filter((one) => !PLAN.devices.some((other) => other.id === one.id)),
  ],
});

export const withHall = (fields: Partial<Subnet>): Plan => ({
  ...PLAN,
  subnets: [{ ...HALL, ...fields }, FEED],
});

/** The plan with the addresses of a device's interface changed. */
export const moved = (one: Device, fields: Partial<Interface>): Plan =>
  withDevices({
    ...one,
    interfaces: one.interfaces.map((first, index) =>
      index === 0 ? { ...first, ...fields } : first,
    ),
  });

/** A kind of the plan's own, made from one of the shelf. */
export function ownKind(id: string, fields: Partial<Kind>): Kind {
  const kind = findShelfKind(id);
  if (!kind) throw new Error(`no kind ${id}`);
  return toKind({ ...kind, ...fields });
}
