import { Borrowings } from '../../wire/src/carriers/linux/borrowed';
import { LiveCarrier } from '../../wire/src/carriers/linux/live-carrier';
import { hostileFrames } from './hostile-frames';

// Puts seeded hostile frames on `eth0` of the namespace it runs in, at a steady rate. Prints how many, in the end.
// usage: flood SEED COUNT RATE FROM     RATE in frames a second, FROM the sender's MAC

const [seed = '1', count = '1000', rate = '2000', from = '02:00:5e:00:53:3f'] =
  process.argv.slice(2);
/** So many are made at once: a million would not fit. */
const CHUNK = 2000;
const TICK = 5; // ms

const carrier = new LiveCarrier('eth0', new Borrowings('/nowhere'), {
  frame: () => undefined,
  link: () => undefined,
});
const all = Number(count);
const begun = performance.now();
let sent = 0;
let frames: readonly Uint8Array[] = [];
let at = 0;

function next(): Uint8Array {
  if (at === frames.length) {
    frames = hostileFrames(Number(seed) + sent, CHUNK, from);
    at = 0;
  }
  return frames[at++] as Uint8Array;
}

const timer = setInterval(() => {
  const due = Math.min(all, Math.floor(((performance.now() - begun) * Number(rate)) / 1000));
  for (; sent < due; sent += 1) carrier.send(next());
  if (sent < all) return;
  clearInterval(timer);
  process.stdout.write(`${sent}\n`, () => process.exit(0));
}, TICK);
