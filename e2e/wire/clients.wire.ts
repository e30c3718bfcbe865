import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { api, emptyDatabase, startServer, until } from '../harness';
import { bootpc, udhcpc, udhcpcDaemon } from './clients';
import { bootpRequest, mac, tagged } from './frames';
import { onWire } from './on-wire';
import { type Machine } from './namespaces';

// Real clients of Debian on real adapters: heard, bound and given what the plan holds, on the one
// adapter that was chosen and nowhere else.

const VALVES = 'tarnwick-valves-16';
const DRIVE = 'belloch-drive-d4';

const on = onWire('ipso');

test('an unbound BootP client is heard and never answered; once bound it gets its address', async () => {
  const mac = '02:00:5e:00:53:01';
  const device = on.wire.addDevice('d1', mac);
  const at = await on.job.plan('valves-1', VALVES, 'bootp', '10.77.0.101');
  await on.job.answer();
  const sent = (await on.job.field()).counters.sent;

  expect(bootpc(device, 3).address).toBeUndefined();
  const heard = (await on.job.heard()).find((one) => one.mac === mac);
  expect(heard).toMatchObject({ protocol: 'BootP', hostName: null });
  expect(heard?.count).toBeGreaterThan(0);
  expect((await on.job.field()).counters.sent).toBe(sent);

  await on.job.bind(at, mac);
  // What was heard of it before it was bound counts.
  await on.job.reaches(at, 'heard');
  expect(bootpc(device, 20).address).toBe('10.77.0.101');
  await on.job.seen(at, 'has-address');
  expect((await on.job.at(at)).stage).toBe('given');
});

test('a DHCP client is offered, acknowledged, and renews by unicast', async () => {
  const mac = '02:00:5e:00:53:02';
  const device = on.wire.addDevice('d2', mac);
  const at = await on.job.plan('drive-2', DRIVE, 'dhcp-mac', '10.77.0.80');
  expect(udhcpc(device, 2).address).toBeUndefined();
  await on.job.bind(at, mac);
  const client = udhcpcDaemon(device);
  await on.job.seen(at, 'has-address');
  const answers = async () =>
    (await on.job.evidence(at)).filter((one) => one.kind === 'answered').length;
  expect(await answers()).toBe(1);
  await new Promise((resolve) => setTimeout(resolve, 1200)); // evidence of one device once a second
  client.kill('SIGUSR1');
  await until('the renewal is answered', async () => (await answers()) === 2);
  expect((await on.job.heard()).find((one) => one.mac === mac)?.message).toBe('REQUEST');
  client.kill('SIGTERM');
});

test('the second adapter stays silent, although the MAC there is bound', async () => {
  const mac = '02:00:5e:00:53:03';
  const office = on.wire.addDevice('off', mac, 'office');
  const at = await on.job.plan('drive-3', DRIVE, 'dhcp-mac', '10.77.0.81');
  await on.job.bind(at, mac);
  const before = on.wire.laptop.statistic('off0', 'tx_packets');
  expect(udhcpc(office, 3).address).toBeUndefined();
  expect(on.wire.laptop.statistic('off0', 'rx_packets')).toBeGreaterThan(0);
  expect(on.wire.laptop.statistic('off0', 'tx_packets')).toBe(before);
  expect((await on.job.heard()).map((one) => one.mac)).not.toContain(mac);
});

test('a request inside a VLAN tag is of another network; a tag of VLAN 0 is only a priority', async () => {
  const client = '02:00:5e:00:53:04';
  const device = on.wire.addDevice('d4', client);
  const at = await on.job.plan('valves-4', VALVES, 'bootp', '10.77.0.104');
  await on.job.bind(at, client);
  const request = bootpRequest(mac(client), 4);
  device.send([tagged(request, 40)]);
  await new Promise((resolve) => setTimeout(resolve, 500));
  expect((await on.job.heard()).map((one) => one.mac)).not.toContain(client);
  device.send([tagged(request, 0)]);
  await on.job.seen(at, 'answered');
});

test('an address that something else has is refused, and who has it is named', async () => {
  const holder = on.wire.addDevice('old', '02:00:5e:00:53:77');
  holder.ip('addr', 'add', '10.77.0.83/24', 'dev', 'eth0');
  const mac = '02:00:5e:00:53:05';
  const device = on.wire.addDevice('d5', mac);
  const at = await on.job.plan('drive-5', DRIVE, 'dhcp-mac', '10.77.0.83');
  await on.job.bind(at, mac);
  expect(udhcpc(device, 3).address).toBeUndefined();
  expect((await on.job.seen(at, 'address-taken')).facts.by).toBe('02:00:5e:00:53:77');
  // The holder goes; what waited is answered without a further word from anybody.
  holder.ip('addr', 'flush', 'dev', 'eth0');
  expect(udhcpc(device, 20).address).toBe('10.77.0.83');
});

test('another DHCP server that answers one of ours stops us and is told of', async () => {
  const mac = '02:00:5e:00:53:06';
  const device = on.wire.addDevice('d6', mac);
  const other = on.wire.addDevice('srv', '02:00:5e:00:53:66');
  other.ip('addr', 'add', '10.77.0.9/24', 'dev', 'eth0');
  const at = await on.job.plan('drive-6', DRIVE, 'dhcp-mac', '10.77.0.84');
  const where = ['-i', 'eth0', '--bind-interfaces', '--dhcp-range=10.77.0.200,10.77.0.210'];
  const more = ['--dhcp-authoritative', '--dhcp-option=3', '--leasefile-ro', '--no-ping'];
  const rival = other.start('dnsmasq', '-k', '-p', '0', '-u', 'root', ...where, ...more);
  const stranger = on.wire.addDevice('d7', '02:00:5e:00:53:07');
  await until('the rival serves a stranger', async () => udhcpc(stranger, 2).address, 30);
  // The plan does not expect it: ours stops, and begins to answer nobody while it is there.
  const stopped = () =>
    until('ours stops', async () => {
      const field = await on.job.field();
      return field.answeringUntil === null && field;
    });
  const told = (await stopped()).notices.find((one) => one.code === 'other-server');
  expect(told?.facts).toMatchObject({ server: '10.77.0.9', expected: 'no' });
  await on.job.tryToAnswer();
  expect((await stopped()).notices[0]?.facts).toMatchObject({ server: '10.77.0.9' });

  // Expected, it may serve others; one of ours that it serves is left to it, and that one alone.
  await on.job.expectServer('10.77.0.9');
  await on.job.answer();
  expect(udhcpc(stranger, 3).address).toBeDefined();
  expect((await on.job.field()).answeringUntil).not.toBeNull();
  await on.job.bind(at, mac);
  udhcpc(device, 2);
  const left = await until('it is left to the other', async () =>
    (await on.job.field()).notices.find((one) => one.code === 'left-to-server'),
  );
  expect(left.facts).toMatchObject({ server: '10.77.0.9', title: 'drive-6' });
  expect((await on.job.field()).answeringUntil).not.toBeNull();
  await api(on.server, 'POST', on.job.wire('/silence'), {});
  rival.kill('SIGTERM');
});

test('the adapter pulled out in the middle: silent, told, and back by itself', async () => {
  await on.job.answer();
  await until('voices are ready', async () =>
    (await on.job.field()).voices.some((voice) => voice.state === 'ready'),
  );
  on.wire.laptop.ip('link', 'del', 'mach0');
  const gone = await until('the adapter is gone', async () => {
    const field = await on.job.field();
    return field.link === 'gone' && field;
  });
  expect(gone.answeringUntil).toBeNull();
  await expect(on.job.answer()).rejects.toThrow('field.noLink');
  const port = on.wire.plug(on.wire.laptop, 'mach0', 'machine', '02:00:5e:00:53:f0');
  await until('the adapter is back', async () => (await on.job.field()).link === 'up');
  await on.job.answer();
  const device = on.wire.addDevice('d8', '02:00:5e:00:53:08');
  const at = await on.job.plan('drive-8', DRIVE, 'dhcp-mac', '10.77.0.85');
  await on.job.bind(at, '02:00:5e:00:53:08');
  expect(udhcpc(device, 10).address).toBe('10.77.0.85');

  // The cable alone: no link, and on again.
  on.wire.hub.ip('link', 'set', port, 'down');
  await until('no link', async () => (await on.job.field()).link === 'down');
  on.wire.hub.ip('link', 'set', port, 'up');
  await until('a link', async () => (await on.job.field()).link === 'up');

  // Another adapter that takes the name is not the one that was chosen.
  on.wire.laptop.ip('link', 'del', 'mach0');
  on.wire.plug(on.wire.laptop, 'mach0', 'machine', '02:00:5e:00:53:f9');
  await until('gone', async () => (await on.job.field()).link === 'gone');
  await new Promise((resolve) => setTimeout(resolve, 1500));
  expect((await on.job.field()).link).toBe('gone');
});

test('the web page is not served through the live adapter, whatever address of ours is asked for', async () => {
  on.wire.laptop.ip('addr', 'add', '10.77.0.2/24', 'dev', 'mach0');
  on.wire.laptop.ip('link', 'add', 'office0', 'type', 'veth', 'peer', 'name', 'office1');
  on.wire.laptop.ip('addr', 'add', '192.168.213.2/24', 'dev', 'office0');
  for (const end of ['office0', 'office1']) on.wire.laptop.ip('link', 'set', end, 'up');
  const settings = ['HOST=0.0.0.0', 'PORT=4999', 'IPSONOMO_DEMO=0'];
  // Of its own: the other server has its database to itself.
  const database = await emptyDatabase('wire_page');
  const folder = join(on.server.folder, 'page');
  const data = [`DATABASE_URL=${database}`, `IPSONOMO_DATA=${folder}`];
  const main = join(__dirname, '../../server/dist/main.js');
  const page = on.wire.laptop.start('env', ...settings, ...data, process.execPath, main);
  const device = on.wire.addDevice('d9', '02:00:5e:00:53:09');
  device.ip('addr', 'add', '10.77.0.30/24', 'dev', 'eth0');
  // A host takes what comes for any of its addresses through any of its adapters.
  device.ip('route', 'add', '192.168.213.0/24', 'via', '10.77.0.2');
  const ask = (from: Machine, host: string) => {
    const script = `fetch('http://${host}:4999/api/health')
      .then((answer) => answer.text()).then(console.log, console.log)`;
    return from.run(process.execPath, '-e', script).out;
  };
  await until('a door that is shut', async () => ask(device, '10.77.0.2').includes('door.locked'));
  expect(ask(device, '192.168.213.2')).toContain('door.locked');
  const live = { kind: 'live', adapter: 'mach0' };
  const own = { socketPath: join(folder, 'ipsonomo.sock') };
  const { id } = await api<{ id: string }>(own, 'POST', '/jobs', { name: 'Web' });
  await api(own, 'POST', `/jobs/${id}/wire`, live);
  expect(ask(device, '10.77.0.2')).toContain('wire.ownWeb');
  expect(ask(device, '192.168.213.2')).toContain('wire.ownWeb');
  expect(ask(on.wire.laptop, '192.168.213.2')).toContain('door.locked');
  page.kill('SIGTERM');
});

test('without the right to open the adapter it says so, in one sentence', async () => {
  const poor = await startServer('wire_poor', {
    demo: false,
    namespace: on.wire.laptop.namespace,
    wrap: ['setpriv', '--bounding-set', '-net_raw', '--inh-caps', '-net_raw'],
  });
  const live = { kind: 'live', adapter: 'mach0' };
  const { id } = await api<{ id: string }>(poor, 'POST', '/jobs', { name: 'Poor' });
  const wire = `/jobs/${id}/wire`;
  await expect(api(poor, 'POST', wire, live)).rejects.toThrow('wire.noRight');
  const none = { kind: 'live', adapter: 'nope0' };
  await expect(api(poor, 'POST', wire, none)).rejects.toThrow('wire.noAdapter');
  await poor.stop();
});
