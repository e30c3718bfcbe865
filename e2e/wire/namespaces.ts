import { execFileSync, spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { join } from 'node:path';
import { toHex } from '@ipsonomo/core/wire';

// Real adapters and a real kernel without leaving this machine: network namespaces of the tests' own,
// joined by bridges that have no way out.

const NOT_OURS = /No such file|Cannot find device|does not exist/;

function ip(...args: readonly string[]): string {
  return execFileSync('ip', args, { encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'] });
}

/** `ip`, where what it removes may be gone already. */
function ipQuietly(...args: readonly string[]): void {
  const done = spawnSync('ip', args, { encoding: 'utf8' });
  if (done.status !== 0 && !NOT_OURS.test(done.stderr)) throw new Error(done.stderr);
}

const ROOT = join(__dirname, '../..');

/** A TypeScript program of the tests as a command. */
const program = (file: string, args: readonly string[]): [string, ...string[]] => [
  ...([process.execPath, '--require', join(ROOT, 'node_modules/tsx/dist/cjs/index.cjs')] as const),
  join(__dirname, file),
  ...args,
];

/** One machine on the tests' wire. */
export class Machine {
  constructor(readonly namespace: string) {}

  ip(...args: readonly string[]): string {
    return ip('-n', this.namespace, ...args);
  }

  /** Runs a command to its end and tells what it printed and how it ended. */
  run(command: string, ...args: readonly string[]) {
    const done = spawnSync('ip', ['netns', 'exec', this.namespace, command, ...args], {
      encoding: 'utf8',
      timeout: 60_000,
    });
    return { code: done.status ?? -1, out: done.stdout + done.stderr };
  }

  /** Runs a TypeScript program of the tests, `input` on its standard input. */
  script(file: string, args: readonly string[], input = '') {
    const done = spawnSync('ip', ['netns', 'exec', this.namespace, ...program(file, args)], {
      ...{ input, encoding: 'utf8', cwd: ROOT, timeout: 120_000 },
    });
    if (done.status !== 0) throw new Error(`${file}: ${done.stdout}${done.stderr}`);
    return done.stdout;
  }

  /** Such a program as a command, to be started. */
  readonly program = program;

  /** Starts such a program that stays; resolves once it has said that it is ready. */
  startScript(file: string, args: readonly string[]): Promise<ChildProcess> {
    const child = this.start(...program(file, args));
    return new Promise((resolve, reject) => {
      child.once('exit', () => reject(new Error(`${file} ended`)));
      child.stdout?.once('data', () => resolve(child));
    });
  }

  /** Puts frames on its wire that no kernel would send. */
  send(frames: readonly Uint8Array[]): void {
    this.script('send.ts', [], frames.map(toHex).join('\n'));
  }

  /** Starts a command that stays until the wire is taken down. */
  start(command: string, ...args: readonly string[]): ChildProcess {
    return spawn('ip', ['netns', 'exec', this.namespace, command, ...args], {
      stdio: ['pipe', 'pipe', 'inherit'],
    });
  }

  /** A number the kernel keeps of an adapter, such as `tx_packets`. */
  statistic(adapter: string, name: string): number {
    const file = `/sys/class/net/${adapter}/statistics/${name}`;
    return Number(this.run('cat', file).out);
  }
}

/**
 * A switch with the laptop's two adapters on it: `mach0` on the machine's network, `off0` on the
 * office's. Devices hang on either with one adapter, `eth0`.
 */
export class Wire {
  readonly laptop: Machine;
  readonly hub: Machine;
  private readonly machines: Machine[] = [];
  private ports = 0;

  constructor(private readonly name: string) {
    this.hub = this.addMachine('hub');
    this.laptop = this.addMachine('lap');
    for (const bridge of ['machine', 'office'])
      this.hub.ip('link', 'add', bridge, 'type', 'bridge', 'forward_delay', '0', 'stp_state', '0');
    for (const bridge of ['machine', 'office']) this.hub.ip('link', 'set', bridge, 'up');
    this.plug(this.laptop, 'mach0', 'machine', '02:00:5e:00:53:f0');
    this.plug(this.laptop, 'off0', 'office', '02:00:5e:00:53:f1');
  }

  addDevice(id: string, mac: string, bridge: 'machine' | 'office' = 'machine'): Machine {
    const device = this.addMachine(id);
    this.plug(device, 'eth0', bridge, mac);
    return device;
  }

  /** Puts a cable between a machine and a bridge; returns the port at the bridge's end. */
  plug(machine: Machine, adapter: string, bridge: string, mac: string): string {
    this.ports += 1;
    const port = `port${this.ports}`;
    const end = ['peer', 'name', adapter, 'netns', machine.namespace, 'address', mac];
    this.hub.ip('link', 'add', port, 'type', 'veth', ...end);
    this.hub.ip('link', 'set', port, 'master', bridge, 'up');
    machine.ip('link', 'set', adapter, 'up');
    return port;
  }

  /** Ends what runs in the namespaces, and only that, and takes them down. */
  takeDown(): void {
    for (const { namespace } of this.machines) {
      for (const pid of ip('netns', 'pids', namespace).split('\n').filter(Boolean))
        try {
          process.kill(Number(pid), 'SIGKILL');
        } catch {
          // It ended by itself meanwhile.
        }
      ipQuietly('netns', 'del', namespace);
    }
  }

  addMachine(id: string): Machine {
    const namespace = `${this.name}-${id}`;
    ipQuietly('netns', 'del', namespace);
    ip('netns', 'add', namespace);
    const machine = new Machine(namespace);
    this.machines.push(machine);
    // Neighbour discovery would only be noise in the captures.
    for (const scope of ['all', 'default'])
      machine.run('sysctl', '-qw', `net.ipv6.conf.${scope}.disable_ipv6=1`);
    machine.ip('link', 'set', 'lo', 'up');
    return machine;
  }
}
