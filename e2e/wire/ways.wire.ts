import { execFileSync } from 'node:child_process';
import { chmodSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import type { RunView } from '@ipsonomo/core/api';
import { api, download, until } from '../harness';
import { dhclient, udhcpc } from './clients';
import { bootpRequest, mac, tagged } from './frames';
import { onWire } from './on-wire';

// Names, switch ports and layer 2 on real adapters: clients and a relay of Debian, and stations of the
// practice site that speak through sockets of their own.

const TERMINAL = 'strathan-terminal-4';
const BLOCK = 'eldrup-block-8';
const DRIVE = 'belloch-drive-d4';

const on = onWire('ipsw');

test('DHCP by name: the identifier is the key, letter by letter, whatever the MAC', async () => {
  const at = await on.job.plan('terminal4-001', TERMINAL, 'dhcp-name', '10.77.0.112');
  const device = on.wire.addDevice('t1', '02:00:5e:00:53:21');
  await on.job.answer();
  expect(dhclient(device, 'Terminal4-001', 4).address).toBeUndefined();
  expect(dhclient(device, 'terminal4-001', 20).address).toBe('10.77.0.112');
  await on.job.seen(at, 'asked-by-name');
  await on.job.seen(at, 'has-address');
  expect((await on.job.at(at)).stage).toBe('given');

  // The device is swapped: the new one has another MAC and the same switches.
  device.ip('link', 'set', 'eth0', 'down');
  const spare = on.wire.addDevice('t2', '02:00:5e:00:53:22');
  expect(dhclient(spare, 'terminal4-001', 20).address).toBe('10.77.0.112');
  const asked = async () => (await on.job.at(at)).askedBy === '02:00:5e:00:53:22';
  await until('the spare is the device now', asked);
});

test('DHCP by switch port: moving the cable moves the address', async () => {
  const left = await on.job.plan('left', DRIVE, 'dhcp-port', '10.77.0.121');
  const right = await on.job.plan('right', DRIVE, 'dhcp-port', '10.77.0.122');
  await on.job.plugInto(left, 'p1');
  await on.job.plugInto(right, 'p2');
  const relay = on.wire.addDevice('rly', '02:00:5e:00:53:05');
  relay.ip('addr', 'add', '10.77.0.5/24', 'dev', 'eth0');
  const client = on.wire.addMachine('cl');
  for (const [port, adapter, address] of [
    ['p1', 'a1', '10.77.0.6'],
    ['p2', 'a2', '10.77.0.7'],
  ] as const) {
    const end = [
      'peer',
      'name',
      adapter,
      'netns',
      client.namespace,
      'address',
      '02:00:5e:00:53:31',
    ];
    relay.ip('link', 'add', port, 'type', 'veth', ...end);
    relay.ip('addr', 'add', `${address}/32`, 'dev', port);
    relay.ip('link', 'set', port, 'up');
    client.ip('link', 'set', adapter, 'up');
  }
  await on.job.answer();
  const voice = await until(
    'a voice',
    async () => (await on.job.field()).voices.find((one) => one.state === 'ready')?.address,
  );
  // It adds the adapter a request came in at as circuit id (option 82).
  const sides = '-id p1 -id p2 -iu eth0';
  const program = relay.start('sh', '-c', `exec dhcrelay -4 -d -a ${sides} ${voice} 2>/dev/null`);
  await until('the relay is there', async () => relay.run('ss', '-lun').out.includes(':67'));
  expect(udhcpc(client, 15, 'a1').address).toBe('10.77.0.121');
  expect((await on.job.seen(left, 'asked-by-port')).facts.port).toBe('p1');
  client.ip('link', 'set', 'a1', 'down');
  expect(udhcpc(client, 15, 'a2').address).toBe('10.77.0.122');
  expect((await on.job.seen(right, 'asked-by-port')).facts.port).toBe('p2');
  program.kill('SIGTERM');
});

test('layer 2: found without an address, flashed, named, given to stay, through a power cut', async () => {
  const mac = '02:00:5e:00:53:41';
  const device = on.wire.addDevice('s1', mac);
  const other = on.wire.addDevice('s2', '02:00:5e:00:53:42');
  const [station] = await Promise.all([
    device.startScript('practice-device.ts', [BLOCK, mac]),
    other.startScript('practice-device.ts', [BLOCK, '02:00:5e:00:53:42']),
  ]);
  const at = await on.job.plan('sl1-block-1', BLOCK, 'layer2-name', '10.77.0.105');
  // They need their time to start, and are found whenever they have.
  const found = await until('both stations', async () => {
    await on.job.search();
    const list = await on.job.stations();
    return list.length === 2 && list;
  });
  // Whichever spoke first.
  const seen = found.map((one) => [one.mac, one.name, one.address] as const);
  expect(seen.sort(([a], [b]) => a.localeCompare(b))).toEqual([
    [mac, '', null],
    ['02:00:5e:00:53:42', '', null],
  ]);
  await on.job.flash(mac);
  await on.job.bind(at, mac);
  await on.job.reaches(at, 'heard');
  await on.job.act(at, 'station', { give: 'stored' });
  await on.job.seen(at, 'told-to-keep');
  await on.job.seen(at, 'named');
  await on.job.reaches(at, 'given');
  await on.job.act(at, 'watch-power');
  station.stdin?.write('off\n');
  await on.job.seen(at, 'gone');
  await new Promise((resolve) => setTimeout(resolve, 2500)); // longer than it needs to start
  station.stdin?.write('on\n');
  await on.job.reaches(at, 'pinned');
  // The other one is told what it may not have.
  const second = await on.job.plan('sl1-block-2', BLOCK, 'layer2-name', '10.77.0.106');
  await on.job.bind(second, '02:00:5e:00:53:42');
  await on.job.act(second, 'station', { give: 'temporary' });
  await on.job.seen(second, 'given-for-now');

  // It tells who it is and what is plugged in, over the kernel's own UDP.
  await on.job.check(at);
  const { facts } = await on.job.seen(at, 'found-as-planned');
  expect(facts).toMatchObject({
    ...{ says: 'PROFINET', serial: 'S005341', revision: '3.0.0', name: 'sl1-block-1' },
    modules: 'slot 1: 8 channels; slot 2: channel state',
  });
  await until('the borrowed address is given back', async () => {
    const mine = on.wire.laptop.ip('-4', 'addr', 'show', 'dev', 'mach0');
    return !mine.includes('inet ');
  });
});

test('lldpd at the other end of the cable: which switch, which port, without a word of ours', async () => {
  // At the switch's end of the laptop's cable; a bridge passes no such frames on.
  const own = mkdtempSync(join(tmpdir(), 'ipsonomo-lldpd-'));
  chmodSync(own, 0o755); // it gives up its rights
  const control = join(own, 'lldpd.sock');
  const daemon = on.wire.hub.start('sh', '-c', `exec lldpd -d -u ${control} -I port1 2>&1`);
  let said = '';
  daemon.stdout?.on('data', (text) => (said += String(text)));
  /** One that has ended says why, and nobody waits for it. */
  const whileItRuns = async <T>(what: string, look: () => Promise<T | false>): Promise<T> => {
    const found = await until(what, async () => daemon.exitCode !== null || look());
    if (typeof found === 'boolean' && daemon.exitCode !== null) throw new Error(`lldpd: ${said}`);
    return found as T;
  };
  const tell = (...words: readonly string[]) => on.wire.hub.run('lldpcli', '-u', control, ...words);
  await whileItRuns('it speaks every second', async () => {
    return tell('configure', 'lldp', 'tx-interval', '1').code === 0;
  });
  const { neighbour } = await whileItRuns('the neighbour', async () => {
    // What it says when it starts may be said before its port is up.
    tell('update');
    const { socket } = await on.job.field();
    return socket.neighbour !== null && socket;
  });
  // lldpd names a port by its MAC, and describes it by the adapter's name.
  const link = on.wire.hub.ip('-o', 'link', 'show', 'port1');
  expect(link).toContain(neighbour?.port);
  expect(neighbour?.portDescription).toBe('port1');
  expect(neighbour?.system.length).toBeGreaterThan(0);
});

test('frames of another VLAN say that the port is a trunk, and only that', async () => {
  const other = on.wire.addDevice('v1', '02:00:5e:00:53:71');
  const { socket, counters } = await on.job.field();
  expect(socket.tags).toEqual([]);
  other.send([tagged(bootpRequest(mac('02:00:5e:00:53:71'), 7), 41)]);
  await until('its tag is told', async () => (await on.job.field()).socket.tags.includes(41));
  expect((await on.job.field()).counters.requests).toBe(counters.requests);
});

test('tshark reads everything that was said over layer 2, and finds nothing wrong with it', async () => {
  const [run] = await api<RunView[]>(on.server, 'GET', `/jobs/${on.job.id}/runs`);
  const file = join(on.server.folder, 'capture.pcap');
  const path = `/jobs/${on.job.id}/runs/${run?.id}/capture.pcap`;
  writeFileSync(file, await download(on.server, path));
  const read = (filter: string) =>
    execFileSync('tshark', ['-r', file, '-Y', filter], { stdio: ['ignore', 'pipe', 'ignore'] })
      .toString()
      .split('\n')
      .filter(Boolean).length;
  expect(read('pn_dcp')).toBeGreaterThan(10);
  expect(read('pn_dcp && (_ws.malformed || _ws.expert.severity >= 6291456)')).toBe(0);
});

test('web page: looked for at its factory address, its page read through the live adapter, nothing left on it', async () => {
  const mac = '02:00:5e:00:53:61';
  const camera = on.wire.addDevice('c1', mac);
  await camera.startScript('practice-device.ts', ['fennrick-camera-c1', mac]);
  const at = await on.job.plan('camera-1', 'fennrick-camera-c1', 'web-page', '10.77.0.151');
  await on.job.act(at, 'follow');
  const found = await until('it alone answers at its factory address', async () => {
    const all = await on.job.evidence(at);
    return all.find(({ kind, facts }) => kind === 'found-before' && facts['count'] === 1);
  });
  expect(found.facts).toEqual({ at: '192.168.77.10', found: mac, count: 1 });
  await on.job.bind(at, mac);
  const { port, path } = await on.job.act<{ port: number; path: string }>(at, 'page');
  const { laptop } = on.wire;
  const key = new URL(path, 'http://page').searchParams.get('ipsonomo-key');
  const cookie = ['--header', `Cookie: ipsonomo-page-${port}=${key}`];
  const read = (...more: readonly string[]) =>
    laptop.run('busybox', 'wget', '-q', '-O-', ...more, `http://127.0.0.1:${port}/`);
  expect(read().out).toContain('403');
  expect(read(...cookie).out).toContain('Log in');
  await api(on.server, 'POST', on.job.wire('/silence'), {});
  const after = read(...cookie);
  expect(after.code).not.toBe(0);
  await until(
    'the borrowed address is off again',
    async () => !laptop.ip('-4', '-o', 'address', 'show', 'dev', 'mach0').includes('192.168.77'),
  );
});
