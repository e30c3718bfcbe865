import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { evidenceWords } from '@ipsonomo/language';
import { readEvidence, type Facts } from '../../src/plan';

/** Taken from databases of the program of 29 November 2026, as its browser tests left them: every form of every kind. */
const FIRST = JSON.parse(
  readFileSync(join(__dirname, '../data/evidence-first.json'), 'utf8'),
) as readonly { readonly kind: string; readonly facts: Facts }[];

test('evidence of the first program is all read, and said in words', () => {
  const told = FIRST.map(({ kind, facts }) => readEvidence(kind, facts));
  expect(new Set(told.map(({ kind }) => kind)).size).toBeGreaterThan(40);
  expect(told.filter(({ kind }) => kind === 'unknown')).toEqual([]);
  expect(told.map(evidenceWords).filter((words) => /undefined|null|NaN/.test(words))).toEqual([]);
});

test.each<[string, string, Facts, string]>([
  [
    'a name that was told in words',
    'asked',
    { message: 'DISCOVER', says: 'under the name a-1' },
    'heard asking (DISCOVER), but under the name a-1; not answered',
  ],
  [
    'no name',
    'asked',
    { message: 'DISCOVER', says: 'without a name' },
    'heard asking (DISCOVER), but without a name; not answered',
  ],
  [
    'a port',
    'asked',
    { message: 'BootP', says: 'through the port p1' },
    'heard asking (BootP), but through the port p1; not answered',
  ],
  [
    'no relay',
    'asked',
    { message: 'BootP', says: 'through no relay' },
    'heard asking (BootP), but through no relay; not answered',
  ],
  [
    'two under one name',
    'twins',
    { key: 'the name a-1', one: 'X', other: 'Y' },
    'two devices ask under the name a-1: X and Y; neither is answered',
  ],
  [
    'two at one port',
    'twins',
    { key: 'one switch port', one: 'X', other: 'Y' },
    'two devices ask under one switch port: X and Y; neither is answered',
  ],
  [
    'kept over layer 2',
    'told-to-keep',
    { by: 'layer 2', gave: '10.0.0.1' },
    'took 10.0.0.1 over layer 2, to stay',
  ],
  [
    'a kind that a newer program wrote',
    'weighed',
    { kilograms: 3 },
    'seen, and kept as "weighed": this version does not know it',
  ],
  [
    'a fact that is missing',
    'asked',
    {},
    'seen, and kept as "asked": this version does not know it',
  ],
  [
    'a fact of another form',
    'reset',
    { reason: 7 },
    'seen, and kept as "reset": this version does not know it',
  ],
  [
    'a kind that every object has',
    'constructor',
    {},
    'seen, and kept as "constructor": this version does not know it',
  ],
  [
    'facts that are new to a kind',
    'declined',
    { why: 'later' },
    'it refused the address: something else has it',
  ],
])('%s', (_what, kind, facts, words) => {
  expect(evidenceWords(readEvidence(kind, facts))).toBe(words);
});
