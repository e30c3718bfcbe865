import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { evidenceWords, issueCodes, sentenceOf, sourceWords } from '@ipsonomo/language';
import { parseIpv4, parsePrefix, type Issue, type IssueFacts } from '@ipsonomo/core/net';
import { EVIDENCE_KINDS, type EvidenceTold } from '@ipsonomo/core/plan';

const ROOT = join(__dirname, '../..');

function sourcesUnder(path: string): readonly string[] {
  return readdirSync(join(ROOT, path), { withFileTypes: true, recursive: true })
    .filter((entry) => entry.isFile() && /\.tsx?$/.test(entry.name))
    .map((entry) => readFileSync(join(entry.parentPath, entry.name), 'utf8'));
}

/** Codes as they stand in the source: whatever is refused with them must have a sentence. */
const USES =
  /(?:refuse|Refusal\.of|FieldRefusal)\(\s*'([a-z0-9]+\.[A-Za-z0-9]+)'|code: '([a-z0-9]+\.[A-Za-z0-9]+)'/g;

const ROOMS = ['core', 'contract', 'wire', 'server', 'app'].map((room) => `${room}/src`);

/** A code that is put together where it is refused with: `address.${why}`. */
const PUT_TOGETHER = ['address.outside', 'address.network', 'address.broadcast'];

test('no code is there that nobody refuses with', () => {
  const sources = ROOMS.flatMap(sourcesUnder).filter((text) => !text.includes('IssueFacts {'));
  const said = (code: string) => sources.some((text) => text.includes(`'${code}'`));
  expect(issueCodes.filter((code) => !said(code))).toEqual(PUT_TOGETHER);
});

test('every code that is refused with has a sentence', () => {
  const sources = ROOMS.flatMap(sourcesUnder);
  const used = sources.flatMap((text) => [...text.matchAll(USES)].map((one) => one[1] ?? one[2]));
  expect(used.length).toBeGreaterThan(40);
  expect(
    [...new Set(used)].filter((code) => code && !(issueCodes as readonly string[]).includes(code)),
  ).toEqual([]);
});

/** Every fact a sentence may ask for. */
const FACTS = {
  host: 'evil.example',
  wire: 'eth0',
  device: 'DEVICE',
  ...{ size: 256, wanted: 24, line: 7, largest: 25 },
  ...{ part: 3, have: 2, need: 2, at: 1, errno: 19 },
  ...{ text: 'TEXT', network: 'NETWORK', subnet: 'HALL', other: 'OTHER', band: 'pool' },
  ...{
    block: 'BLOCK',
    holder: 'HOLDER',
    heard: 'HEARD',
    title: 'TITLE',
    found: 'FOUND',
    adapter: 'ETH0',
  },
  ...{ port: 502, addresses: 16_777_214, minutes: 280 },
  ...{ sign: 'exchanges', by: 'BY', seconds: 5 },
  ...{ first: 'FIRST', last: 'LAST', why: 'WHY', words: 'WORDS', place: 1, label: 'LABEL' },
  ...{
    most: 9,
    least: 1,
    planned: 'PLANNED',
    maker: 'MAKER',
    kind: 'KIND',
    orderNumber: 'NUMBER',
    mac: 'MAC',
    base: 'BASE',
    name: 'NAME',
    hosts: 9,
    id: 'ID',
    count: 2,
    note: 'NOTE',
    person: 'PERSON',
    what: 'WHAT',
    misfit: 'text',
  },
};

test.each<readonly [IssueFacts['body.invalid'], string]>([
  [{ misfit: 'missing' }, 'name: is missing.'],
  [{ misfit: 'integer', least: 1, most: 4094 }, 'name: must be a whole number from 1 to 4094.'],
  [{ misfit: 'too-long', have: 81, most: 80 }, 'name: has 81 characters; 80 is the most.'],
  [{ misfit: 'too-many', have: 3, most: 2 }, 'name: has 3 entries; 2 is the most.'],
  [{ misfit: 'choice', options: 'a, b' }, 'name: must be one of: a, b.'],
  [
    { misfit: 'control', sign: '\\x00', place: 2 },
    'name: has a character that cannot be written (\\x00) at place 2.',
  ],
  [
    { misfit: 'half-character', sign: '\\uDC00', place: 1 },
    'name: has half a character (\\uDC00) at place 1.',
  ],
  [{ unread: 'not-json' }, 'name: is not JSON.'],
  [{ why: 'must be a valid GUID' }, 'name: must be a valid GUID.'],
])('%j: %s', (facts, sentence) => {
  expect(sentenceOf({ code: 'body.invalid', where: 'name', facts })).toBe(sentence);
});

test.each(issueCodes)('%s is a sentence', (code) => {
  const sentence = sentenceOf({ code, where: 'WHERE', facts: FACTS } as unknown as Issue);
  expect(sentence).toMatch(/^["“A-Z/0-9].*\.$/s);
  expect(sentence).not.toMatch(/undefined|null\b|NaN/);
});

test('an address part is named as it was typed', () => {
  const read = parseIpv4('10.0.300.4');
  expect(read.ok ? '' : sentenceOf(read.error)).toBe('300 is above 255, the most part 3 can be.');
  const net = parsePrefix('172.22.40.9/24');
  expect(net.ok ? '' : sentenceOf(net.error)).toContain('Its network is 172.22.40.0/24.');
});

test.each(EVIDENCE_KINDS)('evidence %s has words', (kind) => {
  const facts = new Proxy({}, { get: () => '1' });
  expect(evidenceWords({ kind, facts } as EvidenceTold)).toMatch(/^[a-z0-9]/i);
});

test.each([
  ['refused', { name: 'object state conflict' }, 'it refused to be changed: object state conflict'],
  ['other-device', { found: 'X' }, 'another device answers for its address: X'],
  ['silent', {}, 'it did not answer the conversation'],
  ['broken', { step: 'read 2' }, 'the conversation broke off at "read 2"'],
])('a refusal to keep the address, %s, is told', (why, facts, words) => {
  expect(evidenceWords({ kind: 'keep-refused', facts: { why, ...facts } })).toContain(words);
});

test.each([
  ['practice', 'practice site'],
  ['desk', 'at the desk'],
  ['live:enp3s0', 'enp3s0'],
])('source %s is %s', (source, words) => {
  expect(sourceWords(source)).toBe(words);
});
