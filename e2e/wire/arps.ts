import { BROADCAST_MAC, toIpv4, toMac, ZERO_MAC } from '@ipsonomo/core/net';
import { arpFrame } from '@ipsonomo/core/wire';
import { Borrowings } from '../../wire/src/carriers/linux/borrowed';
import { LiveCarrier } from '../../wire/src/carriers/linux/live-carrier';

// A plant that talks: ARP requests of many devices on `eth0` of the namespace it runs in, at a steady rate.
// usage: arps COUNT RATE DEVICES     RATE in frames a second

const [count = '1000', rate = '1000', devices = '100'] = process.argv.slice(2);
const NETWORK = 0x0a630000; // 10.99.0.0: nobody's here
const TICK = 2; // ms

const carrier = new LiveCarrier('eth0', new Borrowings('/nowhere'), {
  frame: () => undefined,
  link: () => undefined,
});
const frames = Array.from({ length: Number(devices) }, (_, index) => {
  const mac = toMac(0x02dd00000000 + index);
  return arpFrame(mac, BROADCAST_MAC, {
    ...{ operation: 'request', senderMac: mac, targetMac: ZERO_MAC },
    senderAddress: toIpv4(NETWORK + 1 + index),
    targetAddress: toIpv4(NETWORK + 1 + ((index * 7) % Number(devices))),
  });
});
const all = Number(count);
const begun = performance.now();
let sent = 0;
const timer = setInterval(() => {
  const due = Math.min(all, Math.floor(((performance.now() - begun) * Number(rate)) / 1000));
  for (; sent < due; sent += 1) carrier.send(frames[sent % frames.length] as Uint8Array);
  if (sent < all) return;
  clearInterval(timer);
  const seconds = (performance.now() - begun) / 1000;
  process.stdout.write(`${JSON.stringify({ sent, seconds })}\n`, () => process.exit(0));
}, TICK);
