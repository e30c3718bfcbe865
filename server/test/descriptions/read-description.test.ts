import { unreadWords } from '@ipsonomo/language';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Issue } from '@ipsonomo/core/net';
import { docOf, readThing } from '@ipsonomo/core/plan';
import { readDescription } from '../../src/descriptions/read-description';

// Hand-written descriptions with what real and hostile ones do, the expected result beside each.

const FOLDER = join(__dirname, '../data/descriptions');
const names = readdirSync(FOLDER).flatMap((file) => /^(.+)\.xml$/.exec(file)?.[1] ?? []);

interface Wanted {
  readonly kinds: readonly (object & { readonly ways?: readonly string[] })[];
  readonly unread: readonly (readonly [line: number, text: string, why: string])[];
}

test.each(names)('%s.xml is read as is written beside it', (name) => {
  const bytes = readFileSync(join(FOLDER, `${name}.xml`));
  const wanted = JSON.parse(readFileSync(join(FOLDER, `${name}.json`), 'utf8')) as string | Wanted;
  const read = readDescription(name, bytes);
  if (!read.ok || typeof wanted === 'string') {
    expect(read.ok ? read.value : read.error.code).toBe(wanted);
    return;
  }
  const { kinds, unread } = read.value;
  expect(unread.map(({ line, text, why }) => [line, text, unreadWords(why)])).toEqual(
    wanted.unread,
  );
  expect(kinds.length).toBe(wanted.kinds.length);
  wanted.kinds.forEach(({ ways, ...fields }, at) => {
    const kind = kinds[at];
    expect(kind).toEqual(expect.objectContaining(undefinedForNull(fields)));
    if (ways) expect(kind?.ways.map(({ way }) => way)).toEqual(ways);
  });
  // What was read is a kind that a plan can carry.
  const issues: Issue[] = [];
  for (const kind of kinds) readThing('kind', docOf('kind', kind), 'kind', issues);
  expect(issues).toEqual([]);
});

/** JSON has no undefined. */
const undefinedForNull = (fields: object): object =>
  Object.fromEntries(Object.entries(fields).map(([name, value]) => [name, value ?? undefined]));

const text = (content: string) => Buffer.from(content, 'utf8');

test.each<readonly [what: string, bytes: Buffer, code: string]>([
  ['an empty file', text(''), 'file.empty'],
  ['a picture', Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 0, 0, 1]), 'file.noText'],
  ['elements a thousand deep', text('<a>'.repeat(1000)), 'file.deep'],
  ['elements without end', text(`<a>${'<b/>'.repeat(500_001)}</a>`), 'file.crowded'],
  ['a list of something else', text('<a/>'), 'file.noDevice'],
])('%s is refused', (what, bytes, code) => {
  const read = readDescription(what, bytes);
  expect(read.ok ? read.value : read.error).toMatchObject({ code, where: what });
});

test('a description of ten megabytes is read whole', () => {
  const whole = readFileSync(join(FOLDER, 'plain.xml'), 'utf8');
  const filler = '          <Text TextId="T_NUMBER" Value="a long text about nothing at all"/>\n';
  const count = Math.ceil(10_000_000 / filler.length);
  const many = Array.from({ length: count }, (_, at) => filler.replace('NUMBER', `F${at}`)).join(
    '',
  );
  const read = readDescription(
    'large',
    text(whole.replace('</PrimaryLanguage>', `${many}</PrimaryLanguage>`)),
  );
  expect(read.ok && read.value.unread).toEqual([]);
  expect(read.ok && read.value.kinds.map(({ name }) => name)).toEqual([
    'Station, 8 slots',
    'Station, 1 slot',
  ]);
});
