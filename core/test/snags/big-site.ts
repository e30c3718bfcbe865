import { firstHostOf, must, parsePrefix } from '../../src/net';
import {
  avoidedFor,
  defaultBands,
  findShelfKind,
  nextFree,
  toDevice,
  toInterface,
  toPlan,
  toSubnet,
  type ConnectionEnd,
  type Device,
  type Plan,
} from '../../src/plan';

// A large site that is planned as it should be: a controller a subnet, drives, stations and valves
// of it, each with a connection whose two ends agree. For tests and for the bench.

const KINDS = ['belloch-drive-d4', 'wendle-station-20', 'tarnwick-valves-16', 'marrowby-flow-f2'];
const SIZES: Readonly<Record<string, number>> = {
  'belloch-drive-d4': 8,
  'wendle-station-20': 16,
  'tarnwick-valves-16': 4,
};

/** @param perSubnet devices beside the controller, at most 80 for a /24 */
export function siteOf(count: number, perSubnet = 40): Plan {
  const subnets = [];
  const devices: Device[] = [];
  for (let index = 0; devices.length < count; index += 1) {
    const prefix = must(parsePrefix(`10.${20 + (index >> 8)}.${index & 255}.0/24`));
    const subnet = toSubnet({
      ...{ id: `s${index}`, name: `Hall ${index}`, prefix, bands: defaultBands(prefix) },
      gateway: firstHostOf(prefix),
    });
    subnets.push(subnet);
    const taken = new Set<never>();
    const add = (kindId: string, controllerId?: string): string => {
      const kind = findShelfKind(kindId);
      const way = kind?.ways[0]?.way;
      if (!kind || !way) throw new Error(kindId);
      const avoided = { ...avoidedFor(toPlan({}), subnet, { kind, way, now: 0 }), taken };
      const address = nextFree(subnet, kind.role, avoided);
      if (address === undefined) throw new Error('full');
      taken.add(address as never);
      const id = `d${devices.length}`;
      const size = SIZES[kindId];
      const end: ConnectionEnd = {
        ...{ inSize: size, outSize: size, unitBits: '8', viewpoint: 'controller' },
        ...{
          headerBytes: 0,
          inInstance: 100,
          outInstance: 101,
          configInstance: undefined,
          configBytes: undefined,
        },
        ...{ intervalMillis: 20, revision: '', register: undefined, counting: 'from-0' },
      };
      devices.push(
        toDevice({
          ...{ id, title: `${kind.name} ${id}`, name: `h${index}-${kind.stem}-${id}`, kindId, way },
          ...{ cabinet: `C${index}`, position: String(devices.length), controllerId },
          connection:
            controllerId === undefined || size === undefined
              ? undefined
              : { protocol: 'EtherNet/IP', device: end, controller: end },
          interfaces: [toInterface({ id: `${id}-at`, deviceId: id, subnetId: subnet.id, address })],
        }),
      );
      return id;
    };
    const controller = add('osterhew-controller-k');
    for (let i = 0; i < perSubnet && devices.length < count; i += 1) {
      const kindId = KINDS[i % KINDS.length] ?? '';
      add(kindId, i < 30 && kindId !== 'marrowby-flow-f2' ? controller : undefined);
    }
  }
  return toPlan({ subnets, devices });
}
