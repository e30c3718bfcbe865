import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { must, parseIpv4, parsePrefix } from '@ipsonomo/core/net';
import { toDevice, toInterface, toPlan, toSubnet, type Device } from '@ipsonomo/core/plan';
import { formatOf, materialOf } from '@ipsonomo/handover';
import { until } from '../harness';
import { Wire, type Machine } from './namespaces';

// R-NFTABLES: the rules in a router's kernel: what the plan needs passes, and nothing else.

const HALLS = { a: '10.78.1', b: '10.78.2' } as const;
const NAMES = ['plc', 'drive', 'meter', 'stranger'] as const;
type Name = (typeof NAMES)[number];
const ADDRESSES: Readonly<Record<Name, string>> = {
  plc: `${HALLS.a}.10`,
  drive: `${HALLS.b}.20`,
  meter: `${HALLS.b}.30`,
  stranger: `${HALLS.a}.99`,
};

const device = (id: Name, subnetId: string, kindId: string, more: Partial<Device>): Device =>
  toDevice({
    ...{ id, title: id, name: id, kindId, way: 'keypad', ...more },
    interfaces: [
      toInterface({
        ...{ id: `${id}-at`, deviceId: id, subnetId },
        address: must(parseIpv4(ADDRESSES[id])),
      }),
    ],
  });
const subnet = (id: keyof typeof HALLS) =>
  toSubnet({
    ...{ id, name: `Hall ${id}`, prefix: must(parsePrefix(`${HALLS[id]}.0/24`)) },
    gateway: must(parseIpv4(`${HALLS[id]}.1`)),
  });
const plan = toPlan({
  subnets: [subnet('a'), subnet('b')],
  devices: [
    device('plc', 'a', 'osterhew-controller-k', {}),
    device('drive', 'b', 'dunvarrick-drive-m', { controllerId: 'plc', protocol: 'EtherNet/IP' }),
    device('meter', 'b', 'marrowby-flow-f2', { controllerId: 'plc', protocol: 'Modbus/TCP' }),
    device('stranger', 'a', 'service-laptop', {}),
  ],
});

let wire: Wire;
const machines = new Map<Name, Machine>();
const of = (name: Name): Machine => machines.get(name) ?? wire.hub;

test.beforeAll(() => {
  wire = new Wire('ipfw');
  const router = wire.laptop;
  router.ip('addr', 'add', `${HALLS.a}.1/24`, 'dev', 'mach0');
  router.ip('addr', 'add', `${HALLS.b}.1/24`, 'dev', 'off0');
  router.run('sysctl', '-w', 'net.ipv4.ip_forward=1');
  NAMES.forEach((name, at) => {
    const isA = ADDRESSES[name].startsWith(HALLS.a);
    const machine = wire.addDevice(
      name.slice(0, 3),
      `02:00:5e:00:53:7${at}`,
      isA ? 'machine' : 'office',
    );
    machine.ip('addr', 'add', `${ADDRESSES[name]}/24`, 'dev', 'eth0');
    machine.ip('link', 'set', 'lo', 'up');
    machine.ip('route', 'add', 'default', 'via', `${isA ? HALLS.a : HALLS.b}.1`);
    machines.set(name, machine);
  });
});
test.afterAll(() => wire?.takeDown());

const PORTS = [44_818, 502, 80] as const;
const SERVED = ['plc', 'drive', 'meter'] as const;

const listen = (name: Name) =>
  of(name).start(
    ...([process.execPath, '-e'] as const),
    `for (const port of [${PORTS.join()}]) require('net').createServer((one) => one.end()).listen(port, '0.0.0.0')`,
  );
/** Of all these at once, those that come to be. */
const connecting = (from: Name, wanted: readonly (readonly [to: Name, port: number])[]): string =>
  of(from).run(
    process.execPath,
    '-e',
    `for (const [to, address, port] of ${JSON.stringify(wanted.map(([to, port]) => [to, ADDRESSES[to], port]))}) {
       const socket = require('net').connect({ host: address, port, timeout: 2000 });
       socket.on('connect', () => { console.log('${from} ' + to + ' ' + port); socket.destroy(); });
       socket.on('timeout', () => socket.destroy()).on('error', () => undefined);
     }`,
  ).out;

test('what is needed passes, there and back, and nothing else does', async () => {
  const across = (from: Name) =>
    SERVED.filter((to) => ADDRESSES[to].slice(0, 7) !== ADDRESSES[from].slice(0, 7)).flatMap((to) =>
      PORTS.map((port) => [to, port] as const),
    );
  const all = () =>
    NAMES.flatMap((from) =>
      connecting(from, across(from)).trim().split('\n').filter(Boolean),
    ).sort();
  for (const name of SERVED) listen(name);
  await until('all of them listen', async () =>
    SERVED.every((name) => of(name).run('ss', '-ltn').out.includes(':80 ')),
  );
  // Without rules all of it passes: what is dropped then is dropped by them.
  expect(all()).toHaveLength(NAMES.flatMap(across).length);
  const written = await formatOf('nftables')?.write(
    materialOf({ job: 'Halls', revision: 1, at: 0, plan }),
  );
  const file = join(mkdtempSync(join(tmpdir(), 'ipsonomo-')), 'firewall.nft');
  writeFileSync(file, String(written?.files[0]?.content));
  // Loaded twice it is there once.
  for (const time of ['first', 'again'])
    expect([time, wire.laptop.run('nft', '-f', file)]).toEqual([time, { code: 0, out: '' }]);
  expect(all()).toEqual(['plc drive 44818', 'plc meter 502']);
});
