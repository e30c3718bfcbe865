import { once } from 'node:events';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { FieldView } from '@ipsonomo/core/api';
import { formatIpv4, formatMac, toIpv4, toMac } from '@ipsonomo/core/net';
import { api, startServer, until, type TestServer } from '../harness';
import { addDevices } from '../jobs';
import { Wire, type Machine } from '../wire/namespaces';
import { besideLoad, LOAD, median, residentMegabytes, type Figure } from './figures';

// The live carrier beside dnsmasq, in turn on the same wire in the same run.

const CLIENTS = 500;
const RUNS = 5;
const NETWORK = 0x0a4d0000; // 10.77.0.0/22

const macOf = (index: number): string => formatMac(toMac(0x02bb00000000 + index));
const addressOf = (index: number): string => formatIpv4(toIpv4(NETWORK + 256 + index));

async function planMany(server: TestServer): Promise<string> {
  const { id } = await api<{ id: string }>(server, 'POST', '/jobs', { name: 'Bench' });
  const subnet = { name: 'Bench', network: '10.77.0.0/22', gateway: null, vlan: null, purpose: '' };
  const path = `/jobs/${id}`;
  const { id: subnetId } = await api<{ id: string }>(server, 'POST', `${path}/subnets`, subnet);
  const place = { area: '', cabinet: '', position: '', way: 'bootp', kindId: 'tarnwick-valves-16' };
  const devices = Array.from({ length: CLIENTS }, (_, i) => {
    const name = `valves-${i + 1}`;
    return { ...place, title: name, name, subnetId, address: addressOf(i) };
  });
  const added = await addDevices(server, id, devices);
  for (const [i, at] of added.entries()) {
    const binding = { mac: macOf(i), label: macOf(i) };
    await api(server, 'POST', `${path}/interfaces/${at}/bind`, binding);
  }
  return id;
}

function startDnsmasq(laptop: Machine, folder: string) {
  const hosts = join(folder, 'hosts');
  const lines = Array.from({ length: CLIENTS }, (_, i) => `${macOf(i)},${addressOf(i)}`);
  writeFileSync(hosts, lines.join('\n'));
  const range = '--dhcp-range=10.77.0.0,static,255.255.252.0,infinite';
  const where = ['-k', '-p', '0', '-i', 'mach0', '--bind-interfaces', '-u', 'root'];
  const quiet = [
    '--quiet-dhcp',
    '--leasefile-ro',
    '--dhcp-option=3',
    '--no-ping',
    '--log-facility=/dev/null',
  ];
  return laptop.start('dnsmasq', ...where, range, `--dhcp-hostsfile=${hosts}`, ...quiet);
}

const pause = (millis: number) => new Promise((resolve) => setTimeout(resolve, millis));

/** Answers, once it has looked for other servers. */
async function arm({ server, jobId }: Pick<Turns, 'server' | 'jobId'>): Promise<void> {
  const wire = `/jobs/${jobId}/wire`;
  await api(server, 'POST', `${wire}/arm`, { minutes: 10 });
  await until('it answers', async () => (await api<FieldView>(server, 'GET', wire)).answeringUntil);
}

/** Runs the clients while ours answers, or while dnsmasq does. */
class Turns {
  constructor(
    readonly server: TestServer,
    readonly jobId: string,
    private readonly wire: Wire,
    private readonly clients: Machine,
  ) {}

  async ours<T>(...args: readonly string[]): Promise<T> {
    await arm(this);
    await pause(2500); // every address is probed before the first request
    const result = this.run<T>(args);
    await api(this.server, 'POST', `/jobs/${this.jobId}/wire/silence`);
    return result;
  }

  async dnsmasq<T>(...args: readonly string[]): Promise<T> {
    this.wire.laptop.ip('addr', 'add', '10.77.0.1/22', 'dev', 'mach0');
    const child = startDnsmasq(this.wire.laptop, this.server.folder);
    await pause(800);
    const result = this.run<T>(args);
    child.kill('SIGTERM');
    this.wire.laptop.ip('addr', 'flush', 'dev', 'mach0');
    await pause(300);
    return result;
  }

  run<T>(args: readonly string[]): T {
    return JSON.parse(this.clients.script('../bench/clients.ts', args)) as T;
  }
}

interface Storm {
  readonly rounds: number;
  readonly millis: number;
  readonly unanswered: number;
}

/** As quick as dnsmasq, at least so many times. */
const TIMES_AS_QUICK = 20;

async function storms(turns: Turns) {
  const ours: Storm[] = [];
  const theirs: Storm[] = [];
  for (let run = 0; run < RUNS; run += 1) {
    ours.push(await turns.ours<Storm>('storm', String(CLIENTS)));
    theirs.push(await turns.dnsmasq<Storm>('storm', String(CLIENTS)));
  }
  const times = (all: readonly Storm[]) => median(all.map(({ millis }) => millis));
  const say = (all: readonly Storm[]) => {
    const left = Math.max(...all.map((one) => one.unanswered));
    const rounds = `${median(all.map((one) => one.rounds))} round(s)`;
    return `${times(all).toFixed(0)} ms, ${rounds}${left ? `, ${left} unanswered` : ''}`;
  };
  return {
    ...{ ours: say(ours), theirs: say(theirs), millis: times(ours) },
    ratio: times(theirs) / times(ours),
    isOneRound: ours.every((one) => one.rounds === 1),
  };
}

async function stormFigures(turns: Turns): Promise<readonly Figure[]> {
  const alone = await storms(turns);
  const loaded = await besideLoad(LOAD, () => storms(turns));
  const what = `${CLIENTS} BootP clients ask at the same instant, until the last is answered`;
  const wanted = `≥ ${TIMES_AS_QUICK} times as quick as dnsmasq`;
  return [
    {
      ...{ what, ours: `${alone.ours}: ${alone.ratio.toFixed(0)} times as quick` },
      reference: `dnsmasq: ${alone.theirs}`,
      wanted: `one round, ≤ 300 ms, ${wanted}`,
      isReached: alone.millis <= 300 && alone.isOneRound && alone.ratio >= TIMES_AS_QUICK,
    },
    {
      what: `the same beside ${LOAD} processes that never rest`,
      ours: `${loaded.ours}: ${loaded.ratio.toFixed(0)} times as quick`,
      reference: `dnsmasq: ${loaded.theirs}`,
      ...{ wanted, isReached: loaded.ratio >= TIMES_AS_QUICK },
    },
  ];
}

async function latencyFigure(turns: Turns): Promise<Figure> {
  interface Times {
    readonly p50: number;
    readonly p99: number;
  }
  const ours: Times[] = [];
  const theirs: Times[] = [];
  for (let run = 0; run < RUNS; run += 1) {
    ours.push(await turns.ours<Times>('one', '2000'));
    theirs.push(await turns.dnsmasq<Times>('one', '2000'));
  }
  const of = (all: readonly Times[]) => ({
    p50: median(all.map((one) => one.p50)),
    p99: median(all.map((one) => one.p99)),
  });
  const say = ({ p50, p99 }: Times) => `p50 ${p50.toFixed(2)} ms, p99 ${p99.toFixed(2)} ms`;
  return {
    what: 'one request, frame in to frame out, seen from the client',
    ours: say(of(ours)),
    reference: `dnsmasq: ${say(of(theirs))}`,
    wanted: 'p50 ≤ dnsmasq’s, p99 ≤ 5 ms',
    isReached: of(ours).p50 <= of(theirs).p50 && of(ours).p99 <= 5,
  };
}

async function memoryFigure(turns: Turns): Promise<Figure> {
  const pid = turns.server.pid();
  await turns.ours('many', '20000', '2000');
  const before = residentMegabytes(pid);
  const { answered } = await turns.ours<{ answered: number }>('many', '100000', '2000');
  await pause(2000);
  const grown = residentMegabytes(pid) - before;
  return {
    what: `memory of the server after 100,000 requests of 2,000 clients (${answered} answered)`,
    ours: `${before.toFixed(0)} MB + ${grown.toFixed(0)} MB`,
    reference: '',
    wanted: 'grows by < 50 MB',
    isReached: grown < 50,
  };
}

const FOREIGN = 20_000; // frames a second
const FOREIGN_SECONDS = 10;
const QUESTION_EVERY = 100; // ms

/** Processor seconds of each thread of a process so far. */
function threadSeconds(pid: number): ReadonlyMap<string, number> {
  const tasks = `/proc/${pid}/task`;
  return new Map(
    readdirSync(tasks).map((id) => {
      const text = readFileSync(join(tasks, id, 'stat'), 'utf8');
      const fields = text.replace(/^.*\) /, '').split(' ');
      return [id, (Number(fields[11]) + Number(fields[12])) / 100];
    }),
  );
}

interface Answers {
  readonly asked: number;
  readonly answered: number;
  readonly p99: number;
}

/** A plant in which everybody asks for everybody, and one of ours that asks for its address in between. */
async function foreignFigure(turns: Turns, wire: Wire): Promise<Figure> {
  const { server, jobId } = turns;
  const wireOf = `/jobs/${jobId}/wire`;
  const received = async () => (await api<FieldView>(server, 'GET', wireOf)).counters.received;
  const crowd = wire.addDevice('crowd', '02:00:5e:00:53:9a');
  const good = wire.addDevice('good', macOf(0));
  await arm(turns);
  await pause(2500);
  const [before, threads] = [await received(), threadSeconds(server.pid())];
  const count = FOREIGN * FOREIGN_SECONDS;
  const talking = crowd.start(
    ...crowd.program('arps.ts', [String(count), String(FOREIGN), '2000']),
  );
  const questions = String((FOREIGN_SECONDS * 1000) / QUESTION_EVERY);
  const asking = good.start(
    ...good.program('asking.ts', [questions, String(QUESTION_EVERY), macOf(0)]),
  );
  let said = '';
  asking.stdout?.on('data', (data: Buffer) => (said += data.toString()));
  await Promise.all([once(talking, 'exit'), once(asking, 'exit')]);
  await pause(1000);
  const { asked, answered, p99 } = JSON.parse(said) as Answers;
  const heard = (await received()) - before - asked;
  // The thread of the wire does nearly all of it; the one that answers is told what is new.
  const used = [...threadSeconds(server.pid())].map(([id, all]) => all - (threads.get(id) ?? 0));
  const share = (100 * Math.max(...used)) / FOREIGN_SECONDS;
  await api(server, 'POST', `${wireOf}/silence`);
  return {
    what: `${FOREIGN} foreign ARP frames a second for ${FOREIGN_SECONDS} s (${((100 * heard) / count).toFixed(1)} % heard), and one of ours that asks in between`,
    ours: `${answered} of ${asked} answered, p99 ${p99.toFixed(1)} ms; the wire's thread takes ${share.toFixed(0)} % of a core`,
    reference: '',
    wanted: 'none of ours lost, ≤ 50 % of a core',
    isReached: answered === asked && share <= 50,
  };
}

export async function wireFigures(): Promise<readonly Figure[]> {
  const wire = new Wire('ipsb');
  const options = { demo: false, namespace: wire.laptop.namespace };
  const server = await startServer('bench_wire', options);
  try {
    const clients = wire.addDevice('many', '02:00:5e:00:53:99');
    const jobId = await planMany(server);
    const wireOf = `/jobs/${jobId}/wire`;
    await api(server, 'POST', wireOf, { kind: 'live', adapter: 'mach0' });
    await api(server, 'POST', `${wireOf}/listen`);
    await until('it listens', async () => (await api<FieldView>(server, 'GET', wireOf)).runId);
    const turns = new Turns(server, jobId, wire, clients);
    return [
      ...(await stormFigures(turns)),
      await latencyFigure(turns),
      await memoryFigure(turns),
      await foreignFigure(turns, wire),
    ];
  } finally {
    await server.stop();
    wire.takeDown();
  }
}
