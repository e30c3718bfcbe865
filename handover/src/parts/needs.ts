import { type Ipv4 } from '@ipsonomo/core/net';
import {
  findDevice,
  findKind,
  findInterface,
  type Device,
  type Interface,
  type Kind,
  type Plan,
  type PlannedInterface,
} from '@ipsonomo/core/plan';
import {
  neededPairs,
  predict,
  PreparedNet,
  routeNetOf,
  type NeededPair,
} from '@ipsonomo/core/routes';
import type { LeftOut } from '@ipsonomo/core/api';
import { leftOut, type Material } from '../format';

// What has to pass from where to where: the connections the plan needs, with the ports of their protocols.

export interface Need {
  readonly from: { readonly device: Device; readonly address: Ipv4 };
  readonly to: { readonly device: Device; readonly at: Interface };
  readonly protocol: 'tcp' | 'udp';
  readonly port: number;
  readonly service: string;
  readonly why: NeededPair['why'] | 'answers';
  /** Both in one subnet: no router sees it. */
  readonly isInside: boolean;
}

interface Port {
  readonly protocol: 'tcp' | 'udp';
  readonly port: number;
  readonly service: string;
  /** What the one that was called sends by itself, to the same port of the caller. */
  readonly isBack?: boolean;
}

/**
 * R-PORTS: as IANA registers them ("Service Name and Transport Protocol Port Number Registry"): EtherNet-IP-2 44818,
 * EtherNet-IP-1 2222, mbap 502, profinet-cm 34964, opcua-tcp 4840. The cyclic data of EtherNet/IP come from the device
 * by itself too.
 */
const PORTS: Readonly<Record<string, readonly Port[]>> = {
  'EtherNet/IP': [
    { protocol: 'tcp', port: 44_818, service: 'EtherNet/IP' },
    { protocol: 'udp', port: 2222, service: 'EtherNet/IP I/O' },
    { protocol: 'udp', port: 2222, service: 'EtherNet/IP I/O', isBack: true },
  ],
  'Modbus/TCP': [{ protocol: 'tcp', port: 502, service: 'Modbus/TCP' }],
  PROFINET: [{ protocol: 'udp', port: 34_964, service: 'PROFINET' }],
  'OPC UA': [{ protocol: 'tcp', port: 4840, service: 'OPC UA' }],
};

/** R-NEEDS-OUT: every needed connection that leads to a chosen interface, or comes from one, once. */
export function needsOf(material: Material): {
  readonly needs: readonly Need[];
  readonly left: readonly LeftOut[];
} {
  const { plan, chosen } = material;
  const isChosen = new Set(chosen.flatMap(({ device, at }) => [device.id, at.id]));
  const net = new PreparedNet(routeNetOf(plan));
  const left: LeftOut[] = [];
  const needs = neededPairs(plan)
    .filter((pair) => isChosen.has(pair.from) || isChosen.has(pair.to.interface))
    .flatMap((pair): readonly Need[] => {
      const [from, to] = [findDevice(plan, pair.from), findInterface(plan, pair.to.interface)];
      if (!from || !to) return [];
      const ports = portsOf(plan, from, to.device, pair.why);
      if (ports.length === 0) left.push(leftOut(to, 'no-service', from.title));
      const source = sourceOf(net, from, to);
      return ports.map((port) => needOf(pair, port, source, { ...to, from }));
    });
  const once = new Map(needs.map((one) => [keyOf(one), one]));
  return { needs: [...once.values()], left };
}

const keyOf = ({ from, to, protocol, port }: Need): string =>
  `${from.address} ${to.at.address} ${protocol} ${port}`;

function needOf(
  { why }: NeededPair,
  { isBack = false, ...port }: Port,
  source: Interface,
  { from, device, at }: PlannedInterface & { readonly from: Device },
): Need {
  const isInside = source.subnetId === at.subnetId;
  return isBack
    ? {
        ...{ ...port, isInside, why: 'answers' },
        ...{ from: { device, address: at.address }, to: { device: from, at: source } },
      }
    : {
        ...port,
        isInside,
        why,
        from: { device: from, address: source.address },
        to: { device, at },
      };
}

/** The interface a device asks from: the one it would send by, else its first. */
function sourceOf(net: PreparedNet, from: Device, to: PlannedInterface): Interface {
  const [first] = from.interfaces;
  const direct = from.interfaces.find(({ subnetId }) => subnetId === to.at.subnetId);
  const host = net.host(from.id);
  const leaves = host && predict(net, { from: host, to: to.at.address }).there.hops[0]?.out?.id;
  const found = direct ?? from.interfaces.find(({ id }) => id === leaves) ?? first;
  if (!found) throw new Error('a device without an interface needs nothing');
  return found;
}

/** The protocol that its connection has, else the one that both speak, else every service of its kind. */
function portsOf(plan: Plan, from: Device, to: Device, why: NeededPair['why']): readonly Port[] {
  const [asks, serves] = [findKind(plan, from.kindId), findKind(plan, to.kindId)];
  if (why === 'controls') {
    const said =
      (to.protocol ?? to.connection?.protocol) || (from.protocol ?? common(asks, serves));
    if (said) return PORTS[said] ?? [];
  }
  return (serves?.services ?? []).map(({ protocol, port, name }) => ({
    ...{ protocol, port, service: name },
  }));
}

const common = (asks: Kind | undefined, serves: Kind | undefined): string | undefined =>
  serves?.roles.find(
    ({ protocol, side }) =>
      side !== 'opens' &&
      asks?.roles.some((one) => one.protocol === protocol && one.side !== 'serves'),
  )?.protocol ?? serves?.roles.find(({ side }) => side !== 'opens')?.protocol;
