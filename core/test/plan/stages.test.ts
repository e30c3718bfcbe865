import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { WAY_WORDS } from '@ipsonomo/core/plan';
import { must, parseIpv4, parseMac } from '../../src/net';
import {
  EVIDENCE_KINDS,
  progressOf,
  STAGE_EVIDENCE,
  WAYS,
  type Evidence,
  type EvidenceKind,
  type Way,
} from '../../src/plan';

const MAC = must(parseMac('02:00:5e:00:53:11'));
const ADDRESS = must(parseIpv4('172.22.40.104'));
const planned = { mac: MAC, address: ADDRESS };

const seen = (kinds: readonly EvidenceKind[], more: Partial<Evidence> = {}): readonly Evidence[] =>
  kinds.map((kind, at) => ({
    id: String(at),
    kind,
    at,
    mac: MAC,
    address: ADDRESS,
    source: 'practice',
    person: '',
    facts: {},
    ...more,
  })) as unknown as readonly Evidence[];

/** `proven`, with what is broken behind it. */
function told(way: Way, evidence: readonly Evidence[], wanted = planned): string {
  const { stage, notches } = progressOf(way, wanted, evidence);
  const broken = notches.filter((notch) => notch.state === 'broken').map((notch) => notch.stage);
  return [stage, ...broken.map((one) => `${one} broken`)].join(', ');
}

const UP = ['asked', 'has-address', 'kept', 'found-as-planned'] as const;

test.each<[string, readonly EvidenceKind[], string]>([
  ['nothing seen', [], 'planned'],
  ['asked', ['asked'], 'heard'],
  ['answered only: a reply that left is no proof that it arrived', ['asked', 'answered'], 'heard'],
  ['uses it', ['asked', 'has-address'], 'given'],
  ['told to keep it: still only given', ['asked', 'has-address', 'told-to-keep'], 'given'],
  ['said to be kept', ['asked', 'has-address', 'said-kept'], 'given'],
  ['back too soon', ['asked', 'has-address', 'gone', 'back-too-soon'], 'given'],
  ['back with it', ['asked', 'has-address', 'gone', 'kept'], 'pinned'],
  ['found', UP, 'proven'],
  ['found, but the power was never cut', ['asked', 'has-address', 'found-as-planned'], 'given'],
  ['asks again', [...UP, 'asks-again'], 'heard, given broken, pinned broken, proven broken'],
  ['not there at a later look', [...UP, 'no-answer'], 'pinned, proven broken'],
  ['another answers at a later look', [...UP, 'contradicted'], 'pinned, proven broken'],
  ['and then found again', [...UP, 'contradicted', 'found-as-planned'], 'proven'],
  ['address in other hands', ['asked', 'address-taken'], 'heard, given broken'],
  ['declined, then given after all', ['asked', 'declined', 'has-address'], 'given'],
  ['two devices with its MAC', ['asked', 'has-address', 'twins'], 'heard, given broken'],
  ['given back', ['asked', 'has-address', 'released'], 'heard, given broken'],
])('%s', (_name, kinds, expected) => {
  expect(told('bootp', seen(kinds))).toBe(expected);
});

test('order of writing does not matter, only time', () => {
  expect(told('bootp', [...seen([...UP, 'no-answer'])].reverse())).toBe('pinned, proven broken');
});

test('evidence of another MAC, or of an address given up since, does not count', () => {
  const other = must(parseMac('02:00:5e:00:53:12'));
  expect(told('bootp', seen(UP, { mac: other }))).toBe('planned');
  expect(told('bootp', seen(UP, { address: must(parseIpv4('172.22.40.9')) }))).toBe('planned');
  expect(told('bootp', seen(UP), { ...planned, mac: undefined as never })).toBe('planned');
});

// R-STAGE: one event for each stage of each way; what a person says or ticks is in none of them.
test.each(WAYS)('%s: exactly its own four events reach its four stages', (way) => {
  const row = STAGE_EVIDENCE[way];
  const events = [row.heard, row.given, row.pinned, row.proven];
  expect(told(way, seen(events))).toBe('proven');
  for (const kind of EVIDENCE_KINDS.filter((one) => !events.includes(one)))
    expect(told(way, seen([kind])).split(',')[0]).toBe('planned');
  for (const said of ['bound', 'said-kept', 'told-to-keep', 'answered'] as const)
    expect(events).not.toContain(said);
});

test('docs/RULES.md shows the same table', () => {
  const rules = readFileSync(join(__dirname, '../../../docs/RULES.md'), 'utf8');
  for (const way of WAYS) {
    const { heard, given, pinned, proven } = STAGE_EVIDENCE[way];
    const cells = [WAY_WORDS[way], heard, given, pinned, proven].map((one, i) =>
      i === 0 ? one : `\`${one}\``,
    );
    expect(rules).toContain(`| ${cells.join(' | ')} |`);
  }
});
