import { formatMac, LIMITED_BROADCAST, toIpv4, toMac, type MacAddress } from '@ipsonomo/core/net';
import { DecodeError, dhcpFrame, dhcpMessageOf, tryDissect } from '@ipsonomo/core/wire';
import { Borrowings } from '../../wire/src/carriers/linux/borrowed';
import { LiveCarrier } from '../../wire/src/carriers/linux/live-carrier';
import { bootpRequest } from '../wire/frames';

// Clients of a bench, on `eth0` of the namespace they run in. Prints one line of JSON.
// usage: clients storm COUNT          all ask at the same instant, the unanswered again after 1, 3, 7 s
//        clients one COUNT            one asks again as soon as it is answered
//        clients many COUNT CLIENTS   so many requests from so many, a little faster than answered

const [mode, countText = '500', clientsText = '500'] = process.argv.slice(2);
const count = Number(countText);

export const clientMac = (index: number): MacAddress => toMac(0x02bb00000000 + index);

let onReply: (transaction: number) => void = () => undefined;
const carrier = new LiveCarrier('eth0', new Borrowings('/nowhere'), {
  link: () => undefined,
  frame(bytes) {
    const frame = tryDissect(bytes);
    if (frame instanceof DecodeError || frame.kind !== 'dhcp') return;
    if (frame.dhcp.operation === 'reply') onReply(frame.dhcp.transaction);
  },
});

const pause = (millis: number) => new Promise((resolve) => setTimeout(resolve, millis));

function report(result: unknown): never {
  process.stdout.write(`${JSON.stringify(result)}\n`);
  process.exit(0);
}

/** Its own work is no part of what is measured: it is done often enough before to be done quickly. */
function warmUp(): void {
  const reply = dhcpFrame(
    clientMac(0),
    { from: toIpv4(1), fromPort: 67, to: LIMITED_BROADCAST, toPort: 68 },
    dhcpMessageOf({ operation: 'reply', transaction: 1, clientMac: clientMac(0), options: [] }),
  );
  for (let time = 0; time < 5000; time += 1) {
    tryDissect(reply);
    bootpRequest(clientMac(time), time);
  }
}

async function storm(): Promise<void> {
  warmUp();
  const base = Math.floor(Math.random() * 2 ** 30) * 2;
  const open = new Map(
    Array.from({ length: count }, (_, i) => [base + i, bootpRequest(clientMac(i), base + i)]),
  );
  const start = performance.now();
  let last = start;
  let rounds = 0;
  const over = new Promise<void>((resolve) => {
    onReply = (transaction) => {
      if (!open.delete(transaction)) return;
      last = performance.now();
      if (open.size === 0) resolve();
    };
  });
  for (const wait of [1000, 2000, 4000]) {
    rounds += 1;
    for (const frame of open.values()) carrier.send(frame);
    await Promise.race([over, pause(wait)]);
    if (open.size === 0) break;
  }
  report({ rounds, millis: last - start, unanswered: open.size });
}

async function one(): Promise<void> {
  const mac = clientMac(0);
  const times: number[] = [];
  const base = Math.floor(Math.random() * 2 ** 30);
  for (let i = 0; i < count; i += 1) {
    const frame = bootpRequest(mac, base + i);
    const answered = new Promise<boolean>((resolve) => {
      onReply = (transaction) => transaction === base + i && resolve(true);
    });
    const start = performance.now();
    carrier.send(frame);
    const ok = await Promise.race([answered, pause(1000).then(() => false)]);
    if (ok) times.push(performance.now() - start);
  }
  times.sort((a, b) => a - b);
  const at = (part: number) => times[Math.min(times.length - 1, Math.floor(times.length * part))];
  report({ p50: at(0.5), p99: at(0.99), answered: times.length, of: count });
}

async function many(): Promise<void> {
  const clients = Number(clientsText);
  let answered = 0;
  onReply = () => (answered += 1);
  for (let i = 0; i < count; i += 1) {
    carrier.send(bootpRequest(clientMac(i % clients), i));
    if (i % 100 === 99) await pause(20);
  }
  await pause(500);
  report({ sent: count, answered, last: formatMac(clientMac(clients - 1)) });
}

const MODES: Readonly<Record<string, () => Promise<void>>> = { storm, one, many };
void MODES[mode ?? '']?.();
