import { oncePer } from './once';
import { lengthOfMask, type Ipv4, type PrefixLength } from '../net';
import type { Kind } from './kind';
import type { ValueOf } from './shape';
import type {
  acceptanceShape,
  bandShape,
  blockShape,
  cableShape,
  deviceShape,
  freedShape,
  interfaceShape,
  needShape,
  realmShape,
  settingsShape,
  subnetShape,
} from './things';

// The plan as it is reasoned about: immutable values, addresses as numbers. A thing that did not
// change is the same object in the next plan, so that work on it can be kept.

export type Realm = ValueOf<typeof realmShape>;
export type Band = ValueOf<typeof bandShape>;
export type Subnet = ValueOf<typeof subnetShape>;
export type Need = ValueOf<typeof needShape>;
export type Block = ValueOf<typeof blockShape>;
export type Interface = ValueOf<typeof interfaceShape>;
export type Cable = ValueOf<typeof cableShape>;
export type Freed = ValueOf<typeof freedShape>;
export type Acceptance = ValueOf<typeof acceptanceShape>;
export type PlanSettings = ValueOf<typeof settingsShape>;
export type Connection = NonNullable<ValueOf<typeof deviceShape>['connection']>;
export type ConnectionEnd = Connection['device'];

/** A device with its interfaces, in the order in which they were planned. */
export type Device = ValueOf<typeof deviceShape> & { readonly interfaces: readonly Interface[] };

/** What is wanted: one site or machine. */
export interface Plan {
  readonly settings: PlanSettings;
  readonly realms: readonly Realm[];
  readonly blocks: readonly Block[];
  readonly subnets: readonly Subnet[];
  /** Kinds of the plan's own; the shelf is not carried. */
  readonly kinds: readonly Kind[];
  readonly devices: readonly Device[];
  readonly cables: readonly Cable[];
  readonly freed: readonly Freed[];
  readonly acceptances: readonly Acceptance[];
}

export interface PlannedInterface {
  readonly device: Device;
  readonly at: Interface;
}

export const interfacesOf = ({ devices }: Pick<Plan, 'devices'>): readonly PlannedInterface[] =>
  allInterfaces(devices);

const allInterfaces = oncePer((devices: readonly Device[]) => {
  const all: PlannedInterface[] = [];
  for (const device of devices) for (const at of device.interfaces) all.push({ device, at });
  return all;
});

const byId = <T extends { readonly id: string }>(list: readonly T[]): ReadonlyMap<string, T> =>
  new Map(list.map((one) => [one.id, one]));

const subnetsById = oncePer((subnets: readonly Subnet[]) => byId(subnets));
const devicesById = oncePer((devices: readonly Device[]) => byId(devices));
const interfacesById = oncePer(
  (devices: readonly Device[]): ReadonlyMap<string, PlannedInterface> =>
    new Map(allInterfaces(devices).map((one) => [one.at.id, one])),
);

export const findSubnet = (
  { subnets }: Pick<Plan, 'subnets'>,
  id: string | undefined,
): Subnet | undefined => (id === undefined ? undefined : subnetsById(subnets).get(id));

export const findDevice = (
  { devices }: Pick<Plan, 'devices'>,
  id: string | undefined,
): Device | undefined => (id === undefined ? undefined : devicesById(devices).get(id));

/** The planned interface with this id, and its device. */
export const findInterface = (
  { devices }: Pick<Plan, 'devices'>,
  id: string,
): PlannedInterface | undefined => interfacesById(devices).get(id);

const bySubnet = oncePer(
  (devices: readonly Device[]): ReadonlyMap<string, readonly PlannedInterface[]> => {
    const found = new Map<string, PlannedInterface[]>();
    for (const one of allInterfaces(devices)) {
      const list = found.get(one.at.subnetId);
      if (list) list.push(one);
      else found.set(one.at.subnetId, [one]);
    }
    return found;
  },
);

/** The interfaces in a subnet, in the order of the plan. */
export const subnetInterfaces = (
  { devices }: Pick<Plan, 'devices'>,
  subnetId: string,
): readonly PlannedInterface[] => bySubnet(devices).get(subnetId) ?? [];

/** The addresses that the plan gives in a subnet, lent ones included. */
export const givenAddresses = (plan: Plan, subnetId: string): ReadonlySet<Ipv4> =>
  new Set(
    subnetInterfaces(plan, subnetId).flatMap(({ at }) =>
      at.loan ? [at.address, at.loan.address] : at.address,
    ),
  );

/** The gateway an interface is meant to have; who is the gateway itself needs none. */
export function gatewayOf(
  { gateway, address }: Pick<Interface, 'gateway' | 'address'>,
  subnet: Pick<Subnet, 'gateway'>,
): Ipv4 | undefined {
  if (gateway === 'none') return undefined;
  if (gateway !== 'subnet') return gateway;
  return subnet.gateway === address ? undefined : subnet.gateway;
}

/** What serves these subnets: their gateways and the DHCP servers that are meant to be there. */
export const addressesServing = (subnets: readonly Subnet[]): ReadonlySet<Ipv4> =>
  new Set(subnets.flatMap(({ gateway, dhcpServers }) => [gateway ?? [], dhcpServers].flat()));

/** Its own mask as a length, else that of its subnet; a mask with a gap is a snag and counts as none. */
export const maskLengthOf = (
  { mask }: Pick<Interface, 'mask'>,
  { prefix }: Pick<Subnet, 'prefix'>,
): PrefixLength => (mask === undefined ? undefined : lengthOfMask(mask)) ?? prefix.length;

/** The realm of plans that know of only one. */
export const FIRST_REALM: Realm = { id: 'realm', name: 'Site', note: '' };

type Wanted<T, K extends keyof T> = Partial<T> & Pick<T, K>;

/** A subnet of which only the needed is said. */
export const toSubnet = (fields: Wanted<Subnet, 'id' | 'name' | 'prefix'>): Subnet => ({
  realmId: FIRST_REALM.id,
  gateway: undefined,
  vlan: undefined,
  purpose: '',
  dnsSuffix: '',
  dhcpServers: [],
  bands: [],
  held: [],
  found: '',
  note: '',
  ...fields,
});

export const toInterface = (
  fields: Wanted<Interface, 'id' | 'deviceId' | 'subnetId' | 'address'>,
): Interface => ({
  label: '',
  mask: undefined,
  gateway: 'subnet',
  mac: undefined,
  port: undefined,
  loan: undefined,
  slot: undefined,
  ...fields,
});

export const toDevice = (
  fields: Wanted<Device, 'id' | 'title' | 'name' | 'kindId' | 'way'>,
): Device => ({
  isNameTyped: false,
  stationName: undefined,
  dhcpName: undefined,
  variable: undefined,
  protocol: undefined,
  area: '',
  cabinet: '',
  position: '',
  controllerId: undefined,
  modules: [],
  connection: undefined,
  entered: undefined,
  lines: [],
  restores: undefined,
  passwordAt: '',
  serial: '',
  references: [],
  routes: [],
  translations: [],
  found: '',
  note: '',
  interfaces: [],
  ...fields,
});

/** A row of a band template: last numbers of a /24. */
export type BandRow = PlanSettings['bandTemplate'][number];

/** Last numbers by role in a /24 (common practice, no source). */
const BAND_TEMPLATE: readonly BandRow[] = (
  [
    ['infrastructure', 1, 9],
    ['controllers', 10, 19],
    ['gateways', 50, 59],
    ['panels', 60, 69],
    ['drives', 80, 99],
    ['io', 100, 149],
    ['sensors', 150, 179],
    ['held', 180, 189],
    ['pool', 200, 239],
    ['laptops', 245, 253],
  ] as const
).map(([role, first, last]) => ({ role, first, last }));

export const FIRST_SETTINGS: PlanSettings = {
  id: 'settings',
  bandTemplate: BAND_TEMPLATE,
  namePattern: '{cabinet}-{stem}-{n}',
  handOver: undefined,
  columns: [],
};

/** A plan of which only a part is said. */
export const toPlan = (fields: Partial<Plan>): Plan => ({
  settings: FIRST_SETTINGS,
  realms: [FIRST_REALM],
  blocks: [],
  subnets: [],
  kinds: [],
  devices: [],
  cables: [],
  freed: [],
  acceptances: [],
  ...fields,
});
