import { execFileSync } from 'node:child_process';
import { appendFileSync, mkdtempSync, readFileSync, rmSync, statSync, truncateSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { framesOfCapture } from '@ipsonomo/core/wire';
import { cases } from '../../core/test/cases';
import { Capture, hasCapture, readCapture, type CaptureLimits } from '../src/kept/capture';
import { wholeCapture } from './captured';

// What a run keeps of the wire: what concerns us whole, others as far as there is room. tshark reads what is downloaded.

const BEGUN = 1_764_400_000_000; // ms since 1970
const FRAME = 60;
const RECORD = FRAME + 16;

let folder: string;
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'ipsonomo-capture-'))));
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const failed = (error: unknown): never => {
  throw error;
};
const opened = (limits?: CaptureLimits) => new Capture(folder, 'run', failed, limits);

/** A frame of a type nobody has, with a number in it. */
function frame(number: number): Uint8Array {
  const bytes = new Uint8Array(FRAME);
  new DataView(bytes.buffer).setUint16(12, 0x88b5); // IEEE 802: for local experiments
  new DataView(bytes.buffer).setUint32(14, number);
  return bytes;
}

const numbersOf = (file: Uint8Array): readonly number[] =>
  [...framesOfCapture(file)].map((one) =>
    new DataView(one.frame.buffer, one.frame.byteOffset).getUint32(14),
  );
const numbersIn = async () => numbersOf(new Uint8Array(readFileSync(await wholeCapture(folder))));

test('ours is kept whole; of others the older part gives way, which is told once', async () => {
  const capture = opened({ own: 1e9, others: 10 * RECORD });
  const told: string[] = [];
  for (let i = 0; i < 100; i += 1) {
    const isOwn = i % 4 === 0;
    const result = capture.frame(frame(i), BEGUN + i, isOwn ? 'ours' : 'others');
    if (result !== 'written') told.push(`${i} ${result}`);
  }
  capture.close();
  const numbers = await numbersIn();
  const own = numbers.filter((number) => number % 4 === 0);
  const others = numbers.filter((number) => number % 4 !== 0);
  expect(own).toEqual(Array.from({ length: 25 }, (_, i) => 4 * i));
  // The last of the others without a gap: at least one part, at most two.
  const all = Array.from({ length: 100 }, (_, i) => i).filter((i) => i % 4 !== 0);
  expect(others).toEqual(all.slice(-others.length));
  expect(others.length).toBeGreaterThanOrEqual(10);
  expect(others.length).toBeLessThanOrEqual(20);
  // The eleventh of them begins the second part, the twenty-first is the first that costs an older one.
  expect(told).toEqual([`${all[20]} gives-way`]);
});

test('ours has an end as well, which is told once', async () => {
  const capture = opened({ own: 2 * RECORD, others: 1e9 });
  const told = [0, 1, 2, 3].map((i) => capture.frame(frame(i), BEGUN + i, 'ours'));
  expect(told).toEqual(['written', 'just-full', 'full', 'full']);
  capture.close();
  expect(await numbersIn()).toEqual([0, 1]);
});

test('seeded: whatever comes when, the download has every frame that is there, by time', async () => {
  const one = fc.record({ wait: fc.nat(3), isOwn: fc.boolean() });
  await fc.assert(
    fc.asyncProperty(fc.array(one, { maxLength: 200 }), async (frames) => {
      const capture = opened();
      let at = BEGUN;
      frames.forEach(({ wait, isOwn }, number) => {
        at += wait;
        capture.frame(frame(number), at, isOwn ? 'ours' : 'others');
      });
      capture.close();
      const numbers = await numbersIn();
      for (const part of ['', '.others-a', '.others-b'])
        rmSync(join(folder, `run${part}.pcap`), { force: true });
      expect(numbers.toSorted((a, b) => a - b)).toEqual(frames.map((_, number) => number));
      let clock = 0;
      const times = frames.map(({ wait }) => (clock += wait));
      const order = numbers.map((number) => times[number] ?? NaN);
      expect(order).toEqual(order.toSorted((a, b) => a - b));
    }),
    { numRuns: cases(30), seed: 311 },
  );
});

test('tshark reads it while it goes on; who reads a part that gives way reads it to its end', async () => {
  const capture = opened({ own: 1e9, others: 10 * RECORD });
  for (let i = 0; i < 15; i += 1) capture.frame(frame(i), BEGUN + i, i === 7 ? 'ours' : 'others');
  await Promise.resolve(); // frames of one go are written at its end
  const reading = readCapture(folder, 'run');
  const pieces = [(await reading.next()).value ?? new Uint8Array()];
  // Both parts give way before the reader goes on.
  for (let i = 15; i < 60; i += 1) capture.frame(frame(i), BEGUN + i, 'others');
  await Promise.resolve();
  for await (const piece of reading) pieces.push(piece);
  const numbers = numbersOf(new Uint8Array(Buffer.concat(pieces)));
  expect(numbers.slice(0, 15)).toEqual(Array.from({ length: 15 }, (_, i) => i));
  const fields = ['-T', 'fields', '-e', 'frame.time_epoch', '-e', 'frame.len'];
  const lines = execFileSync('tshark', ['-r', await wholeCapture(folder), ...fields], {
    stdio: ['ignore', 'pipe', 'ignore'],
  });
  const read = lines.toString().trimEnd().split('\n');
  expect(read.length).toBeGreaterThanOrEqual(11);
  expect(read.at(-1)).toBe(`${BEGUN / 1000}.059000000\t${FRAME}`);
  capture.close();
});

test('a record that was cut by a crash, and one that is none, end a part and nothing else', async () => {
  const capture = opened();
  capture.frame(frame(1), BEGUN, 'ours');
  capture.frame(frame(2), BEGUN + 1, 'ours');
  capture.frame(frame(3), BEGUN + 2, 'others');
  capture.close();
  truncateSync(join(folder, 'run.pcap'), 24 + 2 * RECORD - 5);
  appendFileSync(join(folder, 'run.others-a.pcap'), Buffer.alloc(40, 0xff));
  expect(await numbersIn()).toEqual([1, 3]);
});

test('its files are its owner’s alone; a run without one has none', () => {
  opened().close();
  expect(statSync(join(folder, 'run.others-a.pcap')).mode & 0o777).toBe(0o600);
  expect(statSync(join(folder, 'run.pcap')).mode & 0o777).toBe(0o600);
  expect([hasCapture(folder, 'run'), hasCapture(folder, 'none')]).toEqual([true, false]);
});
