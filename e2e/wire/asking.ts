import { DecodeError, tryDissect } from '@ipsonomo/core/wire';
import { Borrowings } from '../../wire/src/carriers/linux/borrowed';
import { LiveCarrier } from '../../wire/src/carriers/linux/live-carrier';
import { bootpRequest, mac } from './frames';

// A BootP client on `eth0` of the namespace it runs in that asks again and again, each time as if it were new.
// Prints one line of JSON: how many of its requests were answered, and after how many ms (p50, p99, the most).
// usage: asking COUNT PERIOD MAC     PERIOD in ms

const [count = '10', period = '500', client = ''] = process.argv.slice(2);
/** Whoever waits longer counts as not answered. */
const PATIENCE = 2000;

const begun = new Map<number, number>();
const times: number[] = [];
const carrier = new LiveCarrier('eth0', new Borrowings('/nowhere'), {
  link: () => undefined,
  frame(bytes) {
    const frame = tryDissect(bytes);
    if (frame instanceof DecodeError || frame.kind !== 'dhcp') return;
    if (frame.dhcp.operation !== 'reply') return;
    const asked = begun.get(frame.dhcp.transaction);
    if (asked === undefined) return;
    begun.delete(frame.dhcp.transaction);
    times.push(performance.now() - asked);
  },
});

let asked = 0;
const base = 0x5a000000;
const timer = setInterval(() => {
  if (asked === Number(count)) {
    clearInterval(timer);
    setTimeout(report, PATIENCE);
    return;
  }
  begun.set(base + asked, performance.now());
  carrier.send(bootpRequest(mac(client), base + asked));
  asked += 1;
}, Number(period));

function report(): void {
  const sorted = times.sort((a, b) => a - b);
  const part = (share: number) =>
    sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? null;
  const result = { asked, answered: sorted.length, p50: part(0.5), p99: part(0.99), most: part(1) };
  process.stdout.write(`${JSON.stringify(result)}\n`, () => process.exit(0));
}
