import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { SteppedClock } from '@ipsonomo/core/clock';
import { toIpv4, toMac } from '@ipsonomo/core/net';
import { Journal } from '../src/kept/journal';
import { Keeping } from '../src/engine/keeping';
import { Outbox } from '../src/engine/outbox';
import type { FieldEvent, FieldTarget } from '../src/protocol';

// What leaves is written before, with the evidence that speaks of it, however much is said in one go.

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'ipsonomo-outbox-'));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const frame = (number: number): Uint8Array => new Uint8Array(60).fill(number);
const target = {
  ...{ jobId: 'job', interfaceId: 'at', mac: toMac(1), address: toIpv4(1), heardBy: 'asked' },
} as FieldTarget;

function opened() {
  const clock = new SteppedClock(1_700_000_000_000);
  const told: FieldEvent[][] = [];
  const left: { readonly frame: number; readonly onDisk: boolean; readonly told: number }[] = [];
  let mayLeave = true;
  const onDisk = (number: number): boolean =>
    readFileSync(join(folder, 'run.pcap')).includes(Buffer.from(frame(number))) &&
    readFileSync(join(folder, 'run.jsonl'), 'utf8').includes(`"gave":"${number}"`);
  const keeping: Keeping = new Keeping(
    { folder, source: 'practice', clock },
    {
      kept: (events) => told.push([...events]),
      captureTells: () => undefined,
      diskFull() {
        outbox.clear();
        keeping.end();
      },
    },
  );
  const outbox: Outbox = new Outbox({
    ...{ keeping, clock, mayLeave: () => mayLeave, leaves: () => undefined },
    send: ([number = 0]) =>
      left.push({ frame: number, onDisk: onDisk(number), told: told.flat().length }),
  });
  keeping.begin('run');
  /** As an answer is given: evidence of it, then the answer. */
  const answer = (number: number) => {
    keeping.record(
      'answered',
      target,
      { reply: 'ACK', gave: String(number) },
      { frame: frame(number) },
    );
    outbox.add(frame(number));
  };
  return { keeping, outbox, told, left, answer, forbid: () => (mayLeave = false) };
}

const upTo = (count: number): readonly number[] => Array.from({ length: count }, (_, i) => i + 1);

test('one after the other, each is written and told before it leaves', () => {
  const { answer, left, keeping } = opened();
  upTo(3).forEach(answer);
  expect(left).toEqual(upTo(3).map((number) => ({ frame: number, onDisk: true, told: number })));
  keeping.end();
});

test('heard in one go: all in their order, each on the disk before it leaves, told in few goes', () => {
  const { answer, left, told, outbox, keeping } = opened();
  outbox.together(() => upTo(40).forEach(answer));
  expect(left.map((one) => one.frame)).toEqual(upTo(40));
  expect(left.filter((one) => !one.onDisk)).toEqual([]);
  expect(told.map(({ length }) => length)).toEqual([16, 16, 8]);
  expect(told.flat().map(({ sequence }) => sequence)).toEqual(upTo(40));
  // The first did not wait for the last.
  expect(left[0]?.told).toBeLessThan(40);
  keeping.end();
});

test('evidence alone is written at the end of what was heard in one go, and where the run ends in it', () => {
  const { keeping, told, outbox } = opened();
  outbox.together(() => keeping.record('asked', target, { message: 'one' }, {}));
  expect(told.flat()).toHaveLength(1);
  outbox.together(() => {
    keeping.record('asked', target, { message: 'two' }, {});
    keeping.end();
  });
  expect(told.flat()).toHaveLength(2);
  expect(readFileSync(join(folder, 'run.jsonl'), 'utf8').trim().split('\n')).toHaveLength(2);
});

test('fallen silent in the middle, nothing of what waits leaves', () => {
  const { answer, left, outbox, keeping, forbid } = opened();
  outbox.together(() => {
    upTo(5).forEach(answer);
    forbid();
    outbox.clear();
    answer(6);
  });
  expect([left, outbox.sent]).toEqual([[], 5]);
  keeping.end();
});

test('what cannot be written does not leave, is not told, and ends the run', () => {
  const { answer, left, told, outbox, keeping } = opened();
  const full = () => {
    throw Object.assign(new Error('ENOSPC'), { syscall: 'write' });
  };
  jest.spyOn(Journal.prototype, 'flush').mockImplementationOnce(full);
  outbox.together(() => upTo(3).forEach(answer));
  expect([left, told, keeping.runId]).toEqual([[], [], undefined]);
});
