import { execFileSync } from 'node:child_process';
import type { LinkState } from '../../wire/src/carriers/carrier';
import { Borrowings } from '../../wire/src/carriers/linux/borrowed';
import { LiveCarrier } from '../../wire/src/carriers/linux/live-carrier';
import {
  CARRIER_LAWS,
  question,
  THEIRS as THEIR_MAC,
  until,
  type CarrierBench,
  type CarrierLaw,
} from '../../wire/test/carrier-laws';

// The laws of all carriers, for the one on a Linux adapter: two ends of a cable in the namespace it runs in, one of them
// heard by a socket of its own. Prints the title of each law that holds.

const [OURS, THEIRS] = ['law0', 'law1'] as const;
const ip = (...args: readonly string[]) => execFileSync('ip', args);
const nothing = new Borrowings('/nowhere');

function open(): CarrierBench {
  const macs = ['02:00:5e:00:53:e0', '02:00:5e:00:53:e2'] as const;
  const ends = ['address', macs[0], 'type', 'veth', 'peer', 'name', THEIRS, 'address', macs[1]];
  ip('link', 'add', OURS, ...ends);
  for (const end of [OURS, THEIRS]) ip('link', 'set', end, 'up');
  const heard: Uint8Array[] = [];
  const other = new LiveCarrier(THEIRS, nothing, {
    frame: (frame) => heard.push(frame),
    link: () => undefined,
  });
  return {
    source: `live:${OURS}`,
    open: (events) => new LiveCarrier(OURS, nothing, events),
    other: { heard, send: (frame) => other.send(frame) },
    close: () => {
      other.close();
      ip('link', 'del', OURS);
    },
  };
}

/** Of an adapter alone: somebody may switch it off and on. */
const ADAPTER_LAWS: readonly CarrierLaw[] = [
  {
    title: 'an adapter that was switched off hears and sends on when it is on again',
    async hold(bench) {
      const heard: Uint8Array[] = [];
      const links: LinkState[] = [];
      const carrier = bench.open({
        frame: (frame) => heard.push(frame),
        link: (state) => links.push(state),
      });
      const last = (state: LinkState) => () => links.at(-1) === state;
      for (let time = 1; time <= 3; time += 1) {
        ip('link', 'set', OURS, 'down');
        await until('no link', last('down'));
        ip('link', 'set', OURS, 'up');
        await until('a link', last('up'));
        const [before, sent] = [heard.length, bench.other.heard.length];
        bench.other.send(question(THEIR_MAC, time));
        await until('what it hears', () => heard.length > before);
        carrier.send(question(carrier.mac, time));
        await until('what it says', () => bench.other.heard.length > sent);
      }
      carrier.close();
    },
  },
];

void (async () => {
  for (const { title, hold } of [...CARRIER_LAWS, ...ADAPTER_LAWS]) {
    const bench = open();
    await hold(bench).finally(() => bench.close());
    console.log(title);
  }
  process.exit(0);
})().catch((error: unknown) => {
  console.error(error);
  process.exit(1);
});
