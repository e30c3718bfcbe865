import { MISTAKE_KINDS, MISTAKES_AT_NOBODY, type MistakeKind } from '@ipsonomo/core/api';
import { formatMac, must, parseIpv4, parsePrefix, roleOf, toIpv4 } from '@ipsonomo/core/net';
import {
  OTHER_DEVICE,
  toDevice,
  toInterface,
  toPlan,
  toSubnet,
  type Plan,
  type Way,
} from '@ipsonomo/core/plan';
import { siteOfPlan, withMistakes } from '../src';
import { Bench, ip } from './helpers';

// R-REHEARSE, R-MISTAKES: the site of a plan, and what can be wrong on it.

const SEED = 11;

/** Two subnets with a gateway each; in the first a device of each way, in the second six alike. */
const DEVICES: readonly (readonly [id: string, kindId: string, way: Way, address: string])[] = [
  ['valves', 'tarnwick-valves-16', 'bootp', '10.4.7.21'],
  ['meter', 'marrowby-flow-f2', 'dhcp-mac', '10.4.7.22'],
  ['camera', 'fennrick-camera-c1', 'web-page', '10.4.7.23'],
  ['block', 'eldrup-block-8', 'layer2-name', '10.4.7.24'],
  ['station', 'wendle-station-20', 'switches', '10.4.7.25'],
  ['panel', 'kilvane-panel-12', 'keypad', '10.4.7.26'],
  ...[1, 2, 3, 4, 5, 6].map(
    (one) => [`drive-${one}`, 'belloch-drive-d4', 'dhcp-mac', `10.4.8.${20 + one}`] as const,
  ),
];

const plan: Plan = toPlan({
  subnets: ['10.4.7', '10.4.8'].map((net, index) =>
    toSubnet({
      ...{ id: net, name: `Hall ${index + 1}`, vlan: 7 + index },
      ...{ prefix: must(parsePrefix(`${net}.0/24`)), gateway: must(parseIpv4(`${net}.1`)) },
    }),
  ),
  devices: DEVICES.map(([id, kindId, way, address]) => ({
    ...toDevice({ id, title: id, name: id, kindId, way, cabinet: 'FH1', position: '2' }),
    interfaces: [
      toInterface({
        ...{ id: `${id}-1`, deviceId: id, subnetId: address.replace(/\.\d+$/, '') },
        address: must(parseIpv4(address)),
      }),
    ],
  })),
});

const planned = siteOfPlan(plan, SEED);
const benchOf = (which: readonly MistakeKind[], seed = SEED) => {
  const { site, mistakes } = withMistakes(plan, planned, { kind: 'chosen', which }, seed);
  return { bench: new Bench(site), site, mistakes };
};
const macOf = (id: string): string => {
  const mac = planned.devices.find((one) => one.id === id)?.mac;
  return mac === undefined ? '' : formatMac(mac);
};

test('each planned device stands there as its maker delivers it', () => {
  const { bench } = benchOf([]);
  bench.advance(60_000);
  const shown = bench.site.view(bench.now).devices;
  expect(shown.map(({ id, place }) => [id, place])).toEqual(
    DEVICES.map(([id]) => [`${id}-1`, 'FH1 / 2']),
  );
  const lamps = Object.fromEntries(shown.map(({ id, lamp }) => [id, lamp]));
  expect(lamps).toMatchObject({ 'valves-1': 'asking', 'meter-1': 'asking', 'block-1': 'waiting' });
  // It keeps the address that all of its kind leave their maker with.
  expect(bench.device('camera-1').lamp).toBe('steady');
  expect(new Set(planned.devices.map(({ mac }) => mac)).size).toBe(DEVICES.length);
});

test('what asks is given its address, and found in its subnet alone', () => {
  const { bench } = benchOf([]);
  bench.bind(macOf('meter-1'), '10.4.7.22');
  bench.bind(macOf('drive-1-1'), '10.4.8.21');
  bench.advance(60_000);
  expect(bench.device('meter-1').display).toBe('10.4.7.22');
  expect(bench.askArp('10.4.7.22')).toEqual([macOf('meter-1')]);
  // The laptop is in the first switch: the second hall's drive does not hear it there.
  expect(bench.device('drive-1-1').display).toBe('');
  bench.site.act({ kind: 'socket', segment: '10.4.8' }, bench.now);
  bench.advance(120_000);
  expect(bench.device('drive-1-1').display).toBe('10.4.8.21');
  expect(bench.askArp('10.4.7.22')).toEqual([]);
});

test('its switches choose the last number in the network that is planned', () => {
  const { bench } = benchOf([]);
  const { face } = bench.device('station-1');
  expect(face).not.toBeNull();
  bench.site.act({ kind: 'turn', device: 'station-1', positions: [0, 2, 5] }, bench.now);
  bench.site.act({ kind: 'power', device: 'station-1', on: false }, bench.now);
  bench.site.act({ kind: 'power', device: 'station-1', on: true }, bench.now);
  bench.advance(30_000);
  expect(bench.askArp('10.4.7.25')).toEqual([macOf('station-1')]);
});

test('the same seed makes the same site and the same mistakes', () => {
  const wish = { kind: 'surprise', count: 4 } as const;
  const one = withMistakes(plan, siteOfPlan(plan, 5), wish, 5);
  const other = withMistakes(plan, siteOfPlan(plan, 5), wish, 5);
  expect(one.mistakes).toEqual(other.mistakes);
  expect(one.mistakes).toHaveLength(4);
  expect(one.site.devices.map(({ mac }) => mac)).toEqual(other.site.devices.map(({ mac }) => mac));
  expect(withMistakes(plan, siteOfPlan(plan, 6), wish, 6).mistakes).not.toEqual(one.mistakes);
});

test.each(Array.from({ length: 40 }, (_, seed) => seed))(
  'seed %d: no device has two mistakes, and the cabinets tell none of them',
  (seed) => {
    const made = withMistakes(plan, siteOfPlan(plan, seed), { kind: 'surprise', count: 6 }, seed);
    const at = made.mistakes.flatMap(({ interfaceId }) => interfaceId || []);
    expect(new Set(at).size).toBe(at.length);
    expect(made.mistakes).toHaveLength(6);
    expect(new Bench(made.site).site.view(0).faults).toEqual([]);
  },
);

/** How a mistake shows on the wire or at the cabinet, while it is there and after it was put right. */
const SHOWS: Readonly<Record<MistakeKind, (bench: Bench, id: string) => unknown>> = {
  'wrong-label': (bench, id) =>
    bench.device(id).label === macOf(id).toUpperCase().replaceAll(':', '-'),
  'kept-address': (bench, id) => bench.device(id).display,
  'cable-out': (bench, id) => bench.device(id).cable,
  'wrong-socket': (bench, id) =>
    bench.site
      .view(bench.now)
      .devices.filter((one) => one.id.startsWith(id) && one.cable)
      .map((one) => one.segment),
  'address-taken': (bench, id) => {
    const address = plan.devices.find((one) => one.interfaces[0]?.id === id)?.interfaces[0]
      ?.address;
    return bench.site
      .view(bench.now)
      .devices.filter((one) => address && ip(one.display || '0.0.0.0') === address).length;
  },
  'in-use': (bench, id) => bench.site.device(id)?.quirks.has('owned'),
  'other-revision': (bench, id) => bench.site.device(id)?.quirks.has('other-revision'),
  'drops-out': (bench, id) => bench.site.device(id)?.quirks.has('drops-out'),
  'lending-router': (bench) => bench.site.view(bench.now).devices.length,
  'router-leg-out': (bench) => bench.site.routers.map(({ cutOff }) => cutOff.size),
};

test.each(MISTAKE_KINDS)('%s is there from the beginning, and can be put right', (kind) => {
  const { bench, mistakes } = benchOf([kind]);
  const [mistake] = mistakes;
  expect(mistake?.kind).toBe(kind);
  expect(mistake?.interfaceId === '').toBe(MISTAKES_AT_NOBODY.includes(kind));
  const right = benchOf([]).bench;
  for (const one of [bench, right]) one.advance(40_000);
  const id = mistake?.interfaceId ?? '';
  const shows = (one: Bench) => SHOWS[kind](one, id);
  expect(shows(bench)).not.toEqual(shows(right));
  expect(bench.site.putRight(mistake?.id ?? '', bench.now)).toBe(true);
  for (const one of [bench, right]) one.advance(40_000);
  expect(shows(bench)).toEqual(shows(right));
  expect(bench.site.putRight(mistake?.id ?? '', bench.now)).toBe(false);
});

test.each(['10.4.7.0/24', '10.4.7.0/28', '10.4.7.0/29', '10.4.7.0/30'])(
  'whoever gives addresses to everybody gives those of %s',
  (network) => {
    const prefix = must(parsePrefix(network));
    const [first, ...others] = plan.subnets;
    const small = { ...plan, subnets: [...(first ? [{ ...first, prefix }] : []), ...others] };
    const one = { ...small, devices: small.devices.filter(({ id }) => id === 'meter') };
    const which: readonly MistakeKind[] = ['lending-router'];
    const { site } = withMistakes(one, siteOfPlan(one, 1), { kind: 'chosen', which }, 1);
    const lender = site.devices.find(({ lends }) => lends !== undefined);
    const { lends, stored } = lender ?? {};
    const given = Array.from({ length: lends?.count ?? 0 }, (_, at) => (lends?.first ?? 0) + at);
    expect(given.length).toBeGreaterThan(0);
    for (const address of [...given, stored?.address ?? 0])
      expect(roleOf(prefix, toIpv4(address))).toBe('host');
  },
);

test('what cannot be rehearsed is said, and the rest stands', () => {
  const [valves, meter, camera] = plan.devices;
  const odd = toPlan({
    subnets: plan.subnets,
    devices: [
      ...(valves ? [{ ...valves, kindId: 'no-such-kind' }] : []),
      ...(meter ? [{ ...meter, way: 'dhcp-port' as const }] : []),
      ...(camera
        ? [{ ...camera, interfaces: camera.interfaces.map((at) => ({ ...at, subnetId: 'gone' })) }]
        : []),
    ],
  });
  const { devices, unrehearsed } = siteOfPlan(odd, SEED);
  expect(devices.map(({ id }) => id)).toEqual(['meter-1']);
  expect(unrehearsed).toEqual([
    { interfaceId: 'valves-1', why: 'no-kind' },
    { interfaceId: 'meter-1', why: 'no-relay' },
    { interfaceId: 'camera-1', why: 'no-subnet' },
  ]);
});

test('two planned with one address both come up', () => {
  const twice = toPlan({
    subnets: plan.subnets,
    devices: plan.devices.slice(0, 2).map((device) => ({
      ...device,
      interfaces: device.interfaces.map((at) => ({ ...at, address: must(parseIpv4('10.4.7.9')) })),
    })),
  });
  expect(siteOfPlan(twice, SEED).devices).toHaveLength(2);
});

// Of some other device nobody knows how it comes: it is as its way usually is, or is said.
test.each<[Way, string, boolean]>([
  ['bootp', 'asking', true],
  ['dhcp-mac', 'asking', true],
  ['dhcp-name', 'asking', true],
  ['layer2-name', 'waiting', true],
  ['keypad', 'waiting', true],
  ['card', 'waiting', true],
  ['web-page', 'waiting', false],
  ['switches', 'waiting', false],
])('some other device by %s stands there %s', (way, lamp, isRehearsed) => {
  const [first] = plan.devices;
  if (!first) throw new Error('no device');
  const other = { ...plan, devices: [{ ...first, kindId: OTHER_DEVICE.id, way }] };
  const site = siteOfPlan(other, SEED);
  expect(site.unrehearsed).toEqual(
    isRehearsed ? [] : [{ interfaceId: 'valves-1', why: 'no-factory' }],
  );
  const bench = new Bench(withMistakes(other, site, { kind: 'chosen', which: [] }, SEED).site);
  bench.advance(60_000);
  expect(bench.site.view(bench.now).devices[0]?.lamp).toBe(lamp);
});

/** A plan with stations under a controller, whose devices count how often something of them is read. */
function countedPlan(size: number): { readonly plan: Plan; readonly reads: () => number } {
  let reads = 0;
  const net = { id: 'net', name: 'Hall', prefix: must(parsePrefix('10.64.0.0/16')) };
  const counted = <T extends object>(thing: T): T =>
    new Proxy(thing, {
      get: (of, key, self) => {
        reads += 1;
        return Reflect.get(of, key, self) as unknown;
      },
    });
  const devices = Array.from({ length: size }, (_, at) => {
    const id = `station-${at}`;
    const way: Way = at === 0 ? 'keypad' : 'controller';
    const kindId = at === 0 ? 'kilvane-panel-12' : 'eldrup-block-8';
    const address = toIpv4(must(parseIpv4('10.64.0.10')) + at);
    return counted({
      ...toDevice({ id, title: id, name: id, kindId, way, cabinet: 'FH1', position: '2' }),
      ...(at === 0 ? {} : { controllerId: 'station-0' }),
      interfaces: [toInterface({ id: `${id}-1`, deviceId: id, subnetId: 'net', address })],
    });
  });
  return { plan: toPlan({ subnets: [toSubnet(net)], devices }), reads: () => reads };
}

test('the site of four times as many devices looks at four times as many', () => {
  const readsOf = (size: number): number => {
    const { plan: large, reads } = countedPlan(size);
    const before = reads();
    withMistakes(large, siteOfPlan(large, SEED), { kind: 'surprise', count: 10 }, SEED);
    return reads() - before;
  };
  expect(readsOf(1200) / readsOf(300)).toBeLessThan(4.6);
});
