import { containsAddress, formatIpv4, formatMac, formatPrefix, type Ipv4 } from '../net';
import { parseStationName, toHostLabel, toStationName } from '../names';
import {
  addressesServing,
  avoidedFor,
  docOf,
  firstRealm,
  kindsOf,
  nextFree,
  OTHER_DEVICE,
  toDevice,
  toInterface,
  toSubnet,
  type Device,
  type Edit,
  type Interface,
  type Kind,
  type Plan,
  type Subnet,
  type Way,
} from '../plan';
import { namesOf, type HeardStation } from './station';
import { subnetsHeard, type HeardSubnet } from './subnets';

/** What becomes of stations that are taken into a plan. */
export interface Taken {
  readonly edits: readonly Edit[];
  readonly subnets: number;
  readonly devices: number;
  /** Those that have no address, where several subnets could give them one. */
  readonly left: readonly HeardStation[];
}

export interface TakeWish {
  /** Where it was found, in the words that the mark has: "cell.pcap". */
  readonly source: string;
  /** Where those belong that have no address; the only subnet, where there is but one. */
  readonly subnetId?: string;
  /** Milliseconds since 1970. */
  readonly now: number;
  readonly idOf: (type: 'subnet' | 'device' | 'interface') => string;
  /** How the mark says where something was found, and that a mask was guessed. */
  readonly words: {
    readonly found: (source: string) => string;
    readonly guessed: (source: string) => string;
    readonly subnet: (network: string) => string;
    readonly device: (mac: string) => string;
  };
}

/**
 * R-FOUND: stations that nobody planned, as devices of the plan with what was found of them: address, MAC, names, kind
 * where their identity is that of one kind alone. Networks that no subnet has become subnets; whoever gives addresses in one,
 * or leads out of it, is told there and is no device. Each is marked as found
 * until a person says that it is planned so; nothing that is planned is changed.
 */
export function takeFound(plan: Plan, stations: readonly HeardStation[], wish: TakeWish): Taken {
  const realmId = firstRealm(plan);
  const heard = subnetsHeard(stations);
  const made = heard
    .filter(({ prefix }) => !plan.subnets.some((one) => isAround(one, prefix.network)))
    .map((one) => subnetOf(one, realmId, wish));
  const subnets = [...plan.subnets, ...made];
  const maker = new Maker(plan, subnets, wish);
  // The plan knows what serves a subnet by its address; a device of its own would be another one there.
  const serving = addressesServing(subnets);
  const devices = stations
    .filter(({ addresses }) => !addresses.some((address) => serving.has(address)))
    .map((station) => ({ station, found: maker.deviceOf(station) }));
  const taken = devices.flatMap(({ found }) => found ?? []);
  return {
    edits: [
      ...made.map((one): Edit => ({ op: 'add', type: 'subnet', thing: docOf('subnet', one) })),
      ...taken.flatMap(editsOf),
    ],
    ...{ subnets: made.length, devices: taken.length },
    left: devices.flatMap(({ station, found }) => (found ? [] : [station])),
  };
}

const isAround = ({ prefix }: Pick<Subnet, 'prefix'>, address: Ipv4): boolean =>
  containsAddress(prefix, address);

const editsOf = ({ interfaces, ...device }: Device): readonly Edit[] => [
  { op: 'add', type: 'device', thing: docOf('device', device) },
  ...interfaces.map((one): Edit => ({
    ...{ op: 'add', type: 'interface' },
    thing: docOf('interface', one),
  })),
];

function subnetOf(heard: HeardSubnet, realmId: string, { idOf, source, words }: TakeWish): Subnet {
  const { prefix, gateway, vlan, dhcpServers, by } = heard;
  return toSubnet({
    ...{ id: idOf('subnet'), name: words.subnet(formatPrefix(prefix)), realmId, prefix },
    gateway: gateway !== undefined && containsAddress(prefix, gateway) ? gateway : undefined,
    ...{ vlan, dhcpServers, bands: [] },
    found: by === 'said' ? words.found(source) : words.guessed(source),
  });
}

/** Makes one after the other, so that no name and no address is given twice. */
class Maker {
  private readonly names: Set<string>;
  private readonly taken = new Set<Ipv4>();
  private readonly kinds: readonly Kind[];

  constructor(
    private readonly plan: Plan,
    private readonly subnets: readonly Subnet[],
    private readonly wish: TakeWish,
  ) {
    this.names = new Set(plan.devices.map(({ name }) => name));
    this.kinds = kindsOf(plan);
  }

  /** Undefined where it has no address and nobody knows in which subnet it is to have one. */
  deviceOf(station: HeardStation): Device | undefined {
    const id = this.wish.idOf('device');
    const interfaces = this.interfacesOf(station, id);
    if (interfaces.length === 0) return undefined;
    const kind = kindOf(this.kinds, station);
    const title = this.titleOf(station, interfaces[0]);
    const name = this.nameOf(station, interfaces[0]);
    const { stationName, identity, hostName } = station;
    return toDevice({
      ...{ id, title, name, isNameTyped: true, kindId: kind.id, way: wayOf(kind, station) },
      ...(stationName !== undefined &&
      parseStationName(stationName).ok &&
      stationName !== toStationName(name)
        ? { stationName }
        : {}),
      ...(hostName !== '' && hostName !== name ? { dhcpName: hostName.slice(0, 255) } : {}),
      serial: identity?.serial ?? '',
      found: this.wish.words.found(this.wish.source),
      interfaces,
    });
  }

  private interfacesOf(station: HeardStation, deviceId: string): readonly Interface[] {
    const { mac } = station;
    const own = station.addresses.flatMap((address) => {
      const subnet = this.subnets.find((one) => isAround(one, address));
      return subnet ? [{ subnet, address }] : [];
    });
    const home = own.length === 0 ? this.home() : undefined;
    const free = home && this.nextIn(home, station);
    const places = free === undefined || !home ? own : [{ subnet: home, address: free }];
    return places.map(({ subnet, address }, index) => {
      this.taken.add(address);
      return toInterface({
        ...{ id: this.wish.idOf('interface'), deviceId, subnetId: subnet.id, address },
        // A router has one on all its sides; it stands once.
        ...(index === 0 && mac !== undefined ? { mac } : {}),
        ...(index > 0 ? { label: String(index + 1) } : {}),
      });
    });
  }

  /** Where one without an address is to have one. */
  private home(): Subnet | undefined {
    const [only, ...others] = this.subnets;
    return (
      this.subnets.find(({ id }) => id === this.wish.subnetId) ??
      (others.length === 0 ? only : undefined)
    );
  }

  private nextIn(subnet: Subnet, station: HeardStation): Ipv4 | undefined {
    const kind = kindOf(this.kinds, station);
    const { now } = this.wish;
    const avoided = avoidedFor(this.plan, subnet, { kind, way: wayOf(kind, station), now });
    return nextFree(subnet, kind.role, {
      ...avoided,
      taken: new Set([...avoided.taken, ...this.taken]),
    });
  }

  private titleOf(station: HeardStation, at: Interface | undefined): string {
    const { identity, mac } = station;
    const [said] = [...namesOf(station), identity?.name ?? ''].filter((one) => one.trim() !== '');
    const last = mac === undefined ? (at ? formatIpv4(at.address) : '') : formatMac(mac);
    return (said?.trim() ?? this.wish.words.device(last)).slice(0, 120);
  }

  private nameOf(station: HeardStation, at: Interface | undefined): string {
    const { mac } = station;
    const address = at ? formatIpv4(at.address) : '';
    const end = toHostLabel(
      mac === undefined ? address : formatMac(mac).slice(9).replace(/:/g, ''),
    );
    const said = namesOf(station)
      .map(toHostLabel)
      .find((one) => one !== '');
    const base = said ?? `found-${end}`;
    let name = base;
    for (let more = 2; this.names.has(name); more += 1)
      name = `${base.slice(0, 63 - String(more).length - 1)}-${more}`;
    this.names.add(name);
    return name;
  }
}

/** The only kind that says of itself what the station says. */
function kindOf(kinds: readonly Kind[], { identity, vendorClass }: HeardStation): Kind {
  const ways: readonly ((kind: Kind) => boolean)[] = [
    ({ identity: one, station }) =>
      identity?.by === 'EtherNet/IP'
        ? one?.vendor === identity.vendor &&
          one.product === identity.product &&
          (identity.type === undefined || one.type === identity.type)
        : station?.vendor === identity?.vendor && station?.device === identity?.product,
    ({ vendorClass: one }) => one !== undefined && one === vendorClass,
  ];
  for (const isIt of identity ? ways : ways.slice(1)) {
    const [only, ...others] = kinds.filter(isIt);
    if (only && others.length === 0) return only;
  }
  return OTHER_DEVICE;
}

/** As it was heard to get its address, where its kind knows that way; else how its kind does first. */
function wayOf(kind: Kind, { asks, stationName, mac }: HeardStation): Way {
  const heard: readonly Way[] = [
    ...(stationName === undefined ? [] : (['layer2-name'] as const)),
    ...(asks === 'DHCP' ? (['dhcp-mac'] as const) : asks === 'BootP' ? (['bootp'] as const) : []),
    ...(mac === undefined ? [] : (['web-page'] as const)),
  ];
  const has = (way: Way) => kind.ways.some((one) => one.way === way);
  return heard.find(has) ?? kind.ways[0]?.way ?? 'bootp';
}
