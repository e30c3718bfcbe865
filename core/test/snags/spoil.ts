import { toSubnet, type Plan } from '../../src/plan';
import {
  at,
  connection,
  device,
  DRIVE,
  HALL,
  ip,
  net,
  OTHER,
  ownKind,
  PLAN,
  ROUTER,
  STATION,
  withDevices,
} from './world';

// Ways to spoil the good plan of `world`, one fault each.

export const ofDrive = (fields: Parameters<typeof device>[2]): Plan =>
  withDevices({ ...DRIVE, ...fields });
export const connected = (...ends: Parameters<typeof connection>): Plan =>
  ofDrive({ connection: connection(...ends) });
export const subnets = (...networks: readonly string[]): Plan => ({
  ...PLAN,
  subnets: [
    ...PLAN.subnets,
    ...networks.map((network, index) =>
      toSubnet({ id: `s${index}`, name: `Part ${index}`, prefix: net(network) }),
    ),
  ],
});
export const reference = (address: string | undefined, deviceId = 'plc'): Plan =>
  ofDrive({
    references: [
      { what: 'time server', deviceId, address: address === undefined ? undefined : ip(address) },
    ],
  });
export const line = (...units: readonly number[]): Plan =>
  ofDrive({
    lines: [
      {
        ...{ title: 'Line 1', settings: '9600 8N1', tcpPort: 502 },
        units: units.map((unit, index) => ({ unit, title: `pump ${index}` })),
      },
    ],
  });
export const cable = (port: string, to = 'other'): Plan => ({
  ...PLAN,
  cables: [
    {
      id: 'c1',
      from: { deviceId: 'plc', port: '1' },
      to: { deviceId: 'drive', port: 'A' },
      note: '',
    },
    { id: 'c2', from: { deviceId: 'plc', port }, to: { deviceId: to, port: 'A' }, note: '' },
  ],
});
export const many = (count: number, limits: Parameters<typeof ownKind>[1]): Plan => ({
  ...withDevices(
    ...Array.from({ length: count }, (_, i) =>
      device(`d${i}`, `172.22.40.${83 + i}`, { controllerId: 'plc', connection: connection() }),
    ),
  ),
  kinds: [ownKind('osterhew-controller-k', limits)],
});
export const routed = (via: string): Plan =>
  withDevices({ ...ROUTER, routes: [{ to: net('10.1.0.0/16'), via: ip(via) }] });
export const translated = (outside: string): Plan =>
  withDevices({
    ...ROUTER,
    translations: [{ kind: 'one-to-one', inside: net('192.168.50.0/24'), outside: net(outside) }],
  });
/** The drive stands in a realm of its own, away from its controller; the router stands in both, and may translate. */
export const inOtherRealm = (how: 'apart' | 'translated' = 'apart'): Plan => {
  const { interfaces } = DRIVE;
  const router = {
    ...ROUTER,
    translations:
      how === 'apart'
        ? []
        : [
            {
              kind: 'one-to-one' as const,
              inside: net('172.22.41.0/24'),
              outside: net('10.41.0.0/24'),
            },
          ],
  };
  const moved = interfaces.map((one) => ({
    ...one,
    subnetId: 'feed',
    address: ip('172.22.41.80'),
  }));
  const plan = withDevices({ ...DRIVE, interfaces: moved }, router);
  return {
    ...plan,
    realms: [...plan.realms, { id: 'machine', name: 'Machine', note: '' }],
    subnets: plan.subnets.map((one) => (one.id === 'feed' ? { ...one, realmId: 'machine' } : one)),
  };
};
export const second = (fields: Partial<ReturnType<typeof at>>): Plan =>
  withDevices({
    ...OTHER,
    interfaces: [
      at('other', '172.22.40.81'),
      at('other', '172.22.41.81', { id: 'other-2', subnetId: 'feed', ...fields }),
    ],
  });
export const small = (count: number, network: string): Plan => ({
  ...PLAN,
  subnets: [...PLAN.subnets, toSubnet({ id: 'small', name: 'Small', prefix: net(network) })],
  devices: Array.from({ length: count }, (_, i) =>
    device(`d${i}`, `10.9.0.${i + 1}`, {
      interfaces: [at(`d${i}`, `10.9.0.${i + 1}`, { subnetId: 'small' })],
    }),
  ),
});
export const camera = (id: string, address: string) =>
  device(id, address, { kindId: 'fennrick-camera-c1', way: 'web-page' });
export const block = (network: string, devices = 10): Plan => ({
  ...PLAN,
  blocks: [
    {
      ...{ id: 'b', name: 'Block of IT', realmId: 'realm', prefix: net(network), note: '' },
      needs: [
        { name: 'Lab', devices, growthPercent: 0, held: 0, isWhole24: false, fixed: undefined },
      ],
    },
  ],
});
export const factoryAt = (address: string): Plan =>
  withDevices(
    device('cam', '172.22.40.150', { kindId: 'own-camera', way: 'web-page' }),
    device('drive', address, {}),
  );
export const ownCamera = (plan: Plan): Plan => ({
  ...plan,
  kinds: [
    ownKind('fennrick-camera-c1', {
      id: 'own-camera',
      factory: { kind: 'fixed', address: ip('172.22.40.90') },
    }),
  ],
});
export const gatewayAt = (address: string): Plan => ({
  ...withDevices(device('gw', address, { kindId: 'corrigall-gateway-2', way: 'switches' })),
  subnets: [{ ...HALL, prefix: net('172.22.40.0/23') }],
});
export const named = (fields: Parameters<typeof device>[2]): Plan =>
  withDevices({ ...OTHER, ...fields });
export const slots = (...modules: readonly (readonly [number, string])[]): Plan =>
  withDevices({ ...STATION, modules: modules.map(([slot, title]) => ({ slot, title })) });

export function stationIn(base: string) {
  const kind = ownKind('wendle-station-20', {});
  return { ...kind, switches: kind.switches && { ...kind.switches, base: net(base) } };
}
