import { expect, test } from '@playwright/test';
import { must, parseIpv4, parsePrefix } from '@ipsonomo/core/net';
import { laptopCommands } from '@ipsonomo/core/plan';
import { startServer, until, type TestServer } from '../harness';
import { Job } from './job';
import { Wire } from './namespaces';

// Our own small host among real ones: a device of the practice site on a real wire, talked to by the
// Linux kernel's ARP, ping and TCP, and given its address by dnsmasq.

let wire: Wire;
let server: TestServer | undefined;

test.describe.configure({ mode: 'serial' });

test.beforeAll(() => {
  wire = new Wire('ipsp');
});

test.afterAll(async () => {
  await server?.stop();
  wire?.takeDown();
});

test('dnsmasq leases it an address; the kernel resolves, pings and refuses to share it', async () => {
  const { laptop } = wire;
  laptop.ip('addr', 'add', '10.77.0.1/24', 'dev', 'mach0');
  const quiet = ['-k', '-p', '0', '-u', 'root', '--leasefile-ro', '--no-ping', '--dhcp-option=3'];
  const hosts = '--dhcp-host=02:00:5e:00:53:51,10.77.0.51,practice-1';
  const where = ['-i', 'mach0', '--bind-interfaces', '--dhcp-range=10.77.0.0,static,255.255.255.0'];
  const dnsmasq = laptop.start('dnsmasq', ...quiet, ...where, hosts);
  const device = wire.addDevice('p1', '02:00:5e:00:53:51');
  await device.startScript('practice-device.ts', ['belloch-drive-d4', '02:00:5e:00:53:51']);
  await until(
    'the kernel pings it',
    async () => laptop.run('busybox', 'ping', '-c', '1', '-W', '1', '10.77.0.51').code === 0,
    30,
  );
  const three = laptop.run(
    'busybox',
    'ping',
    '-c',
    '3',
    '-i',
    '0.2',
    '-s',
    '1000',
    '10.77.0.51',
  ).out;
  expect(three).toContain('3 packets received');
  expect(laptop.ip('neigh', 'show', '10.77.0.51')).toContain('02:00:5e:00:53:51');
  const taken = ['arping', '-D', '-c', '2', '-w', '3', '-I', 'mach0', '10.77.0.51'];
  expect(laptop.run('busybox', ...taken).code).toBe(1);
  dnsmasq.kill('SIGTERM');
  laptop.ip('addr', 'flush', 'dev', 'mach0');
});

test('heard, bound, given, told to keep it over the kernel\u2019s TCP, through a power cut, proven', async () => {
  server = await startServer('wire_practice', { demo: false, namespace: wire.laptop.namespace });
  const job = await Job.begin(server, 'Bench');
  await job.listenOn('mach0');
  const mac = '02:00:5e:00:53:52';
  const device = wire.addDevice('p2', mac);
  const args = ['tarnwick-valves-16', mac];
  const power = await device.startScript('practice-device.ts', args);
  const at = await job.plan('valves-52', 'tarnwick-valves-16', 'bootp', '10.77.0.102');
  await until('it is heard', async () => (await job.heard()).some((one) => one.mac === mac));
  await job.bind(at, mac);
  await job.answer();
  await job.seen(at, 'has-address', 40);
  await job.act(at, 'pin');
  expect((await job.seen(at, 'told-to-keep')).facts).toMatchObject({ before: 1, after: 0 });
  await job.act(at, 'watch-power');
  await new Promise((resolve) => setTimeout(resolve, 1000));
  power.stdin?.write('off\n');
  await job.seen(at, 'gone');
  power.stdin?.write('on\n');
  await job.seen(at, 'kept', 30);
  await job.check(at);
  await job.reaches(at, 'proven');
});

test('the laptop’s commands put a second address on the adapter and take it off again', () => {
  const { laptop } = wire;
  const before = laptop.ip('-4', '-o', 'address', 'show', 'dev', 'mach0');
  const beside = { address: must(parseIpv4('192.168.77.245')) };
  const at = { ...beside, prefix: must(parsePrefix('192.168.77.0/24')) };
  const { set, back } = laptopCommands('Linux', 'mach0', at);
  const type = (line: string) => laptop.run('sh', '-c', line.replace(/^sudo /, '')).code;
  expect(set.map(type)).toEqual([0]);
  expect(laptop.ip('-4', '-o', 'address', 'show', 'dev', 'mach0')).toContain('192.168.77.245/24');
  expect(back.map(type)).toEqual([0]);
  expect(laptop.ip('-4', '-o', 'address', 'show', 'dev', 'mach0')).toBe(before);
});
