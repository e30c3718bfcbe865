import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { readEds } from '../../src/describe';
import type { Issue } from '../../src/net';
import { docOf, readThing } from '../../src/plan';

// Hand-written data sheets with what real ones do wrong, the expected beside each.

const FOLDER = join(__dirname, '../data/descriptions');
const files = readdirSync(FOLDER).filter((file) => file.endsWith('.eds'));

/** As older editors write them where they are no UTF-8. */
function textOf(file: string): string {
  const bytes = readFileSync(join(FOLDER, file));
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}

test.each(files)('%s is read as is written beside it', (file) => {
  const wanted = JSON.parse(readFileSync(join(FOLDER, file.replace('.eds', '.json')), 'utf8')) as
    string | { readonly kind: object; readonly unread: readonly unknown[] };
  const read = readEds(textOf(file));
  if (typeof read === 'string' || typeof wanted === 'string') {
    expect(read).toBe(wanted);
    return;
  }
  const [kind] = read.kinds;
  if (!kind) throw new Error('no kind');
  expect(kind).toMatchObject(wanted.kind);
  expect(read.unread.map((one) => [one.line, one.why])).toEqual(wanted.unread);
  // What was read is a kind that a plan can carry.
  const issues: Issue[] = [];
  readThing('kind', docOf('kind', kind), 'kind', issues);
  expect(issues).toEqual([]);
});

test('a file of ten megabytes is read, and of its faults the first are told', () => {
  const head = '[Device]\n VendCode = 65206;\n ProdCode = 3;\n ProdName = "Large";\n[Params]\n';
  const line = ' Param_ = 0, "a text that goes on and on and on" $ comment\n';
  const text = head + line.repeat(Math.ceil(10_000_000 / line.length));
  const read = readEds(text);
  if (typeof read === 'string') throw new Error(read);
  expect(read.kinds[0]?.name).toBe('Large');
  expect(read.unread.length).toBe(200);
});
