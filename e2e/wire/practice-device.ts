import { must, parseMac } from '@ipsonomo/core/net';
import { findShelfKind } from '@ipsonomo/core/plan';
import { DecodeError, tryDissect } from '@ipsonomo/core/wire';
import { PracticeDevice } from '@ipsonomo/practice';
import { Borrowings } from '../../wire/src/carriers/linux/borrowed';
import { kernelFilter } from '../../wire/src/carriers/linux/kernel-filter';
import { LiveCarrier } from '../../wire/src/carriers/linux/live-carrier';

// A device of the practice site on `eth0` of the namespace it runs in, among real kernels.
// usage: practice-device KIND MAC; `off` and `on` on standard input are its power switch

const [kindId = '', macText = ''] = process.argv.slice(2);
const kind = findShelfKind(kindId);
if (!kind) throw new Error(`no kind ${kindId}`);
const now = () => performance.timeOrigin + performance.now();
const place = { id: 'one', title: 'One', place: '', segment: '', label: macText };
const definition = { ...place, kind, mac: must(parseMac(macText)), hostName: 'practice-1' };
const device = new PracticeDevice(definition, Math.random, now());

let timer: NodeJS.Timeout | undefined;

function goOn(frames: readonly Uint8Array[]): void {
  for (const frame of frames) carrier.send(frame);
  clearTimeout(timer);
  const next = device.nextAt();
  if (next !== Infinity)
    timer = setTimeout(() => goOn(device.run(now())), Math.max(0, next - now()));
}

const carrier = new LiveCarrier(
  'eth0',
  new Borrowings('/nowhere'),
  {
    link: () => undefined,
    frame(bytes) {
      const frame = tryDissect(bytes);
      if (!(frame instanceof DecodeError)) goOn(device.receive(frame, now()));
    },
  },
  kernelFilter(true),
);

process.stdin.on('data', (data) => {
  device.setPower(data.toString().trim() === 'on', now());
  goOn([]);
});
console.log('ready');
goOn([]);
