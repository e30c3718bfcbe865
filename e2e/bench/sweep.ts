import type { FieldView, PresentView, ProofView, VigilView } from '@ipsonomo/core/api';
import { must, parsePrefix } from '@ipsonomo/core/net';
import { api, startServer, until, type TestServer } from '../harness';
import { addDevices, jobView } from '../jobs';
import { Wire, type Machine } from '../wire/namespaces';
import { besideLoad, LOAD, median, residentMegabytes, type Figure } from './figures';

// A sweep on the live carrier beside fping, in turn on the same wire in the same run; and a whole proof of a hundred.

const LIVE = 20;
const RUNS = 5;
const PROVEN = 100;
const WATCHED = 200;
const LOOK_AGAIN = 1000;
/** The part of a vigil after which its memory is looked at first. */
const WARM = 0.3;
/** The figure is for ten minutes; a bench of everything takes one. */
const VIGIL_MINUTES = Number(process.env['BENCH_VIGIL_MINUTES'] ?? 1);

const hex = (value: number) => value.toString(16).padStart(2, '0');
const macOf = (index: number) => `02:bb:00:00:01:${hex(index)}`;

/** Many devices on one adapter, each with a MAC and an address of its own. */
function plugIn(machine: Machine, addresses: readonly string[]): void {
  for (const scope of ['all', 'default']) {
    machine.run('sysctl', '-qw', `net.ipv4.conf.${scope}.arp_ignore=1`);
    machine.run('sysctl', '-qw', `net.ipv4.conf.${scope}.arp_announce=2`);
    machine.run('sysctl', '-qw', `net.ipv4.conf.${scope}.rp_filter=0`);
  }
  addresses.forEach((address, index) => {
    const name = `d${index}`;
    const link = ['link', 'add', 'link', 'eth0', 'name', name, 'address', macOf(index)];
    machine.ip(...link, 'type', 'macvlan', 'mode', 'bridge');
    machine.ip('addr', 'add', `${address}/22`, 'dev', name);
    machine.ip('link', 'set', name, 'up');
  });
}

async function jobIn(server: TestServer, name: string, network: string): Promise<string> {
  const { id } = await api<{ id: string }>(server, 'POST', '/jobs', { name });
  const { length } = must(parsePrefix(network));
  const subnet = { name, network, gateway: null, vlan: null, purpose: `a /${length}` };
  await api(server, 'POST', `/jobs/${id}/subnets`, subnet);
  return id;
}

const pause = (millis: number) => new Promise((resolve) => setTimeout(resolve, millis));
const field = (server: TestServer, jobId: string) =>
  api<FieldView>(server, 'GET', `/jobs/${jobId}/wire`);

/** A run of its own on the adapter, whichever job had it before. */
async function listenAnew(server: TestServer, jobId: string): Promise<void> {
  const wire = `/jobs/${jobId}/wire`;
  await api(server, 'POST', wire, { kind: 'live', adapter: 'mach0', evenSo: true });
  await api(server, 'POST', `${wire}/listen`);
}

interface Times {
  /** Until an address to ask from was claimed; fping has to be given one before. */
  readonly claim: number;
  /** From there to the last answer awaited. */
  readonly sweep: number;
}

/** One sweep, in milliseconds. */
async function swept(server: TestServer, jobId: string): Promise<Times> {
  await listenAnew(server, jobId);
  const start = performance.now();
  // It answers only when the search over layer 2 is over as well.
  const done = api(server, 'POST', `/jobs/${jobId}/sweep`);
  const isSweeping = async () =>
    (await field(server, jobId)).tasks.some(({ kind }) => kind === 'sweep');
  const isClaimed = async () =>
    (await field(server, jobId)).voices.some(({ state }) => state === 'ready');
  while (!(await isClaimed())) await pause(5);
  const claimed = performance.now();
  while (await isSweeping()) await pause(5);
  const times = { claim: claimed - start, sweep: performance.now() - claimed };
  await done;
  return times;
}

const found = async (server: TestServer, jobId: string): Promise<readonly string[]> => [
  ...new Set(
    (await api<PresentView[]>(server, 'GET', `/jobs/${jobId}/wire/present`)).map(
      (one) => one.address,
    ),
  ),
];

interface Swept {
  readonly ours: readonly number[];
  readonly claims: readonly number[];
  readonly theirs: readonly number[];
  readonly isSame: boolean;
  readonly count: number;
}

async function beside(
  server: TestServer,
  wire: Wire,
  jobId: string,
  network: string,
): Promise<Swept> {
  const ours: number[] = [];
  const claims: number[] = [];
  const theirs: number[] = [];
  let isSame = true;
  let count = 0;
  for (let run = 0; run < RUNS; run += 1) {
    const { claim, sweep } = await swept(server, jobId);
    ours.push(sweep);
    claims.push(claim);
    const seen = (await found(server, jobId)).toSorted();
    await pause(500);
    wire.laptop.ip('addr', 'add', '10.77.3.250/22', 'dev', 'mach0');
    wire.laptop.ip('neigh', 'flush', 'all');
    const start = performance.now();
    const { out } = wire.laptop.run('fping', '-a', '-q', '-i1', '-t300', '-r1', '-g', network);
    theirs.push(performance.now() - start);
    wire.laptop.ip('addr', 'flush', 'dev', 'mach0');
    const alive = out
      .split('\n')
      .filter((line) => /^10\.77\.\d+\.\d+$/.test(line))
      .toSorted();
    const listed = alive.filter((address) => address !== '10.77.3.250');
    const only = (a: readonly string[], b: readonly string[]) =>
      a.filter((one) => !b.includes(one));
    const [mine, others] = [only(seen, listed), only(listed, seen)];
    if (mine.length + others.length > 0) {
      isSame = false;
      console.error(
        `run ${run}: found by the sweep alone ${mine.join(' ') || 'none'}; by fping alone ${others.join(' ') || 'none'}`,
      );
    }
    count = seen.length;
  }
  return { ours, claims, theirs, isSame, count };
}

const seconds = (millis: readonly number[]) => `${(median(millis) / 1000).toFixed(2)} s`;

/** Plans so many valve blocks, the last number of each counting from 1. */
async function planMany(server: TestServer, jobId: string, count: number): Promise<void> {
  const { subnets } = await jobView(server, jobId);
  const devices = Array.from({ length: count }, (_, at) => ({
    ...{ title: `valves ${at}`, name: `valves-${at}`, subnetId: subnets[0]?.id ?? '' },
    ...{ kindId: 'tarnwick-valves-16', way: 'bootp', area: '', cabinet: '', position: '' },
    address: `10.77.1.${at + 1}`,
  }));
  await addDevices(server, jobId, devices);
}

async function proof(server: TestServer, jobId: string): Promise<Figure> {
  await planMany(server, jobId, PROVEN);
  const view = await jobView(server, jobId);
  for (const { interfaces } of view.devices)
    for (const { id, address } of interfaces) {
      const mac = macOf(LIVE + Number(address.split('.')[3]) - 1);
      await api(server, 'POST', `/jobs/${jobId}/interfaces/${id}/bind`, { mac, label: mac });
    }
  await listenAnew(server, jobId);
  const wish = { scope: { kind: 'job' }, perSecond: 1000 };
  await api(server, 'POST', `/jobs/${jobId}/proofs`, wish);
  const phase = async () => (await field(server, jobId)).proof?.phase;
  while ((await phase()) === 'sweep') await pause(10);
  const start = performance.now();
  while ((await phase()) === 'ask') await pause(10);
  const millis = performance.now() - start;
  const run = await until('the run is kept', async () => {
    const [last] = await api<ProofView[]>(server, 'GET', `/jobs/${jobId}/proofs`);
    return last?.how === 'done' && last.proven === PROVEN ? last : undefined;
  });
  return {
    what: `address, ping, services and identity of ${run.proven} devices, within ten packets a second for each`,
    ours: `${(millis / 1000).toFixed(2)} s`,
    ...{ reference: '', wanted: '≤ 5 s', isReached: millis <= 5000 },
  };
}

/**
 * What is really kept, in megabytes: what each thread had left after its last full collection, as `--trace-gc` tells it.
 * What is resident tells little: the engine's young generation grows and shrinks by tens of megabytes as it likes.
 */
function liveMegabytes(output: string): number {
  const told =
    /\[\d+:(0x[0-9a-f]+)\]\s+\d+ ms: Mark-Compact (?:\(reduce\) )?\S+ \(\S+\) -> ([\d.]+)/g;
  const last = new Map(
    [...output.matchAll(told)].map(([, thread, live]) => [thread, Number(live)]),
  );
  return [...last.values()].reduce((sum, live) => sum + live, 0);
}

/** Two hundred asked each second; a beat that was not kept counts as not asked. */
async function vigil(server: TestServer, jobId: string): Promise<Figure> {
  await planMany(server, jobId, WATCHED);
  await listenAnew(server, jobId);
  const wish = { scope: { kind: 'job' }, everySeconds: 1, minutes: VIGIL_MINUTES };
  await api(server, 'POST', `/jobs/${jobId}/vigil`, wish);
  const resident: number[] = [];
  await pause(VIGIL_MINUTES * 60_000 * WARM);
  const before = liveMegabytes(server.output());
  const view = await until(
    'the vigil is over',
    async () => {
      // As often as a page looks.
      await pause(LOOK_AGAIN);
      resident.push(residentMegabytes(server.pid()));
      const now = await api<VigilView>(server, 'GET', `/jobs/${jobId}/vigil`);
      return now.state?.how === 'done' ? now : undefined;
    },
    VIGIL_MINUTES * 60 + 60,
  );
  const after = liveMegabytes(server.output());
  const beats = view.state?.beats ?? 0;
  const missed = view.rows.reduce((sum, { summary }) => sum + beats - summary.asked, 0);
  const lost = view.rows.reduce((sum, { summary }) => sum + summary.lost, 0);
  const slowest = Math.max(...view.rows.map(({ summary }) => summary.slowest ?? 0));
  return {
    what: `a vigil of ${view.rows.length} devices each second for ${VIGIL_MINUTES} min (${beats} beats)`,
    ours: `${missed} beats missed, ${lost} lost, slowest answer ${slowest.toFixed(0)} ms; ${before.toFixed(1)} MB in use, then ${after.toFixed(1)} MB (resident at most ${Math.max(...resident).toFixed(0)} MB)`,
    reference: '',
    wanted: 'no missed beat, memory flat (± 2 MB)',
    isReached: missed === 0 && Math.abs(after - before) <= 2,
  };
}

export async function sweepFigures(): Promise<readonly Figure[]> {
  const wire = new Wire('ipsw');
  const server = await startServer('bench_sweep', {
    ...{ demo: false, namespace: wire.laptop.namespace, flags: ['--trace-gc'] },
  });
  try {
    const many = wire.addDevice('many', '02:00:5e:00:53:99');
    const live = Array.from({ length: LIVE }, (_, at) => `10.77.0.${at * 12 + 3}`);
    const others = Array.from({ length: WATCHED }, (_, at) => `10.77.1.${at + 1}`);
    plugIn(many, [...live, ...others]);
    await many.startScript('enip-device.ts', ['10.77.1.1/22', '0', 'tarnwick-valves-16']);
    const small = await jobIn(server, 'Small', '10.77.0.0/24');
    const large = await jobIn(server, 'Large', '10.77.0.0/22');
    const of24 = await beside(server, wire, small, '10.77.0.0/24');
    const of22 = await beside(server, wire, large, '10.77.0.0/22');
    const loaded = await besideLoad(LOAD, () => beside(server, wire, large, '10.77.0.0/22'));
    return [
      {
        what: `a /24 swept on the live carrier, ${of24.count} of 254 live, from an address of ours (its claim takes ${seconds(of24.claims)} before) to the last answer awaited`,
        ours: `${seconds(of24.ours)}, ${of24.isSame ? 'the same devices' : 'OTHER devices'}`,
        reference: `fping -a -q -i1 -t300 -r1 -g: ${seconds(of24.theirs)}`,
        wanted: 'the same devices, in at most its time',
        isReached: of24.isSame && median(of24.ours) <= median(of24.theirs),
      },
      {
        what: `a /22 swept, ${of22.count} of 1022 live`,
        ours: `${seconds(of22.ours)}, ${of22.isSame ? 'the same devices' : 'OTHER devices'}`,
        reference: `fping: ${seconds(of22.theirs)}`,
        ...{ wanted: '≤ 2.5 s', isReached: of22.isSame && median(of22.ours) <= 2500 },
      },
      {
        what: `the same beside ${LOAD} processes that never rest, ${loaded.count} of 1022 live, in each of ${RUNS} runs`,
        ours: `${seconds(loaded.ours)}, ${loaded.isSame ? 'the same devices' : 'OTHER devices'}`,
        reference: `fping: ${seconds(loaded.theirs)}`,
        ...{ wanted: 'the same devices in every run', isReached: loaded.isSame },
      },
      await proof(server, large),
      await vigil(server, await jobIn(server, 'Vigil', '10.77.0.0/22')),
    ];
  } finally {
    await server.stop();
    wire.takeDown();
  }
}
