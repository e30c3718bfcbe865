import fc from 'fast-check';
import {
  formatIpv4,
  lastOf,
  must,
  parseIpv4,
  parsePrefix,
  rangeHas,
  roleOf,
  sizeOf,
  toIpv4,
  type Ipv4,
} from '../../src/net';
import {
  avoidedFor,
  checkAddress,
  checkSubnet,
  defaultBands,
  SHELF,
  nextFree,
  toDevice,
  toInterface,
  toPlan,
  toSubnet,
  voiceAddress,
  type Band,
  type Device,
  type Role,
  type Subnet,
} from '../../src/plan';
import { cases } from '../cases';

const ip = (text: string) => must(parseIpv4(text));

const subnetOf = (network: string, gateway?: string, bands?: readonly Band[]): Subnet => {
  const prefix = must(parsePrefix(network));
  return toSubnet({
    id: network,
    name: 'Filter hall',
    prefix,
    gateway: gateway === undefined ? undefined : ip(gateway),
    bands: bands ?? defaultBands(prefix),
  });
};

const HALL = subnetOf('172.22.40.0/24', '172.22.40.1');

const device = (title: string, address: string, subnetId = HALL.id): Device =>
  toDevice({
    id: title,
    title,
    name: title.toLowerCase().replace(/\W+/g, '-'),
    kindId: 'belloch-drive-d4',
    way: 'dhcp-mac',
    interfaces: [
      toInterface({ id: `${title} at`, deviceId: title, subnetId, address: ip(address) }),
    ],
  });

const PLAN = toPlan({ subnets: [HALL], devices: [device('Drum filter drive 2', '172.22.40.86')] });

// R-ADDRESS
test.each<[string, string, readonly string[]]>([
  ['a free one in its band', '172.22.40.87', []],
  ['the network itself', '172.22.40.0', ['address.network']],
  ['the broadcast address', '172.22.40.255', ['address.broadcast']],
  ['outside', '172.22.41.7', ['address.outside']],
  ['swapped digits', '172.61.40.7', ['address.outside']],
  ['the gateway', '172.22.40.1', ['address.gateway']],
  ['taken', '172.22.40.86', ['address.taken']],
  ['the pool', '172.22.40.200', ['address.band']],
  ['held', '172.22.40.185', ['address.band']],
  ["the service laptops'", '172.22.40.250', ['address.band']],
  ['multicast', '224.0.0.5', ['address.never']],
  ['loopback', '127.0.0.1', ['address.never']],
])('%s: %s', (_name, address, codes) => {
  expect(checkAddress(PLAN, HALL, ip(address)).map((one) => one.code)).toEqual(codes);
});

test('an address names its holder, and its own holder is no obstacle', () => {
  const [issue] = checkAddress(PLAN, HALL, ip('172.22.40.86'));
  expect(issue?.facts).toEqual({ holder: 'Drum filter drive 2' });
  expect(checkAddress(PLAN, HALL, ip('172.22.40.86'), 'Drum filter drive 2 at')).toEqual([]);
});

// RFC 3021 §2.1: both addresses of a /31 are hosts; a /32 has its one.
test.each([
  ['10.0.0.4/30', ['network', 'host', 'host', 'broadcast']],
  ['10.0.0.4/31', ['host', 'host']],
  ['10.0.0.4/32', ['host']],
])('who may have the addresses of %s', (network, roles) => {
  const { prefix } = subnetOf(network);
  const all = Array.from({ length: sizeOf(prefix) }, (_, i) => toIpv4(prefix.network + i));
  expect(all.map((address) => roleOf(prefix, address))).toEqual(roles);
});

test.each<[string, string, string | undefined, readonly string[]]>([
  ['beside it', '172.22.41.0/24', undefined, []],
  ['the same', '172.22.40.0/24', undefined, ['subnet.overlap']],
  ['around it', '172.22.0.0/16', undefined, ['subnet.overlap']],
  ['inside it', '172.22.40.128/25', undefined, ['subnet.overlap']],
  ['multicast', '239.1.0.0/24', undefined, ['subnet.never']],
  ['too wide', '0.0.0.0/0', undefined, ['subnet.never', 'subnet.tooWide', 'subnet.overlap']],
  ['gateway outside', '172.22.41.0/24', '172.22.40.1', ['gateway.outside']],
  ['gateway is the network', '172.22.41.0/24', '172.22.41.0', ['gateway.network']],
  ['gateway is the broadcast', '172.22.41.0/24', '172.22.41.255', ['gateway.broadcast']],
  ['gateway in a /31', '10.0.0.4/31', '10.0.0.5', []],
])('a subnet %s', (_name, network, gateway, codes) => {
  const prefix = must(parsePrefix(network));
  const wanted = {
    ...{ prefix, realmId: HALL.realmId },
    gateway: gateway === undefined ? undefined : ip(gateway),
  };
  expect(checkSubnet(PLAN, wanted).map((one) => one.code)).toEqual(codes);
});

test('the lowest free of the band, and nothing outside it once it is full', () => {
  const taken = new Set<Ipv4>();
  const given: string[] = [];
  for (
    let next = nextFree(HALL, 'controllers', { taken });
    next;
    next = nextFree(HALL, 'controllers', { taken })
  ) {
    taken.add(next);
    given.push(formatIpv4(next));
  }
  expect([given[0], given.at(-1), given.length]).toEqual(['172.22.40.10', '172.22.40.19', 10]);
});

test('a factory address of a kind is never proposed', () => {
  const camera = SHELF.find((kind) => kind.id === 'fennrick-camera-c1');
  if (camera?.factory.kind !== 'fixed') throw new Error('the camera has a factory address');
  const subnet = subnetOf('192.168.77.8/30');
  const plan = toPlan({ subnets: [subnet] });
  const avoided = avoidedFor(plan, subnet, { kind: camera, way: 'web-page', now: 0 });
  avoided.taken.add(toIpv4(camera.factory.address - 1));
  expect(nextFree(subnet, 'sensors', avoided)).toBeUndefined();
});

test('R-NEXT-FREE: nextFree agrees with a search of every address', () => {
  const roles: readonly Role[] = ['drives', 'io', 'sensors', 'infrastructure', 'panels'];
  const world = fc.record({
    length: fc.integer({ min: 22, max: 32 }),
    role: fc.constantFrom(...roles),
    taken: fc.uniqueArray(fc.nat(1023), { maxLength: 300 }),
    gateway: fc.option(fc.nat(1023)),
  });
  fc.assert(
    fc.property(world, ({ length, role, taken, gateway }) => {
      const at = (offset: number) => toIpv4(ip('10.9.8.0') + offset);
      const subnet: Subnet = {
        ...subnetOf(`10.9.8.0/${length}`),
        gateway: gateway === null ? undefined : at(gateway),
      };
      const used = new Set(taken.map(at));
      const own = subnet.bands.filter((band) => band.role === role);
      const fits = (address: Ipv4) =>
        roleOf(subnet.prefix, address) === 'host' &&
        !used.has(address) &&
        address !== subnet.gateway &&
        (own.length > 0
          ? own.some((band) => rangeHas(band, address))
          : !subnet.bands.some((band) => rangeHas(band, address)));
      let expected: Ipv4 | undefined;
      for (
        let address: number = subnet.prefix.network;
        address <= lastOf(subnet.prefix);
        address += 1
      )
        if (expected === undefined && fits(toIpv4(address))) expected = toIpv4(address);
      expect(nextFree(subnet, role, { taken: used })).toBe(expected);
    }),
    { numRuns: cases(400), seed: 22 },
  );
});

test("we speak from the service laptops' band, from its end, never from a given address", () => {
  const taken = new Set([ip('172.22.40.253'), ip('172.22.40.252')]);
  expect(formatIpv4(voiceAddress(HALL, taken) ?? toIpv4(0))).toBe('172.22.40.251');
  const small = subnetOf('10.0.0.4/30', '10.0.0.5');
  expect(formatIpv4(voiceAddress(small, new Set()) ?? toIpv4(0))).toBe('10.0.0.6');
  expect(voiceAddress(small, new Set([ip('10.0.0.6')]))).toBeUndefined();
});

// R-FREED
test('a freed address waits for the next named revision and for 30 days, whichever is later', () => {
  const DAY = 86_400_000;
  const address = ip('172.22.40.80');
  const freed = {
    ...{ id: 'f', subnetId: HALL.id, address, deviceId: 'gone', whose: 'Old pump' },
    ...{ at: 1000, revision: 7 },
  };
  const plan = toPlan({ subnets: [HALL], freed: [freed] });
  const offered = (now: number, lastNamed: number) =>
    nextFree(
      HALL,
      'drives',
      avoidedFor(plan, HALL, { kind: undefined, way: 'dhcp-mac', now, lastNamed }),
    );
  expect(offered(1000 + 29 * DAY, 8)).toBe(address + 1);
  expect(offered(1000 + 31 * DAY, 7)).toBe(address + 1);
  expect(offered(1000 + 31 * DAY, 8)).toBe(address);
  expect(nextFree(HALL, 'drives', { taken: new Set() })).toBe(address);
});

test('a kind set by switches is offered only what its switches can make', () => {
  const face = SHELF.find((kind) => kind.id === 'strathan-terminal-4');
  const wide = subnetOf('10.0.0.0/24', '10.0.0.1', []);
  const plan = toPlan({ subnets: [wide] });
  const avoided = avoidedFor(plan, wide, { kind: face, way: 'switches', now: 0 });
  for (let last = 1; last <= 99; last += 1) avoided.taken.add(toIpv4(wide.prefix.network + last));
  expect(nextFree(wide, 'io', avoided)).toBeUndefined();
  avoided.taken.delete(ip('10.0.0.99'));
  expect(nextFree(wide, 'io', avoided)).toBe(ip('10.0.0.99'));
});

// Two dials make no more than 1 to 99, and the band of such devices begins at 100.
test.each<[string, readonly number[], readonly Band[], string | undefined]>([
  [
    'one of its own band',
    [98, 100, 101],
    [{ role: 'io', first: ip('10.0.0.100'), last: ip('10.0.0.199') }],
    '10.0.0.100',
  ],
  [
    'else one of nobody’s band',
    [12, 60, 70],
    [
      { role: 'io', first: ip('10.0.0.100'), last: ip('10.0.0.199') },
      { role: 'controllers', first: ip('10.0.0.10'), last: ip('10.0.0.19') },
    ],
    '10.0.0.60',
  ],
  [
    'else one of another’s band',
    [5, 12],
    [
      { role: 'io', first: ip('10.0.0.100'), last: ip('10.0.0.199') },
      { role: 'infrastructure', first: ip('10.0.0.1'), last: ip('10.0.0.9') },
      { role: 'controllers', first: ip('10.0.0.10'), last: ip('10.0.0.19') },
    ],
    '10.0.0.12',
  ],
  [
    'never one that is reserved',
    [5],
    [
      { role: 'io', first: ip('10.0.0.100'), last: ip('10.0.0.199') },
      { role: 'infrastructure', first: ip('10.0.0.1'), last: ip('10.0.0.9') },
    ],
    undefined,
  ],
])('what its switches can make: %s', (_what, numbers, bands, wanted) => {
  const only = new Set(numbers.map((number) => toIpv4(ip('10.0.0.0') + number)));
  const free = nextFree(subnetOf('10.0.0.0/24', undefined, bands), 'io', {
    taken: new Set(),
    only,
  });
  expect(free === undefined ? undefined : formatIpv4(free)).toBe(wanted);
  // Whoever can have any gets one of the band.
  expect(nextFree(subnetOf('10.0.0.0/24', undefined, bands), 'io', { taken: new Set() })).toBe(
    ip('10.0.0.100'),
  );
});
