import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { causeWords, COUNTERSIGN_WORDS, SIGN_WORDS } from '@ipsonomo/language/causes';
import { CAUSES } from '../src/causes';
import { SNAG_RULES } from '../src/snags';

const ROOT = join(__dirname, '../..');
const read = (path: string) => readFileSync(join(ROOT, path), 'utf8');

/** `| id | rule | source | code | test |`, the last two with files in backticks. */
const rows = read('docs/RULES.md')
  .split('\n')
  .filter((line) => line.startsWith('| R-'))
  .map((line) => line.split(' | '))
  .map((cells) => {
    const files = (cell: string | undefined) =>
      [...(cell ?? '').matchAll(/`([^`]+\/[^`]+\.ts)`/g)].map(([, path = '']) => path);
    return [cells[0]?.slice(2) ?? '', files(cells.at(-2)), files(cells.at(-1))] as const;
  });

test('docs/RULES.md has its rules', () => {
  expect(rows.length).toBeGreaterThan(40);
});

test.each(rows)('%s stands in %j and in %j', (id, code, tests) => {
  for (const paths of [code, tests]) {
    expect(paths.filter((path) => !existsSync(join(ROOT, path)))).toEqual([]);
    expect([paths, paths.some((path) => read(path).includes(id))]).toEqual([paths, true]);
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

test('docs/RULES.md lists every cause with what it needs, what excludes it, what it explains and its test', () => {
  const words: Readonly<Record<string, string>> = { ...SIGN_WORDS, ...COUNTERSIGN_WORDS };
  const cell = (signs: readonly string[]) => signs.map((sign) => words[sign]).join('; ') || '–';
  const wanted = CAUSES.map(({ id, needs, excludes, explains }) => {
    const { title, test: how } = causeWords(id);
    return [`\`${id}\``, title, cell(needs), cell(excludes), cell(explains), how].join(' | ');
  });
  const listed = read('docs/RULES.md')
    .split('\n')
    .filter((line) => /^\| `[a-z0-9-]+` \| .+( \| .+){4} \|$/.test(line))
    .map((line) => line.slice(2, -2));
  expect(listed).toEqual(wanted);
});
