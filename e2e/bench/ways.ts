import type { FieldView, StationView } from '@ipsonomo/core/api';
import { formatIpv4, formatMac, toIpv4, toMac } from '@ipsonomo/core/net';
import { api, startServer, until, type TestServer } from '../harness';
import { addDevices } from '../jobs';
import { Wire } from '../wire/namespaces';
import { median, type Figure } from './figures';

// Finding and giving many at once, on real adapters in namespaces.

const STATIONS = 64;
const DEVICES = 300;
const RUNS = 5;
/** Answers to a search are spread over this time. */
const WINDOW = 640;

interface Bench {
  readonly server: TestServer;
  readonly wire: Wire;
  readonly job: string;
}

async function onBench<T>(name: string, act: (bench: Bench) => Promise<T>): Promise<T> {
  const wire = new Wire(name);
  const server = await startServer(`bench_${name}`, {
    ...{ demo: false, namespace: wire.laptop.namespace },
  });
  try {
    const { id: job } = await api<{ id: string }>(server, 'POST', '/jobs', { name });
    await api(server, 'POST', `/jobs/${job}/wire`, { kind: 'live', adapter: 'mach0' });
    return await act({ server, wire, job });
  } finally {
    await server.stop();
    wire.takeDown();
  }
}

const listed = async (server: TestServer, job: string): Promise<number> =>
  (await api<StationView[]>(server, 'GET', `/jobs/${job}/wire/stations`)).length;

/** From the search to the last of 64 listed, on a run that has found none yet. */
const discoveryFigure = (): Promise<Figure> =>
  onBench('ipsd', async ({ server, wire, job }) => {
    const crowd = wire.addDevice('many', '02:00:5e:00:53:99');
    const args = ['stations', String(STATIONS)];
    await crowd.startScript('../bench/devices.ts', args);
    const times: number[] = [];
    for (let run = 0; run <= RUNS; run += 1) {
      await api(server, 'POST', `/jobs/${job}/wire/rest`);
      await api(server, 'POST', `/jobs/${job}/wire/listen`);
      await until('the list of another run is gone', async () => (await listed(server, job)) === 0);
      const start = performance.now();
      const search = api(server, 'POST', `/jobs/${job}/stations/search`, {});
      await until('all stations', async () => (await listed(server, job)) === STATIONS);
      times.push(performance.now() - start);
      await search;
    }
    const millis = median(times.slice(1));
    return {
      what: `${STATIONS} stations over layer 2, from the search to the last one listed`,
      ours: `${millis.toFixed(0)} ms`,
      reference: '',
      wanted: `its response window (${WINDOW} ms) + 200 ms`,
      isReached: millis <= WINDOW + 200,
    };
  });

async function planMixed({ server, job }: Bench): Promise<void> {
  const subnet = { name: 'Bench', network: '10.77.0.0/22', gateway: null, vlan: null, purpose: '' };
  const path = `/jobs/${job}`;
  const { id: subnetId } = await api<{ id: string }>(server, 'POST', `${path}/subnets`, subnet);
  const devices = Array.from({ length: DEVICES }, (_, i) => ({
    ...{ title: `device-${i}`, name: `device-${i}`, area: '', cabinet: '', position: '', subnetId },
    ...(i % 3 === 0
      ? { way: 'bootp', kindId: 'tarnwick-valves-16' }
      : { way: i % 3 === 1 ? 'dhcp-mac' : 'dhcp-name', kindId: 'belloch-drive-d4' }),
    address: formatIpv4(toIpv4(0x0a4d0100 + i)),
  }));
  const added = await addDevices(server, job, devices);
  const edits = devices.flatMap(({ way }, i) =>
    way === 'dhcp-name'
      ? []
      : [
          {
            ...{ op: 'set', type: 'interface', id: added[i], field: 'mac', from: null },
            to: formatMac(toMac(0x02bb00000000 + i)),
          },
        ],
  );
  await api(server, 'POST', `${path}/edits`, { edits, why: 'bound at the desk' });
}

interface Mixed {
  readonly given: number;
  readonly most: number;
  readonly strangers: number;
  readonly millis: number;
}

/** All switched on at once, each with its own clock of requests and pauses. */
const powerUpFigure = (): Promise<Figure> =>
  onBench('ipsm', async (bench) => {
    const { server, wire, job } = bench;
    await planMixed(bench);
    await api(server, 'POST', `/jobs/${job}/wire/listen`);
    await api(server, 'POST', `/jobs/${job}/wire/arm`, { minutes: 10 });
    await until(
      'it answers',
      async () => (await api<FieldView>(server, 'GET', `/jobs/${job}/wire`)).answeringUntil,
    );
    await new Promise((resolve) => setTimeout(resolve, 2500)); // every address is probed before
    const crowd = wire.addDevice('many', '02:00:5e:00:53:99');
    const done = JSON.parse(
      crowd.script('../bench/devices.ts', ['mixed', String(DEVICES)]),
    ) as Mixed;
    const { given, most, strangers, millis } = done;
    return {
      what: `${DEVICES} devices switched on at once: BootP, DHCP, by name, and ${DEVICES / 10} strangers`,
      ours: `${given} given in ${(millis / 1000).toFixed(1)} s, ${most} requests at most, ${strangers} strangers`,
      reference: '',
      wanted: 'all, within one retry, no stranger',
      isReached: given === DEVICES && most <= 2 && strangers === 0,
    };
  });

export const waysFigures = async (): Promise<readonly Figure[]> => [
  await discoveryFigure(),
  await powerUpFigure(),
];
