import { toMac } from '@ipsonomo/core/net';
import { findShelfKind } from '@ipsonomo/core/plan';
import { PracticeSite, type DeviceDefinition } from '@ipsonomo/practice';

// Devices of a practice site that all ask for an address, for half a minute of its time. Prints the processor
// milliseconds for each number of them, and how many frames left, as JSON.

const SECONDS = 31;

const kind = findShelfKind('dunvarrick-drive-m');
if (!kind) throw new Error('no kind');

const asking = (index: number): DeviceDefinition => ({
  ...{ id: `s${index}`, title: `s${index}`, place: '', segment: 'hall', label: '' },
  ...{ kind, mac: toMac(0x02bb00000000 + index) },
});

function run(count: number): {
  readonly count: number;
  readonly millis: number;
  readonly frames: number;
} {
  const hall = {
    id: 'hall',
    title: 'Hall',
    name: 'hall',
    mac: toMac(0x02dd00000000),
    vlan: 1,
    port: '1',
  };
  let frames = 0;
  let seed = 7;
  const random = () => (seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0) / 2 ** 32;
  const devices = Array.from({ length: count }, (_, index) => asking(index));
  const site = new PracticeSite(
    { segments: [hall], devices, routers: [], faults: [] },
    random,
    () => (frames += 1),
    0,
  );
  const before = process.cpuUsage();
  for (let now = site.nextAt(); now <= SECONDS * 1000; now = site.nextAt()) site.run(now);
  const { user, system } = process.cpuUsage(before);
  return { count, millis: (user + system) / 1000, frames };
}

run(50);
process.stdout.write(JSON.stringify([100, 500, 2000].map(run)));
