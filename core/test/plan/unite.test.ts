import {
  applyEdits,
  diffDocs,
  docFromThings,
  docOfPlan,
  THING_TYPES,
  unite,
  type Edit,
  type Json,
  type PlanDoc,
  type RevisionMade,
  type ThingDoc,
} from '../../src/plan';
import { siteOf } from '../snags/big-site';

// R-UNITE: laptops that were apart end with the same plan and the same clashes, in whatever order they meet.

const site = docOfPlan(siteOf(12, 5));
const base = docFromThings(site.device.list.map((thing) => ['device', thing] as const));

/** Numbers that come again: mulberry32, public domain (from memory). */
function numbers(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32;
  };
}

const setting = (doc: PlanDoc, id: string, field: string, to: Json): readonly Edit[] => {
  const from = doc.device.get(id)?.[field] ?? null;
  return [{ op: 'set', type: 'device', id, field, from, to }];
};

let serial = 0;
const made = (
  edits: readonly Edit[],
  fields: Partial<Omit<RevisionMade, 'edits'>> = {},
): RevisionMade => ({
  ...{ id: `r${(serial += 1)}`, depth: 1, at: serial, person: 'Mara Quist', edits },
  ...fields,
});

/** What matters of a plan: the things, in no order. */
const plain = (doc: PlanDoc) =>
  THING_TYPES.map((type) =>
    Array.from(doc[type].values(), (thing) => JSON.stringify(Object.entries(thing).sort())).sort(),
  );

/** One of the laptops: it knows its own revisions and those that were brought to it. */
class Laptop {
  known: readonly RevisionMade[] = [];
  doc = base;

  constructor(
    private readonly person: string,
    private readonly random: () => number,
  ) {}

  /** Changes something, as its people see the plan. */
  change(): void {
    const edits = this.some();
    const outcome = applyEdits(this.doc, edits);
    if (!outcome.ok) throw new Error('own edits clash');
    const { doc, applied } = outcome.value;
    if (applied.length === 0) return;
    const depth = 1 + Math.max(0, ...this.known.map((one) => one.depth));
    // Their clocks are anything.
    const at = Math.floor(this.random() * 1000);
    this.known = [...this.known, made(applied, { depth, at, person: this.person })];
    this.doc = doc;
  }

  take(other: Laptop): void {
    const all = [...this.known, ...other.known];
    const once = [...new Map(all.map((one) => [one.id, one])).values()];
    this.known = shuffled(once, this.random);
    const edits = diffDocs(this.doc, unite(base, this.known).doc);
    const outcome = applyEdits(this.doc, edits);
    if (!outcome.ok) throw new Error('what was united cannot be written');
    this.doc = outcome.value.doc;
  }

  private some(): readonly Edit[] {
    const pick = <T>(all: readonly T[]): T => all[Math.floor(this.random() * all.length)] as T;
    const device = pick(this.doc.device.list.slice(0, 3));
    const turn = this.random();
    const word = `${this.person} ${Math.floor(this.random() * 4)}`;
    if (turn < 0.4) return setting(this.doc, device.id, 'title', word);
    if (turn < 0.7) return setting(this.doc, device.id, 'cabinet', pick(['FH1', 'FH2', word]));
    if (turn < 0.8 && this.doc.device.list.length > 6)
      return [{ op: 'remove', type: 'device', thing: device }];
    const gone = base.device.list.find(({ id }) => !this.doc.device.has(id));
    const thing: ThingDoc = gone ?? { ...device, id: `new-${word}-${this.known.length}` };
    return [{ op: 'add', type: 'device', thing }];
  }
}

function shuffled<T>(all: readonly T[], random: () => number): readonly T[] {
  return all
    .map((one) => [random(), one] as const)
    .sort(([a], [b]) => a - b)
    .map(([, one]) => one);
}

const CASES = Number(process.env['IPSONOMO_SOAK'] ?? 1) * 100;

test(`${CASES} histories on three laptops that meet in any order end with one plan and the same clashes`, () => {
  let clashes = 0;
  for (let seed = 1; seed <= CASES; seed += 1) {
    const random = numbers(seed);
    const laptops = ['Mara', 'Ilse', 'Ova'].map((person) => new Laptop(person, random));
    const any = () => laptops[Math.floor(random() * 3)] as Laptop;
    for (let step = 0; step < 40; step += 1)
      if (random() < 0.75) any().change();
      else any().take(any());
    // In a chain, in any order: after two turns everybody has heard of everything.
    for (let turn = 0; turn < 2; turn += 1)
      for (const [to, from] of shuffled(
        [
          [0, 1],
          [1, 2],
          [2, 1],
          [1, 0],
        ] as const,
        random,
      ))
        laptops[to]?.take(laptops[from] as Laptop);
    for (const one of laptops) for (const other of laptops) one.take(other);
    const [first, ...others] = laptops.map((one) => [
      plain(one.doc),
      unite(base, one.known).clashes,
    ]);
    for (const other of others) expect(other).toEqual(first);
    clashes += (first?.[1] as readonly unknown[]).length;
    // And once more changes nothing.
    const [one, other] = laptops as [Laptop, Laptop];
    const before = one.doc;
    one.take(other);
    expect(one.doc).toBe(before);
  }
  // Laws about clashes that never come prove nothing.
  expect(clashes).toBeGreaterThan(CASES);
});

const DEVICE = base.device.list[0]?.id ?? '';
const OTHER = base.device.list[1]?.id ?? '';
const united = (...all: readonly RevisionMade[]) => unite(base, all);
const title = (doc: PlanDoc, id = DEVICE) => doc.device.get(id)?.['title'];
const mara = { person: 'Mara', depth: 1, at: 10 };
const ilse = { person: 'Ilse', depth: 1, at: 20 };

test('fields of one device, changed by two who did not know of each other, are both there', () => {
  const { doc, clashes } = united(
    made(setting(base, DEVICE, 'title', 'a'), mara),
    made(setting(base, DEVICE, 'cabinet', 'b'), ilse),
  );
  expect(doc.device.get(DEVICE)).toMatchObject({ title: 'a', cabinet: 'b' });
  expect(clashes).toEqual([]);
});

test('the same field: the later one stands, the other is told with who and when', () => {
  const { doc, clashes } = united(
    made(setting(base, DEVICE, 'title', 'b'), ilse),
    made(setting(base, DEVICE, 'title', 'a'), mara),
  );
  expect(title(doc)).toBe('b');
  expect(clashes).toMatchObject([
    {
      ...{ type: 'device', id: DEVICE, field: 'title' },
      ...{ stands: { person: 'Ilse', at: 20, value: 'b' }, lost: { person: 'Mara', value: 'a' } },
    },
  ]);
});

test('both wanted the same: nothing is told', () => {
  const both = [mara, ilse].map((who) => made(setting(base, DEVICE, 'title', 'a'), who));
  expect(united(...both)).toMatchObject({ clashes: [] });
});

test('whoever saw both decides it; whoever says the same without having seen it does not', () => {
  const clash = [
    made(setting(base, DEVICE, 'title', 'a'), mara),
    made(setting(base, DEVICE, 'title', 'b'), ilse),
  ];
  const { doc } = united(...clash);
  const decided = made(setting(doc, DEVICE, 'title', 'a'), { person: 'Ova', depth: 2 });
  expect(united(...clash, decided)).toMatchObject({ clashes: [] });
  const unseen = made(setting(base, DEVICE, 'title', 'b'), { person: 'Ova', depth: 2 });
  expect(united(...clash, unseen).clashes).toHaveLength(1);
});

test('removed by one and changed by the other: it is gone, and what was changed is told', () => {
  const thing = base.device.get(DEVICE) as ThingDoc;
  const removal: readonly Edit[] = [{ op: 'remove', type: 'device', thing }];
  const change = setting(base, DEVICE, 'title', 'a');
  for (const [first, second] of [
    [made(removal, mara), made(change, ilse)],
    [made(change, mara), made(removal, ilse)],
  ] as const) {
    const { doc, clashes } = united(first, second);
    expect(doc.device.has(DEVICE)).toBe(false);
    expect(clashes).toHaveLength(1);
    expect(clashes[0]?.stands.value).toBeUndefined();
    const back = made([{ op: 'add', type: 'device', thing }], { person: 'Ova', depth: 2 });
    const after = united(first, second, back);
    expect([after.doc.device.has(DEVICE), after.clashes]).toEqual([true, []]);
  }
});

test('what one did one after the other stays in its order, whatever the clock said', () => {
  const first = made(setting(base, OTHER, 'title', 'a'), { depth: 1, at: 99 });
  const second = made(
    [{ op: 'set', type: 'device', id: OTHER, field: 'title', from: 'a', to: 'b' }],
    { depth: 2, at: 1 },
  );
  expect(united(second, first)).toMatchObject({ clashes: [] });
  expect(title(united(second, first).doc, OTHER)).toBe('b');
});

test('nothing known is what there was', () => {
  expect(unite(base, []).doc).toBe(base);
  const empty = docFromThings([]);
  expect(unite(empty, []).doc).toBe(empty);
});
