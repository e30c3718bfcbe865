import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { placeOf } from '../../src/features/frame/place-of';

const PAGES = join(__dirname, '../../src/app/job/[job]');

test('each page of a job is in the group of a place, or of the wire', () => {
  const outside = readdirSync(PAGES).filter((name) => !name.startsWith('('));
  // What is around all pages, what leads to the first of them, and what is no page.
  expect(outside.sort()).toEqual(['+not-found.tsx', '_layout.tsx', 'index.tsx']);
  const groups = readdirSync(PAGES).filter((name) => name.startsWith('('));
  expect(groups.sort()).toEqual(['(assign)', '(hand-over)', '(plan)', '(prove)', '(wire)']);
  for (const group of groups) expect(readdirSync(join(PAGES, group))).not.toEqual([]);
});

test.each([
  [['job', '[job]', '(plan)', 'plan'], 'plan'],
  [['job', '[job]', '(assign)', 'call', '[interface]'], 'assign'],
  [['job', '[job]', '(prove)', 'vigil'], 'prove'],
  [['job', '[job]', '(wire)', 'wire'], undefined],
  [['job', '[job]'], undefined],
])('%j is of %s', (segments, place) => expect(placeOf(segments)).toBe(place));

/** Paths below a job that stand in a source: `/job/${job}/call/${id}` → `call`. */
const LEADS = /`\/job\/\$\{[^}]+\}\/([a-z-]+)/g;

test('every address that a screen leads to is a page', () => {
  const files = readdirSync(join(__dirname, '../../src'), { recursive: true, withFileTypes: true })
    .filter((one) => one.isFile() && /\.tsx?$/.test(one.name))
    .map((one) => readFileSync(join(one.parentPath, one.name), 'utf8'));
  const led = files.flatMap((text) => [...text.matchAll(LEADS)].map(([, page]) => page));
  expect(led.length).toBeGreaterThan(40);
  const pages = readdirSync(PAGES)
    .filter((name) => name.startsWith('('))
    .flatMap((group) => readdirSync(join(PAGES, group)))
    .map((name) => name.replace(/\.tsx$/, ''));
  expect([...new Set(led)].filter((page) => !pages.includes(page ?? ''))).toEqual([]);
});
