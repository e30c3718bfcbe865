import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { toMac } from '@ipsonomo/core/net';
import { findShelfKind } from '@ipsonomo/core/plan';
import { PracticeSite, type DeviceDefinition, type SiteDefinition } from '@ipsonomo/practice';
import { REAL_TIME } from '../../threads/src/time';
import { FieldEngine } from '../../wire/src/engine/engine';

// A search over layer 2 among 64 stations of a practice site, from the search to the last one listed, in
// real time. Prints the milliseconds of each run as JSON.

const STATIONS = 64;
const RUNS = 5;
const LAPTOP = toMac(0x02005e0053f0);
const { clock } = REAL_TIME;
const now = () => clock.now();

const kind = findShelfKind('eldrup-block-8');
if (!kind) throw new Error('no kind');
const station = (index: number): DeviceDefinition => ({
  ...{ id: `s${index}`, title: `s${index}`, place: '', segment: 'hall', label: '' },
  ...{ kind: { ...kind, bootSeconds: 0 }, mac: toMac(0x02bb00000000 + index) },
});
const definition: SiteDefinition = {
  segments: [
    {
      ...{ id: 'hall', title: 'Hall', name: 'hall', mac: toMac(0x02dd00000000) },
      vlan: 1,
      port: '1',
    },
  ],
  devices: Array.from({ length: STATIONS }, (_, index) => station(index)),
  routers: [],
  faults: [],
};

async function search(): Promise<number> {
  const site: PracticeSite = new PracticeSite(
    definition,
    Math.random,
    (frame) => engine.frame(frame),
    now(),
  );
  let last = 0;
  const ignored = () => undefined;
  const engine: FieldEngine = new FieldEngine(
    {
      ...{ source: 'practice', mac: LAPTOP, openTcp: undefined, askUdp: undefined, close: ignored },
      send: (frame) => site.fromLaptop(frame, now()),
    },
    clock,
    mkdtempSync(join(tmpdir(), 'ipsonomo-bench-')),
    {
      ...{ events: ignored, heard: ignored, forgot: ignored, changed: ignored, present: ignored },
      vigil: ignored,
      stations() {
        if (engine.foundStations().length === STATIONS && last === 0) last = now();
      },
    },
  );
  const timer = setInterval(() => {
    site.run(now());
    engine.run(now());
  }, 1);
  await new Promise((resolve) => setTimeout(resolve, 1500)); // every device has started
  engine.plan({ jobId: 'bench', targets: [], subnets: [] });
  engine.listen('bench');
  const start = now();
  await engine.acts.stations.search();
  clearInterval(timer);
  engine.close();
  return last - start;
}

async function main(): Promise<void> {
  const millis: number[] = [];
  for (let run = 0; run < RUNS; run += 1) millis.push(await search());
  console.log(JSON.stringify(millis));
}

void main();
