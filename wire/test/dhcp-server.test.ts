import fs, { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { toMac } from '@ipsonomo/core/net';
import { dissect, findOption, OPTION, rawOption, type MessageType } from '@ipsonomo/core/wire';
import { FieldRefusal, type FieldEvent } from '../src/protocol';
import { DRIVE, EngineBench, ip, mac, planOf, STRANGER, target } from './bench';
import { cases } from '../../core/test/cases';

const GIVEN = '10.77.0.85';
const VOICE = '10.77.0.253';
const wants = rawOption(OPTION.requestedAddress, ip(GIVEN));
const chose = (server: string) => rawOption(OPTION.serverId, ip(server));

test('listening sends nothing, whoever asks', () => {
  const bench = new EngineBench();
  bench.asks(DRIVE);
  bench.asks(STRANGER, { type: 'DISCOVER' });
  bench.advance(120_000);
  expect(bench.sent).toEqual([]);
  expect(bench.kinds()).toEqual(['asked']);
  expect([...bench.heard.keys()]).toEqual([DRIVE, STRANGER]);
});

test('a bound BootP client gets its planned address; using it is evidence, the reply is not', () => {
  const bench = new EngineBench();
  bench.arm();
  bench.spoken();
  bench.asks(DRIVE);
  expect(bench.replies()).toEqual([`BootP reply ${GIVEN}`]);
  bench.advance(200);
  expect(bench.spoken()).toEqual([`ask ${GIVEN}`]);
  bench.has(DRIVE, GIVEN);
  expect(bench.kinds()).toEqual(['asked', 'answered', 'has-address']);
  bench.advance(10_000);
  expect(bench.spoken()).toEqual([]);
});

test('a DHCP client is offered and acknowledged', () => {
  const bench = new EngineBench();
  bench.arm();
  bench.asks(DRIVE, { type: 'DISCOVER' });
  bench.asks(DRIVE, { type: 'REQUEST', more: [wants, chose(VOICE)] });
  expect(bench.replies()).toEqual([`OFFER ${GIVEN}`, `ACK ${GIVEN}`]);
});

test('R-LOAN: what is lent is leased no longer than it lasts, and told as lent', () => {
  const until = 1_000_000 + 600_000;
  const bench = new EngineBench(planOf([target({ address: ip('10.77.0.90'), lentUntil: until })]));
  bench.arm();
  bench.asks(DRIVE, { type: 'DISCOVER' });
  bench.advance(200);
  bench.asks(DRIVE, {
    type: 'REQUEST',
    more: [rawOption(OPTION.requestedAddress, ip('10.77.0.90')), chose(VOICE)],
  });
  const leases = bench.sent.flatMap((bytes) => {
    const frame = dissect(bytes);
    if (frame.kind !== 'dhcp') return [];
    return findOption(frame.dhcp.options ?? [], OPTION.leaseTime) ?? [];
  });
  expect(leases.length).toBeGreaterThan(0);
  for (const seconds of leases)
    expect(seconds).toBeLessThanOrEqual((until - bench.now) / 1000 + 60);
  bench.has(DRIVE, '10.77.0.90');
  const has = bench.events.find(({ kind }) => kind === 'has-address');
  // It counts as heard for the planned address as well; having the lent one does not count for that.
  expect(bench.events.find(({ kind }) => kind === 'asked')?.address).toBeUndefined();
  expect(has?.address).toBe(ip('10.77.0.90'));
  expect(has?.facts).toEqual({ lent: '10.77.0.90' });
});

test('R-BOUND-ONLY: 2,000 requests of unbound MACs, and not one reply', () => {
  const bench = new EngineBench();
  bench.arm();
  bench.spoken();
  const types: readonly (MessageType | undefined)[] = ['DISCOVER', 'REQUEST', 'INFORM', undefined];
  const asked = fc.record({
    from: fc.integer({ min: 0x020000000000, max: 0x02ffffffffff }),
    type: fc.constantFrom(...types),
    clientAddress: fc.option(fc.constant(ip(GIVEN)), { nil: undefined }),
  });
  for (const { from, type, clientAddress } of fc.sample(asked, { numRuns: cases(2000), seed: 67 }))
    if (from !== DRIVE)
      bench.asks(toMac(from), {
        ...(type ? { type } : {}),
        ...(clientAddress ? { clientAddress } : {}),
      });
  bench.advance(60_000);
  expect(bench.spoken()).toEqual([]);
});

test('R-PROBE: the address is probed twice before it is given, and again after half a minute', () => {
  const bench = new EngineBench();
  bench.engine.arm(600_000, '');
  bench.advance(40_000);
  bench.spoken();
  bench.asks(DRIVE);
  expect(bench.spoken()).toEqual([`probe ${GIVEN}`]);
  bench.advance(150);
  expect(bench.spoken()).toEqual([`probe ${GIVEN}`, `BootP reply ${GIVEN}`]);
  bench.asks(DRIVE, { transaction: 2 });
  expect(bench.replies()).toEqual([`BootP reply ${GIVEN}`]);
  bench.advance(31_000);
  bench.spoken();
  bench.asks(DRIVE, { transaction: 3 });
  expect(bench.spoken()).toEqual([`probe ${GIVEN}`]);
});

test('R-PROBE: another MAC that has it refuses the giving and is named; when it is gone, on it goes', () => {
  const bench = new EngineBench();
  bench.engine.arm(600_000, '');
  bench.advance(40_000);
  bench.asks(DRIVE);
  bench.answers(STRANGER, GIVEN);
  bench.advance(5000);
  bench.asks(DRIVE, { transaction: 2 });
  expect(bench.spoken().at(-1)).toBe(`probe ${GIVEN}`);
  bench.answers(STRANGER, GIVEN);
  bench.advance(2000);
  expect(bench.replies()).toEqual([]);
  expect(bench.events.at(-1)).toMatchObject({
    kind: 'address-taken',
    facts: { by: '02:00:5e:00:53:77' },
  });
  bench.advance(10_000);
  bench.asks(DRIVE, { transaction: 3 });
  bench.advance(1000);
  expect(bench.replies()).toEqual([`BootP reply ${GIVEN}`]);
});

test("an answer from the asking client's own MAC is no conflict", () => {
  const bench = new EngineBench();
  bench.engine.arm(600_000, '');
  bench.advance(40_000);
  bench.asks(DRIVE);
  bench.has(DRIVE, GIVEN);
  bench.advance(1000);
  expect(bench.replies()).toEqual([`BootP reply ${GIVEN}`]);
});

test('armed until a second and not a moment longer', () => {
  const bench = new EngineBench();
  bench.arm(60_000);
  bench.advance(57_800);
  bench.asks(DRIVE);
  bench.advance(199);
  bench.asks(DRIVE, { transaction: 2 });
  expect(bench.replies()).toEqual([`BootP reply ${GIVEN}`, `BootP reply ${GIVEN}`]);
  bench.advance(1);
  bench.asks(DRIVE, { transaction: 3 });
  expect(bench.replies()).toEqual([]);
  expect(bench.engine.status().answeringUntil).toBeUndefined();
});

test('fall silent: nothing more leaves, whatever was under way', () => {
  const bench = new EngineBench(
    planOf([target(), target({ interfaceId: 'b', mac: STRANGER, address: ip('10.77.0.86') })]),
  );
  bench.engine.arm(600_000, '');
  bench.advance(100);
  bench.asks(DRIVE);
  bench.engine.acts.check(['b'], '');
  bench.engine.acts.watchPower({ interfaceId: 'drive', person: '' });
  bench.engine.silence();
  bench.spoken();
  bench.asks(DRIVE, { transaction: 2 });
  bench.has(DRIVE, GIVEN);
  bench.advance(120_000);
  expect(bench.spoken()).toEqual([]);
  expect(bench.engine.status()).toMatchObject({ tasks: [], voices: [], answeringUntil: undefined });
});

test('two devices with one MAC: neither is answered', () => {
  const bench = new EngineBench();
  bench.arm();
  const named = (name: string) =>
    ({ type: 'DISCOVER', more: [rawOption(OPTION.hostName, name)] }) as const;
  bench.asks(DRIVE, named('left'));
  bench.asks(DRIVE, named('right'));
  bench.spoken();
  bench.asks(DRIVE, named('left'));
  bench.asks(DRIVE, named('right'));
  expect(bench.replies()).toEqual([]);
  expect(bench.events.at(-1)).toMatchObject({ kind: 'twins', facts: { differs: 'hostName' } });
});

test('a device that had its address and begins anew has lost it; a renewal is no such thing', () => {
  const bench = new EngineBench();
  bench.arm();
  bench.asks(DRIVE, { type: 'DISCOVER' });
  bench.has(DRIVE, GIVEN);
  bench.advance(40_000);
  bench.asks(DRIVE, { type: 'REQUEST', clientAddress: ip(GIVEN), transaction: 2 });
  expect(bench.kinds()).not.toContain('asks-again');
  bench.advance(40_000);
  bench.asks(DRIVE, { type: 'DISCOVER', transaction: 3 });
  expect(bench.kinds().slice(-2)).toEqual(['asked', 'asks-again']);
});

test('what is known from before a restart counts: it had its address', () => {
  const bench = new EngineBench(planOf([target({ holds: true })]));
  bench.asks(DRIVE);
  expect(bench.kinds()).toEqual(['asked', 'asks-again']);
});

test.each(['DECLINE', 'RELEASE'] as const)('%s is kept as evidence, armed or not', (type) => {
  const bench = new EngineBench();
  bench.asks(DRIVE, { type, more: [wants, chose(VOICE)] });
  expect(bench.kinds()).toEqual(['asked', type === 'DECLINE' ? 'declined' : 'released']);
  expect(bench.spoken()).toEqual([]);
});

test('bound after it was heard: that it asked counts, with the time it did', () => {
  const bench = new EngineBench(planOf([target({ mac: undefined })]));
  bench.asks(DRIVE);
  const askedAt = bench.now;
  bench.advance(30_000);
  bench.engine.plan(planOf([target()]));
  expect(bench.events).toMatchObject([{ kind: 'asked', at: askedAt, mac: DRIVE }]);
});

test('no link, or no adapter: silent, and nothing can be begun', () => {
  const bench = new EngineBench();
  bench.arm();
  bench.engine.linkChanged('down');
  bench.spoken();
  bench.asks(DRIVE);
  bench.advance(5000);
  expect(bench.spoken()).toEqual([]);
  const refused = () => bench.engine.arm(1000, '');
  expect(refused).toThrow(FieldRefusal);
  expect(refused).toThrow('field.noLink');
  bench.engine.linkChanged('up');
  expect(refused).not.toThrow();
});

test.each<[string, (bench: EngineBench) => unknown, string]>([
  [
    'an interface that is not planned',
    (bench) => bench.engine.acts.check(['x'], ''),
    'field.unknownTarget',
  ],
  [
    'watching what is not bound',
    (bench) => bench.engine.acts.watchPower({ interfaceId: 'free', person: '' }),
    'field.unbound',
  ],
])('%s is refused', (_name, act, code) => {
  const bench = new EngineBench(planOf([target({ interfaceId: 'free', mac: undefined })]));
  expect(() => act(bench)).toThrow(code);
});

test('after listening has ended nothing is recorded, and nothing can be begun', () => {
  const bench = new EngineBench();
  bench.engine.rest();
  bench.asks(DRIVE);
  expect(bench.events).toEqual([]);
  expect(() => bench.engine.arm(1000, '')).toThrow('field.notListening');
});

test('everything said is in the capture; every event is in the journal, in order', async () => {
  const bench = new EngineBench();
  bench.arm();
  bench.asks(DRIVE);
  bench.has(DRIVE, GIVEN);
  await Promise.resolve(); // what comes in one go is written in one go
  const captured = bench.captured().map((frame) => Buffer.from(frame).toString('hex'));
  for (const frame of bench.sent) expect(captured).toContain(Buffer.from(frame).toString('hex'));
  expect(captured).toHaveLength(bench.sent.length + 2);
  const journal = readFileSync(join(bench.folder, 'run.jsonl'), 'utf8').trim().split('\n');
  const events = journal.map((line) => JSON.parse(line) as FieldEvent);
  expect(events).toEqual(bench.events.map((event) => JSON.parse(JSON.stringify(event))));
  expect(events.map((event) => event.sequence)).toEqual([1, 2, 3]);
});

test('a disk that takes no more ends listening, and nothing is sent that could not be kept', () => {
  const bench = new EngineBench();
  bench.arm();
  bench.spoken();
  const full = jest.spyOn(fs, 'writeSync').mockImplementation(() => {
    throw Object.assign(new Error('no space left on device'), { syscall: 'write', code: 'ENOSPC' });
  });
  bench.asks(DRIVE);
  full.mockRestore();
  bench.advance(10_000);
  expect(bench.spoken()).toEqual([]);
  expect(bench.notices()[0]).toEqual({ code: 'disk-full' });
  expect(bench.engine.status()).toMatchObject({ runId: undefined, answeringUntil: undefined });
});

test('frames that cannot be read are counted and kept, and change nothing', async () => {
  const bench = new EngineBench();
  bench.engine.frame(Uint8Array.of(1, 2, 3));
  expect(bench.engine.status().counters).toMatchObject({ received: 1, malformed: 1, requests: 0 });
  await Promise.resolve(); // what comes in one go is written in one go
  expect(bench.captured()).toHaveLength(1);
});

test('a MAC one off the bound one is another device', () => {
  const bench = new EngineBench();
  bench.arm();
  bench.spoken();
  bench.asks(mac('02:00:5e:00:53:12'));
  expect(bench.spoken()).toEqual([]);
});

test('R-PAGE: who let it answer is away: it stops, and says so', () => {
  const bench = new EngineBench();
  bench.engine.pageLost();
  expect(bench.notices()).toEqual([]);
  bench.arm();
  bench.engine.pageLost();
  expect(bench.engine.status().answeringUntil).toBeUndefined();
  expect(bench.notices()[0]?.code).toBe('page-lost');
});
