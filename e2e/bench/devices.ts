import { toMac } from '@ipsonomo/core/net';
import { findShelfKind, type Kind } from '@ipsonomo/core/plan';
import { DecodeError, messageTypeOf, tryDissect } from '@ipsonomo/core/wire';
import { PracticeDevice, type DeviceDefinition } from '@ipsonomo/practice';
import { Borrowings } from '../../wire/src/carriers/linux/borrowed';
import { kernelFilter } from '../../wire/src/carriers/linux/kernel-filter';
import { LiveCarrier } from '../../wire/src/carriers/linux/live-carrier';

// A crowd of devices of the practice site on `eth0` of the namespace it runs in.
// usage: devices stations COUNT   stations without a name that answer discovery; stays
//        devices mixed COUNT      switched on at once, a third each by BootP, DHCP and name, and a tenth as
//                                 many strangers; prints one line of JSON once all is over

const [mode, countText = '64'] = process.argv.slice(2);
const count = Number(countText);
const now = () => performance.timeOrigin + performance.now();
const PATIENCE = 20_000;

const kindOf = (id: string): Kind => {
  const found = findShelfKind(id);
  if (!found) throw new Error(`no kind ${id}`);
  return { ...found, bootSeconds: 0 };
};

const BOOTP = kindOf('tarnwick-valves-16');
const DHCP = kindOf('belloch-drive-d4');
const STATION = kindOf('eldrup-block-8');

const FIRST = 0x02bb00000000;
const STRANGERS = 0x02cc00000000;

function definition(index: number, kind: Kind, first = FIRST): DeviceDefinition {
  const id = `${first}-${index}`;
  const place = { id, title: id, place: '', segment: '', label: '' };
  const word = first === FIRST ? 'device' : 'stranger';
  return { ...place, kind, mac: toMac(first + index), hostName: `${word}-${index}` };
}

const definitions =
  mode === 'stations'
    ? Array.from({ length: count }, (_, i) => definition(i, STATION))
    : [
        ...Array.from({ length: count }, (_, i) => definition(i, i % 3 === 0 ? BOOTP : DHCP)),
        ...Array.from({ length: count / 10 }, (_, i) => definition(i, DHCP, STRANGERS)),
      ];

const devices = definitions.map((one) => new PracticeDevice(one, Math.random, now()));
const asks = new Map<number, number>();
let timer: NodeJS.Timeout | undefined;

function send(frames: readonly Uint8Array[]): void {
  for (const bytes of frames) {
    const frame = tryDissect(bytes);
    if (!(frame instanceof DecodeError) && frame.kind === 'dhcp') {
      const type = messageTypeOf(frame.dhcp);
      const { clientMac } = frame.dhcp;
      if (type !== 'REQUEST') asks.set(clientMac, (asks.get(clientMac) ?? 0) + 1);
    }
    carrier.send(bytes);
  }
}

function goOn(): void {
  clearTimeout(timer);
  for (const device of devices) if (device.nextAt() <= now()) send(device.run(now()));
  const next = Math.min(...devices.map((device) => device.nextAt()));
  if (next !== Infinity) timer = setTimeout(goOn, Math.max(0, next - now()));
}

const carrier = new LiveCarrier(
  'eth0',
  new Borrowings('/nowhere'),
  {
    link: () => undefined,
    frame(bytes) {
      const frame = tryDissect(bytes);
      if (frame instanceof DecodeError) return;
      for (const device of devices) {
        const { to } = frame.ethernet;
        // A frame for one MAC goes to that device alone, as a switch would have it.
        if (to % 2 ** 41 >= 2 ** 40 || to === device.definition.mac)
          send(device.receive(frame, now()));
      }
      goOn();
    },
  },
  kernelFilter(),
);

async function mixed(): Promise<void> {
  const start = now();
  let given = 0;
  while (now() - start < PATIENCE && given < count) {
    await new Promise((resolve) => setTimeout(resolve, 50));
    given = devices.slice(0, count).filter((one) => one.address).length;
  }
  const most = Math.max(...devices.slice(0, count).map((one) => asks.get(one.definition.mac) ?? 0));
  const strangers = devices.slice(count).filter((one) => one.address).length;
  process.stdout.write(`${JSON.stringify({ given, most, strangers, millis: now() - start })}\n`);
  process.exit(0);
}

goOn();
if (mode === 'mixed') void mixed();
else console.log('ready');
