import fc from 'fast-check';
import {
  applyEdits,
  docFromThings,
  docOfPlan,
  planOf,
  THING_TYPES,
  type Edit,
  type PlanDoc,
} from '../../src/plan';
import { ThingMap, type ThingDoc } from '../../src/plan/thing-map';
import { cases } from '../cases';
import { siteOf } from '../snags/big-site';

// A table of things that shares with the one before what is the same, held against a plain map.

type Step =
  | { readonly kind: 'set' | 'remove' | 'add' | 'again'; readonly id: string; readonly to: number }
  /** Goes on from an earlier state: as whoever tries an edit and leaves it. */
  | { readonly kind: 'back'; readonly to: number };

const ids = fc.constantFrom(...'abcdefghij'.split(''));
const steps: fc.Arbitrary<readonly Step[]> = fc.array(
  fc.oneof(
    fc.record({
      kind: fc.constantFrom('set' as const, 'remove' as const, 'add' as const, 'again' as const),
      id: ids,
      to: fc.nat(99),
    }),
    fc.record({ kind: fc.constant('back' as const), to: fc.nat(99) }),
  ),
  { maxLength: 40 },
);

function after(
  map: ThingMap,
  plain: ReadonlyMap<string, ThingDoc>,
  { id, kind, to }: Exclude<Step, { kind: 'back' }>,
) {
  const thing = { id, to };
  const next = new Map(plain);
  if (kind === 'remove') {
    next.delete(id);
    return { map: map.with(new Map(), new Set([id])), plain: next };
  }
  if (kind === 'again') next.delete(id);
  next.set(id, thing);
  const removed = new Set(kind === 'again' ? [id] : []);
  return { map: map.with(new Map([[id, thing]]), removed), plain: next };
}

test('seeded: every state is what a plain map would be, also where several went on from one', () => {
  fc.assert(
    fc.property(steps, (all) => {
      const states: { map: ThingMap; plain: ReadonlyMap<string, ThingDoc> }[] = [
        { map: ThingMap.of([{ id: 'a', to: 0 }]), plain: new Map([['a', { id: 'a', to: 0 }]]) },
      ];
      for (const step of all) {
        const last = states.at(-1) as (typeof states)[number];
        const from = states[(step.kind === 'back' ? step.to : 0) % states.length];
        if (step.kind === 'back' && from) states.push(from);
        else if (step.kind !== 'back') states.push(after(last.map, last.plain, step));
      }
      for (const { map, plain } of states) {
        expect([...map]).toEqual([...plain]);
        expect([...map.keys(), map.size]).toEqual([...plain.keys(), plain.size]);
        for (const id of 'abcdefghijk') {
          expect(map.get(id)).toBe(map.list.find((one) => one.id === id));
          expect([map.get(id), map.has(id)]).toEqual([plain.get(id), plain.has(id)]);
        }
      }
    }),
    { numRuns: cases(60), seed: 815 },
  );
});

test('of two things with one id the last counts, at the place of the first', () => {
  const map = ThingMap.of([
    { id: 'a', n: 1 },
    { id: 'b', n: 2 },
    { id: 'a', n: 3 },
  ]);
  expect([...map.values()]).toEqual([
    { id: 'a', n: 3 },
    { id: 'b', n: 2 },
  ]);
  const told: string[] = [];
  map.forEach((_thing, id) => told.push(id));
  expect(told).toEqual(['a', 'b']);
});

const first = docOfPlan(siteOf(40, 12));

const again = (doc: PlanDoc): PlanDoc =>
  docFromThings(
    THING_TYPES.flatMap((type) =>
      Array.from(doc[type].values(), (thing) => [type, { ...thing }] as const),
    ),
  );

function editOf(doc: PlanDoc, kind: string, at: number): readonly Edit[] {
  const pick = (type: 'device' | 'interface'): ThingDoc => {
    const list = doc[type].list;
    return list[at % list.length] as ThingDoc;
  };
  const device = pick('device');
  const face = pick('interface');
  const moved = { ...face, id: `${face.id}-${at}`, address: '10.20.0.250' };
  switch (kind) {
    case 'title':
      return [
        {
          op: 'set',
          type: 'device',
          id: device.id,
          field: 'title',
          from: device['title'] ?? null,
          to: `t${at}`,
        },
      ];
    case 'mac':
      return [
        {
          op: 'set',
          type: 'interface',
          id: face.id,
          field: 'mac',
          from: face['mac'] ?? null,
          to: `02:00:5e:00:53:${(at % 90) + 10}`,
        },
      ];
    case 'owner':
      return [
        {
          op: 'set',
          type: 'interface',
          id: face.id,
          field: 'deviceId',
          from: face['deviceId'] ?? null,
          to: device.id,
        },
      ];
    case 'add':
      return doc.interface.has(moved.id) ? [] : [{ op: 'add', type: 'interface', thing: moved }];
    case 'remove':
      return [{ op: 'remove', type: 'interface', thing: face }];
    default:
      return [{ op: 'remove', type: 'device', thing: device }];
  }
}

test('seeded: a plan that is brought forward by edits is the plan that is read anew', () => {
  const kinds = fc.constantFrom('title', 'mac', 'owner', 'add', 'remove', 'remove-device');
  fc.assert(
    fc.property(fc.array(fc.tuple(kinds, fc.nat(1000)), { maxLength: 20 }), (edits) => {
      let doc = first;
      planOf(doc);
      for (const [kind, at] of edits) {
        const outcome = applyEdits(doc, editOf(doc, kind, at));
        if (!outcome.ok) throw new Error(JSON.stringify(outcome.error));
        ({ doc } = outcome.value);
        expect(planOf(doc)).toEqual(planOf(again(doc)));
      }
    }),
    { numRuns: cases(12), seed: 1963 },
  );
});
