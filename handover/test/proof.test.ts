import { createHash, createPublicKey, generateKeyPairSync, sign } from 'node:crypto';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import type { Evidence } from '@ipsonomo/core/plan';
import { verifyProof, type ProofRecord, type Sealed } from '../src';
import { device, ip, mac, planWith, written } from './samples';
import { folder, run } from './run';
import { withProgram } from './with-program';

// R-PROOF, R-PROOF-CHAIN, R-VERIFY: a stranger with the file, its signature and the head on paper finds every change.

const { privateKey, publicKey } = generateKeyPairSync('ed25519');
const PEM = publicKey.export({ type: 'spki', format: 'pem' }).toString();
const MAC = mac('02:00:5e:00:53:11');
const plan = planWith([
  device('1', 'bootp', { address: ip('172.22.40.81'), mac: MAC }),
  device('2', 'bootp', { address: ip('172.22.40.82') }),
]);
const AT = Date.UTC(2026, 10, 29, 9, 30);

const piece = (kind: string, at: number): Evidence =>
  ({
    ...{ id: `${kind}-${at}`, kind, at, mac: MAC, address: ip('172.22.40.81') },
    ...{
      source: 'live:eth0',
      person: 'Mara Quist',
      facts: { passed: 'arp ping', pingMillis: 0.4 },
    },
  }) as unknown as Evidence;
const EVIDENCE = [piece('has-address', AT), piece('found-as-planned', AT + 60_000)];

/** As the database seals it: the SHA-256 of the link before, and the text. */
function sealedOf(texts: readonly string[]): readonly Sealed[] {
  let before: Buffer = Buffer.alloc(0);
  return texts.map((text) => {
    before = createHash('sha256').update(before).update(text, 'utf8').digest();
    return { text, chain: before.toString('hex') };
  });
}
const textOf = ({ kind, at }: Evidence, place: number) =>
  JSON.stringify(['job', place, '1-at', null, null, kind, at / 1000, null, null, 'live:eth0']);
const TEXTS = EVIDENCE.map((one, at) => textOf(one, at + 1));

const record = (evidence = sealedOf(TEXTS)): ProofRecord => ({
  evidence,
  revisions: [1, 2, 3].map((number) => ({
    ...{ number, at: `2026-11-2${number}T08:00:00.000000Z`, person: 'Mara Quist' },
    ...{ what: `change ${number} – Förderer`, edits: String(number).repeat(64) },
  })),
  publicKey: PEM,
  sign: (bytes) => new Uint8Array(sign(null, bytes, privateKey)),
});

async function proof(own = record()) {
  const evidence = new Map([['1-at', EVIDENCE]]);
  const { files } = await written('proof-json', plan, { evidence, record: own });
  const [json, signature, key] = files.map(({ content }) => Buffer.from(content));
  if (!json || !signature || !key) throw new Error('a proof has three files');
  const head = (JSON.parse(json.toString()) as { head: string }).head;
  return { json, signature, key, head };
}
const codes = (faults: ReturnType<typeof verifyProof>['faults']) => faults.map(({ code }) => code);

test('as it was written nothing is wrong with it, and it says what was not looked at', async () => {
  const { json, signature, head } = await proof();
  const { faults, proof: read } = verifyProof(json, signature, head);
  expect(faults).toEqual([]);
  expect(read?.report.counts).toMatchObject({ proven: 1, 'not-asked': 1 });
  expect(
    read?.report.devices.map(({ device: title, evidence }) => [title, evidence.length]),
  ).toEqual([
    ...[
      ['Device 1', 2],
      ['Device 2', 0],
    ],
  ]);
  expect(codes(verifyProof(json, undefined, undefined).faults)).toEqual(['no-signature']);
  // As people type it from paper.
  const typed = `${head.slice(0, 8).toUpperCase()} ${head.slice(8)}`;
  expect(codes(verifyProof(json, signature, typed).faults)).toEqual([]);
});

type Json = {
  evidence: { text: string; chain: string }[];
  revisions: { what: string; edits: string }[];
  report: { devices: { outcome: string; evidence: { at: string; words: string }[] }[] };
  head: string;
};

test.each<[string, (json: Json) => void, readonly string[]]>([
  ['a piece of evidence', (json) => (json.evidence[1]!.text += ' '), ['evidence']],
  ['one taken out', (json) => json.evidence.splice(0, 1), ['evidence', 'unsupported']],
  ['who changed the plan', (json) => (json.revisions[1]!.what = 'nothing'), ['revision']],
  ['what was changed', (json) => (json.revisions[2]!.edits = 'f'.repeat(64)), ['revision']],
  ['what the report says', (json) => (json.report.devices[0]!.outcome = 'silent'), ['report']],
  [
    'when something was found',
    (json) => (json.report.devices[0]!.evidence[0]!.at = '2026-11-01T00:00:00.000Z'),
    ['report', 'unsupported'],
  ],
  ['the head', (json) => (json.head = '0'.repeat(64)), ['report', 'other-head']],
])('%s changed by hand is named', async (_what, change, wanted) => {
  const { json, signature, head } = await proof();
  const changed = JSON.parse(json.toString()) as Json;
  change(changed);
  const { faults } = verifyProof(Buffer.from(JSON.stringify(changed, null, 1)), signature, head);
  expect(codes(faults)).toEqual(expect.arrayContaining([...wanted, 'signature']));
  // The places are told, counted as people count.
  expect(
    faults.find(({ code }) => code === 'evidence' || code === 'revision') ?? { place: 1 },
  ).toEqual(expect.objectContaining({ place: expect.any(Number) as number }));
});

test('made anew from changed evidence, and signed again, it has another head than the one on paper', async () => {
  const { head } = await proof();
  const other = await proof(record(sealedOf([TEXTS[0] ?? '', `${TEXTS[1]} `])));
  const { faults } = verifyProof(other.json, other.signature, head);
  expect(codes(faults)).toEqual(['other-head']);
});

test('pieces that were folded are taken at their word, and the chain goes on across them', async () => {
  const all = sealedOf([...TEXTS, 'a', 'b', 'c']);
  const gap = { folded: 2, chain: all[3]?.chain ?? '' };
  const [one, two, , , last] = all;
  const own = record([one, two, gap, last].filter((link) => link !== undefined));
  const { json, signature, head } = await proof(own);
  expect(verifyProof(json, signature, head).faults).toEqual([]);
});

test('one changed byte anywhere is found', async () => {
  const { json, signature, head } = await proof();
  fc.assert(
    fc.property(fc.nat(json.length - 1), fc.integer({ min: 1, max: 255 }), (at, by) => {
      const changed = Buffer.from(json);
      changed[at] = (changed[at] ?? 0) ^ by;
      expect(verifyProof(changed, signature, head).faults.length).toBeGreaterThan(0);
    }),
    { numRuns: 300 },
  );
});

withProgram('openssl', 'version')(
  'OpenSSL alone verifies the signature, and refuses a changed file',
  async () => {
    const { json, signature, key } = await proof();
    const where = folder();
    const file = (name: string, content: Buffer) => {
      writeFileSync(join(where, name), content);
      return join(where, name);
    };
    const check = (content: Buffer) =>
      run(
        ...(['openssl', 'pkeyutl', '-verify', '-pubin', '-rawin'] as const),
        ...['-inkey', file('key.pem', key), '-in', file('proof.json', content)],
        ...['-sigfile', file('proof.json.sig', signature)],
      );
    expect(check(json)).toMatchObject({
      status: 0,
      out: expect.stringMatching(/Success/i) as string,
    });
    const changed = Buffer.from(json);
    changed[100] = (changed[100] ?? 0) ^ 1;
    expect(check(changed).status).not.toBe(0);
    expect(createPublicKey(key).asymmetricKeyType).toBe('ed25519');
  },
);
