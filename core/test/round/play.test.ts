import fc from 'fast-check';
import { must, parseIpv4 } from '../../src/net';
import { toDevice, toInterface, toPlan, type Way } from '../../src/plan';
import {
  estimateRound,
  orderRound,
  playRound,
  roundCalls,
  USUAL_PACE,
  workOf,
  type Played,
  type PlayWish,
  type Work,
  type WorkPart,
} from '../../src/round';
import { siteOf } from '../snags/big-site';
import { cases } from '../cases';

// R-PLAY: the round played without anybody, held against the plainest play there is: second by second.

const { walk: WALK, walkFar: FAR, plug: PLUG } = USUAL_PACE;

/** A reference of a few lines: each second everybody looks once more whether there is something to do. */
function secondBySecond(
  round: readonly Work[],
  { people, laptops = 1 }: PlayWish,
): Played['seconds'] {
  const stops: {
    area: string;
    cabinet: number;
    calls: { work: Work; done: number; left: number }[];
  }[] = [];
  for (const work of round) {
    const call = { work, done: 0, left: 0 };
    if (stops.at(-1)?.cabinet === work.cabinet) stops.at(-1)?.calls.push(call);
    else stops.push({ area: work.area, cabinet: work.cabinet, calls: [call] });
  }
  type Call = (typeof stops)[number]['calls'][number];
  const all = Array.from({ length: laptops }, () => ({
    ...{ place: undefined as string | undefined, users: 0, plugging: 0 },
  }));
  const held = new Map<string, Call>();
  const crew = Array.from({ length: people }, () => ({
    ...{
      area: undefined as string | undefined,
      stop: undefined as (typeof stops)[number] | undefined,
    },
    ...{
      left: 0,
      call: undefined as Call | undefined,
      with: undefined as (typeof all)[number] | undefined,
      gone: false,
      next: undefined as (typeof stops)[number] | undefined,
    },
  }));
  let gone = 0;
  const isWhole = ({ work, done }: Call) => done === work.parts.length;
  const finish = (call: Call) => {
    call.done += 1;
    const part = call.work.parts[call.done];
    call.left = part?.busy === 'device' ? part.seconds : 0;
    if (isWhole(call) && call.work.factory !== undefined) held.delete(call.work.factory);
  };
  const taken = (call: Call) =>
    call.work.factory !== undefined && (held.get(call.work.factory) ?? call) !== call;
  const needed = (place: string | undefined) =>
    crew.some(({ stop }) =>
      stop?.calls.some((call) => call.work.laptop === place && !isWhole(call) && !taken(call)),
    );
  const acts = (one: (typeof crew)[number]): boolean => {
    if (one.left > 0 || one.gone) return false;
    if (!one.stop) {
      const stop = stops[gone];
      if (!stop) return (one.gone = true);
      gone += 1;
      one.left = one.area === stop.area ? WALK : FAR;
      one.area = stop.area;
      one.next = stop;
      return true;
    }
    for (const call of one.stop.calls) {
      const part = call.work.parts[call.done];
      if (!part || part.busy === 'device' || crew.some((other) => other.call === call)) continue;
      const { factory, laptop } = call.work;
      if (taken(call)) continue;
      const there = all.find(({ place }) => laptop === undefined || place === laptop);
      const other = all.find(
        ({ place, users, plugging }) => users === 0 && plugging === 0 && !needed(place),
      );
      const mine = part.busy === 'laptop' ? (there ?? other) : undefined;
      if (part.busy === 'laptop' && (!mine || mine.plugging > 0)) continue;
      if (factory !== undefined) held.set(factory, call);
      const plugs = mine && laptop !== undefined && mine.place !== laptop;
      if (mine) mine.users += 1;
      if (mine && plugs) Object.assign(mine, { place: laptop, plugging: PLUG });
      Object.assign(one, { call, with: mine, left: part.seconds + (plugs ? PLUG : 0) });
      return true;
    }
    if (!one.stop.calls.every(isWhole)) return false;
    one.stop = undefined;
    return true;
  };
  for (let now = 0; now < 1e6; now += 1) {
    while (crew.some(acts));
    if (crew.every(({ gone }) => gone)) return now;
    const starting = stops.flatMap(({ calls }) => calls).filter(({ left }) => left > 0);
    for (const call of starting) if ((call.left -= 1) === 0) finish(call);
    for (const one of all) one.plugging = Math.max(0, one.plugging - 1);
    for (const one of crew) {
      if (one.left === 0 || (one.left -= 1) > 0) continue;
      if (one.next) [one.stop, one.next] = [one.next, undefined];
      else if (one.call) {
        if (one.with) one.with.users -= 1;
        const { call } = one;
        one.call = undefined;
        finish(call);
      }
    }
  }
  return NaN;
}

const part = fc.record({
  busy: fc.constantFrom<WorkPart['busy']>('hands', 'laptop', 'device'),
  seconds: fc.integer({ min: 1, max: 40 }),
});
const round = fc.array(
  fc.record({
    cabinet: fc.integer({ min: 0, max: 3 }),
    laptop: fc.constantFrom(undefined, 'hall', 'feed'),
    factory: fc.constantFrom(undefined, undefined, 'one', 'two'),
    // Nothing begins by itself: somebody gives it power.
    parts: fc
      .array(part, { maxLength: 4 })
      .map((parts): readonly WorkPart[] => [{ busy: 'hands', seconds: 5 }, ...parts]),
  }),
  { maxLength: 12 },
);

test('the same time as second by second, for small rounds of any kind', () => {
  fc.assert(
    fc.property(
      ...([round, fc.integer({ min: 1, max: 4 }), fc.integer({ min: 1, max: 2 })] as const),
      (calls, people, laptops) => {
        const works = calls.map((one, at): Work => ({
          ...one,
          ...{ id: String(at), area: one.cabinet < 2 ? 'hall' : 'yard' },
        }));
        const wish = { people, laptops };
        const played = playRound(works, wish);
        expect(played.seconds).toBe(secondBySecond(works, wish));
        for (const { worked, walked, waited, doneAt } of played.people)
          expect(worked + walked + waited.device + waited.laptop + waited.factory).toBe(doneAt);
        expect(played.stops.reduce((sum, { calls: count }) => sum + count, 0)).toBe(works.length);
      },
    ),
    { numRuns: cases(200), seed: 29 },
  );
});

test('and for fifty plans, as they would be walked', () => {
  for (let size = 1; size <= 50; size += 1) {
    const plan = siteOf(size);
    const ids = new Set(plan.devices.flatMap((one) => one.interfaces.map(({ id }) => id)));
    const works = workOf(plan, orderRound(roundCalls(plan, ids)));
    const people = 1 + (size % 4);
    expect(playRound(works, { people }).seconds).toBe(secondBySecond(works, { people }));
  }
});

const work = (id: string, cabinet: number, fields: Partial<Work> = {}): Work => ({
  ...{ id, cabinet, area: 'hall', laptop: undefined, factory: undefined },
  parts: [
    { busy: 'hands', seconds: 10 },
    { busy: 'device', seconds: 30 },
    { busy: 'hands', seconds: 5 },
  ],
  ...fields,
});

test('while one device starts the next is switched on', () => {
  const { seconds, people } = playRound([work('a', 0), work('b', 0)], { people: 1 });
  // 120 s to the first cabinet; a: 0–10, b: 10–20, a again at 40, b again at 50.
  expect(seconds).toBe(FAR + 55);
  expect(people[0]?.waited).toEqual({ device: 25, laptop: 0, factory: 0 });
});

test('two that come with one address are never fresh at once, and whoever waits for it is told', () => {
  const works = [work('a', 0, { factory: 'one' }), work('b', 1, { factory: 'one' })];
  const { seconds, people } = playRound(works, { people: 2 });
  expect(seconds).toBe(FAR + 45 + 45);
  expect(people[1]?.waited.factory).toBe(45);
});

test('a laptop is in one socket at a time', () => {
  const laptop: readonly WorkPart[] = [{ busy: 'laptop', seconds: 10 }];
  const works = [
    work('a', 0, { laptop: 'hall', parts: laptop }),
    work('b', 1, { laptop: 'feed', parts: laptop }),
  ];
  expect(playRound(works, { people: 2 }).seconds).toBe(FAR + 2 * (PLUG + 10));
  expect(playRound(works, { people: 2, laptops: 2 }).seconds).toBe(FAR + PLUG + 10);
  expect(playRound(works, { people: 2 }).people[1]?.waited.laptop).toBe(PLUG + 10);
});

test('who works where it is plugged in uses it beside the other', () => {
  const laptop: readonly WorkPart[] = [{ busy: 'laptop', seconds: 10 }];
  const there = { laptop: 'hall', parts: laptop };
  const { seconds, people } = playRound([work('a', 0, there), work('b', 1, there)], { people: 2 });
  expect(seconds).toBe(FAR + PLUG + 10);
  expect(people[1]?.waited.laptop).toBe(PLUG);
});

test('nothing to do takes no time', () => {
  expect(playRound([], { people: 3 })).toMatchObject({ seconds: 0, stops: [] });
  expect(estimateRound(toPlan({}), { people: 1 })).toMatchObject({
    calls: 0,
    seconds: 0,
    savings: [],
  });
});

test('an estimate: every call in one cabinet’s time, and what would save how much', () => {
  const plan = siteOf(60);
  const one = estimateRound(plan, { people: 1 });
  const two = estimateRound(plan, { people: 2 });
  expect(one.calls).toBe(plan.devices.flatMap(({ interfaces }) => interfaces).length);
  expect(one.cabinets.reduce((sum, { calls }) => sum + calls, 0)).toBe(one.calls);
  expect(two.seconds).toBeLessThanOrEqual(one.seconds);
  const saved = new Map(one.savings);
  expect(saved.get('person')).toBe(one.seconds - two.seconds);
  // The order is the best already.
  expect(saved.has('order')).toBe(false);
  const [first] = plan.devices;
  const mistakes = new Set([first?.interfaces[0]?.id ?? '']);
  expect(estimateRound(plan, { people: 1, mistakes }).seconds).toBeGreaterThan(one.seconds);
});

test('another order is played as it is said, and what the best would save is told', () => {
  const plan = siteOf(40);
  const best = estimateRound(plan, { people: 1 });
  const ids = plan.devices.flatMap(({ interfaces }) => interfaces.map(({ id }) => id));
  const mixed = ids.toSorted((a, b) =>
    a.split('').reverse().join('').localeCompare(b.split('').reverse().join('')),
  );
  const other = estimateRound(plan, { people: 1, order: mixed });
  expect(other.calls).toBe(best.calls);
  expect(new Map(other.savings).get('order') ?? 0).toBe(Math.max(0, other.seconds - best.seconds));
});

// R-PLAY-TIMES: what each way keeps busy, from the box to an address that stays (common practice, no source).
test.each<[Way, string, readonly WorkPart['busy'][]]>([
  [
    'bootp',
    'tarnwick-valves-16',
    ['hands', 'device', 'laptop', 'laptop', 'hands', 'device', 'laptop'],
  ],
  ['switches', 'wendle-station-20', ['hands', 'hands', 'device', 'laptop']],
  ['dhcp-port', 'belloch-drive-d4', ['hands', 'device', 'laptop', 'laptop']],
  ['layer2-name', 'eldrup-block-8', ['hands', 'device', 'laptop', 'laptop']],
  ['keypad', 'belloch-drive-d4', ['hands', 'device', 'hands', 'hands', 'device', 'laptop']],
  ['card', 'other-device', ['hands', 'hands', 'device', 'laptop']],
  ['web-page', 'other-device', ['hands', 'device', 'laptop', 'hands', 'device', 'laptop']],
])('%s of a %s', (way, kindId, busy) => {
  const plan = toPlan({
    devices: [
      {
        ...toDevice({ id: 'd', title: 'D', name: 'd', kindId, way }),
        interfaces: [
          toInterface({
            id: 'at',
            deviceId: 'd',
            subnetId: 's',
            address: must(parseIpv4('10.0.0.9')),
          }),
        ],
      },
    ],
  });
  const calls = roundCalls(plan, new Set(['at']));
  const [fresh] = workOf(plan, calls);
  expect(fresh?.parts.map((one) => one.busy)).toEqual(busy);
  const sum = (parts: readonly WorkPart[] = []) => parts.reduce((all, one) => all + one.seconds, 0);
  // Bound at the desk no label is read; at a mistake one searches.
  const [bound] = workOf(plan, calls, { isBound: true });
  const isAsking = way === 'bootp';
  expect(sum(fresh?.parts) - sum(bound?.parts)).toBe(isAsking ? USUAL_PACE.label : 0);
  const [faulty] = workOf(plan, calls, { mistakes: new Set(['at']) });
  expect(sum(faulty?.parts) - sum(fresh?.parts)).toBe(USUAL_PACE.mistake);
});
