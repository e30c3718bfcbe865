import fc from 'fast-check';
import { must, parsePrefix } from '../../src/net';
import { toDevice, toInterface, toPlan, toSubnet, type Device } from '../../src/plan';
import {
  carriedFor,
  chainsOf,
  compareCosts,
  costOf,
  orderRound,
  roundCalls,
  type RoundCall,
} from '../../src/round';
import { ip } from '../wire/samples';
import { RoundGroups } from '../../src/round/groups';
import { Walk } from '../../src/round/walk';
import { cases } from '../cases';

/** A call of which only the needed is said. */
const call = (id: string, fields: Partial<RoundCall> = {}): RoundCall => ({
  ...{ id, deviceId: id, area: 'hall', cabinet: 0, laptop: 'net', factory: undefined },
  behind: new Set<string>(),
  ...fields,
});

const SETTINGS = [undefined, 'a', 'b', 'c'] as const;
const FACTORIES = [undefined, undefined, 'x', 'y'] as const;

/** Random rounds: areas of four cabinets, a few settings, some factory addresses, some chains. */
const rounds = (count: number) =>
  fc
    .array(
      fc.record({
        cabinet: fc.nat(7),
        setting: fc.nat(3),
        factory: fc.nat(3),
        behind: fc.option(fc.nat(count - 1), { freq: 4 }),
      }),
      { minLength: count, maxLength: count },
    )
    .map((drawn) =>
      drawn.map(({ cabinet, setting, factory, behind }, at) =>
        call(`c${at}`, {
          ...{ cabinet, area: `area ${Math.floor(cabinet / 4)}` },
          ...{ laptop: SETTINGS[setting], factory: FACTORIES[factory] },
          behind: new Set(behind === null || behind === at ? [] : [`c${behind}`]),
        }),
      ),
    );

function* ordersOf<T>(items: readonly T[]): Generator<readonly T[]> {
  if (items.length === 0) yield [];
  for (const [at, item] of items.entries())
    for (const rest of ordersOf([...items.slice(0, at), ...items.slice(at + 1)]))
      yield [item, ...rest];
}

test('R-ROUND: as cheap as the cheapest of all orders, for up to six calls of random rounds', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 6 }).chain((count) => rounds(count)),
      (calls) => {
        const own = costOf(orderRound(calls));
        let best = costOf(calls);
        for (const order of ordersOf(calls)) {
          const cost = costOf(order);
          if (compareCosts(cost, best) < 0) best = cost;
        }
        expect(own).toEqual(best);
      },
    ),
    { numRuns: cases(60), seed: 300 },
  );
}, 120_000);

test('R-ROUND: as cheap as the cheapest of all 40,320 orders of eight calls', () => {
  const [calls = []] = fc.sample(rounds(8), { numRuns: 1, seed: 8 });
  const own = costOf(orderRound(calls));
  for (const order of ordersOf(calls)) expect(compareCosts(costOf(order), own)).not.toBeLessThan(0);
}, 120_000);

test('every call stands once in an order, however many there are', () => {
  fc.assert(
    fc.property(fc.integer({ min: 10, max: 60 }).chain(rounds), (calls) => {
      const ids = (list: readonly RoundCall[]) => list.map(({ id }) => id).sort();
      expect(ids(orderRound(calls))).toEqual(ids(calls));
    }),
    { numRuns: cases(20), seed: 5 },
  );
});

test('more calls than a 16-bit number counts, each once', () => {
  const calls = Array.from({ length: 33_000 }, (_, at) =>
    call(`c${at}`, {
      cabinet: at,
      area: `area ${at >> 6}`,
      factory: at % 9 === 0 ? 'x' : undefined,
    }),
  );
  expect(new Set(orderRound(calls)).size).toBe(33_000);
}, 120_000);

test('a change of an order costs what the whole changed order costs', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 4, max: 30 }).chain((count) => rounds(count)),
      fc.array(fc.nat(1000), { minLength: 2, maxLength: 2 }),
      fc.nat(1_000_000),
      (drawn, [from = 0, to = 0], seed) => {
        // Nobody hangs behind one that hangs behind it.
        const calls = drawn.map((one, at) => ({
          ...one,
          behind: new Set([...one.behind].filter((id) => Number(id.slice(1)) > at)),
        }));
        const groups = new RoundGroups(calls);
        const [order = new Int32Array()] = groups.starts();
        const walk = new Walk(groups, order);
        expect(walk.cost).toEqual(costOf(groups.calls(order)));
        const [first, last] = [from % order.length, to % order.length].sort((a, b) => a - b);
        const window = order.slice(first, (last ?? 0) + 1);
        for (let at = window.length - 1; at > 0; at -= 1) {
          const other = (seed * (at + 7)) % (at + 1);
          [window[at], window[other]] = [window[other] ?? 0, window[at] ?? 0];
        }
        const changed = order.slice();
        changed.set(window, first);
        const own = costOf(groups.calls(changed));
        const isCheaper = compareCosts(own, walk.cost) < 0;
        expect(walk.cheaper(first ?? 0, window, walk.cost)).toEqual(isCheaper ? own : undefined);
      },
    ),
    { numRuns: cases(300), seed: 301 },
  );
});

test('R-ROUND: no random order of sixty calls is cheaper', () => {
  const [calls = []] = fc.sample(rounds(60), { numRuns: 1, seed: 60 });
  const own = costOf(orderRound(calls));
  const shuffled = fc.shuffledSubarray([...calls], { minLength: 60, maxLength: 60 });
  for (const order of fc.sample(shuffled, { numRuns: cases(2000), seed: 7 }))
    expect(compareCosts(own, costOf(order))).toBeLessThanOrEqual(0);
});

test.each<[string, readonly RoundCall[], object]>([
  ['nothing', [], { laptop: 0, areas: 0, cabinets: 0 }],
  ['one setting, one cabinet', [call('a'), call('b')], { laptop: 0, cabinets: 0 }],
  [
    'a call that needs no laptop leaves it as it is',
    [call('a'), call('b', { laptop: undefined }), call('c', { laptop: 'other' })],
    { laptop: 1 },
  ],
  [
    'a cabinet left undone has power: its fellow elsewhere clashes',
    [
      call('a', { factory: 'x', cabinet: 1 }),
      call('b', { factory: 'x', cabinet: 2 }),
      call('c', { factory: 'x', cabinet: 1 }),
    ],
    { clashes: 1 },
  ],
  [
    'in one cabinet one is switched on after the other',
    [call('a', { factory: 'x' }), call('b', { factory: 'x' })],
    { clashes: 0 },
  ],
  [
    'who was done behind it loses its network',
    [call('end'), call('head', { behind: new Set(['end', 'other']) })],
    { power: 1 },
  ],
  [
    'far cabinets are a longer walk',
    [call('a'), call('b', { cabinet: 5 })],
    { cabinets: 1, walk: 5 },
  ],
])('the cost of %s', (_what, order, cost) => expect(costOf(order)).toMatchObject(cost));

const HALL = toSubnet({ id: 'hall', name: 'Hall', prefix: must(parsePrefix('172.22.40.0/24')) });

const device = (id: string, kindId: string, way: Device['way'], cabinet: string): Device =>
  toDevice({
    ...{ id, title: id, name: id, kindId, way, cabinet, area: 'Hall' },
    interfaces: [
      toInterface({ id: `${id}-at`, deviceId: id, subnetId: 'hall', address: ip('172.22.40.9') }),
    ],
  });

const PLAN = toPlan({
  subnets: [HALL],
  devices: [
    device('switch', 'eskmere-switch-8', 'dhcp-mac', 'H2'),
    device('camera', 'fennrick-camera-c1', 'web-page', 'H1'),
    device('station', 'wendle-station-20', 'switches', 'H1'),
    device('drive', 'belloch-drive-d4', 'dhcp-mac', 'H2'),
  ],
  cables: [
    ['drive', 'station'],
    ['switch', 'drive'],
    ['station', 'camera'],
  ].map(([from = '', to = '']) => ({
    ...{ id: `${from}-${to}`, note: '' },
    ...{ from: { deviceId: from, port: '1' }, to: { deviceId: to, port: '2' } },
  })),
});

test('what a plan says of its calls: cabinets in its order, settings, factory addresses', () => {
  const calls = roundCalls(PLAN, new Set(['camera-at', 'station-at', 'drive-at']));
  expect(calls.map(({ deviceId, cabinet }) => [deviceId, cabinet])).toEqual([
    ['camera', 1],
    ['station', 1],
    ['drive', 0],
  ]);
  const [camera, station, drive] = calls;
  expect(station).toMatchObject({ laptop: undefined, factory: undefined });
  expect(drive).toMatchObject({ laptop: 'hall', factory: undefined });
  expect(camera?.laptop).toMatch(/^hall \d+$/);
  expect(camera?.factory).toMatch(/^hall \d+$/);
});

test('who hangs behind whom, seen from the infrastructure', () => {
  expect([...chainsOf(PLAN)].map(([id, behind]) => [id, [...behind].sort()])).toEqual([
    ['station', ['camera']],
    ['drive', ['camera', 'station']],
    ['switch', ['camera', 'drive', 'station']],
  ]);
});

test('what to carry', () => {
  expect(carriedFor(PLAN, new Set(['camera', 'station']))).toEqual([
    { what: 'cable', for: ['camera', 'station'] },
    { what: 'screwdriver', for: ['station'] },
  ]);
  expect(carriedFor(PLAN, new Set())).toEqual([]);
});
