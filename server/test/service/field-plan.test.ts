import fc from 'fast-check';
import { formatIpv4, toIpv4 } from '@ipsonomo/core/net';
import {
  applyEdits,
  docOfPlan,
  planOf,
  type Edit,
  type Evidence,
  type Json,
  type PlanDoc,
} from '@ipsonomo/core/plan';
import { cases } from '../../../core/test/cases';
import { siteOf } from '../../../core/test/snags/big-site';
import { type FieldPlan, planAfterNews, planNews } from '../../../wire/src/protocol';
import { FieldPlanBook } from '../../src/service/field-plan';

// What the wire is told of a plan: brought forward by what changed, it is what is made of the whole anew.

const BEGUN = 1_764_400_000_000; // ms since 1970
const first = docOfPlan(siteOf(60, 12));

type Step =
  | { readonly kind: 'title' | 'address' | 'remove' | 'loan' | 'controller'; readonly at: number }
  | { readonly kind: 'gateway' | 'evidence' | 'time'; readonly at: number };

const step: fc.Arbitrary<Step> = fc.record({
  kind: fc.constantFrom(
    ...(['title', 'address', 'remove', 'loan', 'controller'] as const),
    ...(['gateway', 'evidence', 'time'] as const),
  ),
  at: fc.nat(1000),
});

const set = (
  doc: PlanDoc,
  type: 'device' | 'interface' | 'subnet',
  id: string,
  field: string,
  to: Json,
): Edit => ({ op: 'set', type, id, field, from: doc[type].get(id)?.[field] ?? null, to });

function editsOf(doc: PlanDoc, { kind, at }: Step): readonly Edit[] {
  const pick = (ids: Iterable<string>) => {
    const all = [...ids];
    return all[at % all.length] ?? '';
  };
  const device = pick(doc.device.keys());
  const face = pick(doc.interface.keys());
  const address = formatIpv4(toIpv4(0x0a140000 + 2 + (at % 240)));
  switch (kind) {
    case 'title':
      return [set(doc, 'device', device, 'title', `title ${at}`)];
    case 'address':
      return [set(doc, 'interface', face, 'address', address)];
    case 'controller':
      return [set(doc, 'device', device, 'controllerId', pick(doc.device.keys()))];
    case 'loan':
      return [set(doc, 'interface', face, 'loan', { address, until: BEGUN + at * 1000 })];
    case 'gateway':
      return [set(doc, 'subnet', pick(doc.subnet.keys()), 'gateway', null)];
    case 'remove':
      return [...doc.interface.values()]
        .filter((one) => one['deviceId'] === device)
        .map((thing): Edit => ({ op: 'remove', type: 'interface', thing }))
        .concat({ op: 'remove', type: 'device', thing: doc.device.get(device) ?? { id: device } });
    default:
      return [];
  }
}

const seen = (at: number, number: number): Evidence => ({
  ...(number % 2 === 0
    ? { kind: 'asked' as const, facts: { message: `${at}` } }
    : { kind: 'has-address' as const, facts: {} }),
  ...{ id: String(number), at: BEGUN + number },
  ...{ mac: undefined, address: undefined, source: 'practice', person: '' },
});

test('seeded: brought forward it is what is made anew, and what the wire was told comes to the same', () => {
  fc.assert(
    fc.property(fc.array(step, { maxLength: 25 }), (steps) => {
      const book = new FieldPlanBook();
      let doc = first;
      let evidence: ReadonlyMap<string, readonly Evidence[]> = new Map();
      let now = BEGUN;
      let told: FieldPlan | undefined;
      let sent: FieldPlan | undefined;
      for (const [number, one] of steps.entries()) {
        const outcome = applyEdits(doc, editsOf(doc, one));
        if (!outcome.ok) throw new Error(JSON.stringify(outcome.error));
        ({ doc } = outcome.value);
        if (one.kind === 'time') now += one.at * 1000;
        if (one.kind === 'evidence') {
          const ids = [...doc.interface.keys()];
          const id = ids[one.at % ids.length] ?? '';
          const list = [...(evidence.get(id) ?? []), seen(one.at, number)];
          evidence = new Map(evidence).set(id, list);
        }
        const plan = planOf(doc);
        const made = book.of('job', plan, evidence, now);
        expect(made).toEqual(new FieldPlanBook().of('job', plan, evidence, now));
        told = planAfterNews(told, planNews(made, sent?.targets));
        sent = made;
        const byId = (all: FieldPlan) =>
          all.targets.toSorted((a, b) => (a.interfaceId < b.interfaceId ? -1 : 1));
        expect(byId(told)).toEqual(byId(made));
      }
    }),
    { numRuns: cases(20), seed: 4711 },
  );
});

test('one edit: one target is made anew and told, whatever the size of the plan', () => {
  const book = new FieldPlanBook();
  const before = book.of('job', planOf(first), new Map(), BEGUN);
  const id = [...first.device.keys()][7] ?? '';
  const outcome = applyEdits(first, [set(first, 'device', id, 'title', 'another')]);
  if (!outcome.ok) throw new Error('refused');
  const after = book.of('job', planOf(outcome.value.doc), new Map(), BEGUN);
  const news = planNews(after, before.targets);
  expect(news.targets.map(({ title }) => title)).toEqual(['another']);
  expect(news.gone).toEqual([]);
  // Nothing that counts changed: not even a list is made anew.
  expect(book.of('job', planOf(outcome.value.doc), new Map(), BEGUN + 1)).toBe(after);
});

test('another job has nothing of the one before', () => {
  const book = new FieldPlanBook();
  book.of('one', planOf(first), new Map(), BEGUN);
  const other = book.of('other', planOf(first), new Map(), BEGUN);
  expect(new Set(other.targets.map(({ jobId }) => jobId))).toEqual(new Set(['other']));
});
