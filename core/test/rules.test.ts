import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { SNAG_RULES } from '../src';

const ROOT = join(__dirname, '../..');
const read = (path: string) => readFileSync(join(ROOT, path), 'utf8');

/** `| id | rule | source | `code` | `test` |` */
const ROW = /^\| (R-[A-Z0-9-]+) \| .+ \| .+ \| `([^`]+)` \| `([^`]+)` \|$/gm;
const rows = [...read('docs/RULES.md').matchAll(ROW)].map(
  ([, id = '', code = '', test = '']) => [id, code, test] as const,
);

test('docs/RULES.md has its rules', () => {
  expect(rows.length).toBeGreaterThan(15);
});

test.each(rows)('%s stands in %s and in %s', (id, code, test) => {
  for (const path of [code, test]) {
    expect([path, existsSync(join(ROOT, path))]).toEqual([path, true]);
    expect([path, read(path).includes(id)]).toEqual([path, true]);
  }
});

/** `| id | severity | fires | does not | source |` */
const SNAG_ROW = /^\| (S-[A-Z0-9-]+) \| (wrong|doubtful|hint) \| .+ \| .+ \| .+ \|$/gm;

test('docs/RULES.md lists every snag with its severity, a plan, a near miss and a source', () => {
  const listed = [...read('docs/RULES.md').matchAll(SNAG_ROW)].map(([, id, severity]) => [
    id,
    severity,
  ]);
  expect(listed).toEqual(Object.entries(SNAG_RULES));
});
