import { execFileSync, spawnSync } from 'node:child_process';
import { formatMac } from '@ipsonomo/core/net';
import { ip, LAPTOP, mac, target } from './bench';
import { Site } from './site';

// The whole engine against the whole practice site, frame by frame, in virtual time: what one says
// the other has to understand, and tshark has to find nothing wrong with it.

const VALVES = target({
  interfaceId: 'valves',
  title: 'Oxygen valve block',
  mac: mac('02:4c:7a:40:51:62'),
  address: ip('172.22.40.104'),
  gateway: ip('172.22.40.1'),
  hostName: 'ox1-valves-1',
  bootSeconds: 3,
});

async function givenAndPinned(): Promise<Site> {
  const site = new Site([VALVES]);
  site.engine.arm(600_000, 'Mara Quist');
  await site.advance(10);
  await site.pin('valves');
  return site;
}

test('R-PIN, R-POWER: heard, given, told to keep it, through a power cut, found as planned', async () => {
  const site = await givenAndPinned();
  expect(site.last('told-to-keep')?.facts).toEqual({ before: 1, after: 0, capability: 0x15 });
  site.engine.acts.watchPower({ interfaceId: 'valves', person: 'Mara Quist' });
  await site.advance(1);
  await site.powerCycle('oxygen-valve-block');
  site.engine.acts.check(['valves'], 'Mara Quist');
  await site.advance(5);
  expect(site.kinds()).toEqual([
    ...['asked', 'answered', 'has-address', 'told-to-keep'],
    ...['gone', 'kept', 'has-address', 'found-as-planned'],
  ]);
  expect(site.last('found-as-planned')?.facts).toMatchObject({ found: '02:4c:7a:40:51:62' });
});

test('R-POWER: not told to keep it, it asks again after a power cut, and is not answered meanwhile', async () => {
  const site = new Site([VALVES]);
  site.engine.arm(600_000, '');
  await site.advance(10);
  site.engine.acts.watchPower({ interfaceId: 'valves', person: '' });
  await site.advance(1);
  await site.powerCycle('oxygen-valve-block');
  expect(site.kinds()).toContain('asks-again');
  expect(site.kinds()).not.toContain('kept');
});

test('R-POWER: a cable pulled for a moment is no power cut', async () => {
  const site = await givenAndPinned();
  site.engine.acts.watchPower({ interfaceId: 'valves', person: '' });
  await site.advance(1);
  site.site.act({ kind: 'cable', device: 'oxygen-valve-block', on: false }, site.now());
  await site.advance(2.2);
  site.site.act({ kind: 'cable', device: 'oxygen-valve-block', on: true }, site.now());
  await site.advance(2);
  expect(site.last('back-too-soon')?.facts).toMatchObject({ needsSeconds: 3 });
  expect(site.kinds()).not.toContain('kept');
});

test('a device that a controller owns refuses, and is left as it was', async () => {
  const owned = target({
    interfaceId: 'valves',
    mac: mac('02:4c:7a:40:51:90'),
    address: ip('172.22.40.105'),
  });
  const site = new Site([owned]);
  site.site.act({ kind: 'socket', segment: 'feeding' }, site.now());
  site.engine.arm(600_000, '');
  await site.advance(20);
  await site.pin('valves');
  expect(site.last('keep-refused')?.facts).toEqual({
    ...{ why: 'refused', step: 'write 3', status: 0x0c, name: 'object state conflict' },
  });
});

test.each([
  ['the old lift controller', '172.22.40.101', '02:4c:7a:10:00:77', 'contradicted', 'mac'],
  ['nobody', '172.22.40.199', undefined, 'no-answer', undefined],
])('at the planned address: %s', async (_who, address, found, kind, what) => {
  const site = new Site([target({ interfaceId: 'one', address: ip(address) })]);
  site.engine.acts.check(['one'], '');
  await site.advance(6);
  expect(site.events.at(-1)).toMatchObject({ kind });
  expect(site.events.at(-1)?.facts['what']).toBe(what);
  expect(site.events.at(-1)?.facts['found']).toBe(found);
});

// tshark of Debian. CI must have it; elsewhere it may be missing.
const withTshark =
  spawnSync('tshark', ['--version']).status === 0 || process.env['CI'] ? test : test.skip;

const tshark = (...args: readonly string[]): readonly string[] =>
  execFileSync('tshark', args, { stdio: ['ignore', 'pipe', 'ignore'] })
    .toString()
    .trimEnd()
    .split('\n');

withTshark(
  'tshark finds nothing wrong with a run, and reads the pinning as it is meant',
  async () => {
    const site = await givenAndPinned();
    await site.advance(20);
    const checks = ['ip.check_checksum', 'udp.check_checksum', 'tcp.check_checksum'];
    const strict = checks.flatMap((one) => ['-o', `${one}:TRUE`]);
    // Severity above "note": warnings and errors. A closing handshake is a note ("chat" in its words).
    const wrong = '_ws.malformed or _ws.expert.severity >= 6291456';
    const file = await site.capture();
    expect(tshark('-r', file, ...strict, '-Y', wrong)).toEqual(['']);
    const ours = `cip && eth.src == ${formatMac(LAPTOP)}`;
    const fields = ['cip.sc', 'cip.class', 'cip.instance', 'cip.attribute'];
    const asked = fields.flatMap((field) => ['-e', field]);
    const said = tshark('-r', file, '-Y', ours, '-T', 'fields', '-E', 'separator= ', ...asked);
    const get = (attribute: number) => `0x0e 0xf5 0x01 ${attribute}`;
    expect(said).toEqual([get(2), get(3), get(5), '0x10 0xf5 0x01 3', get(3)]);
    const answers = `cip && eth.dst == ${formatMac(LAPTOP)}`;
    const statuses = tshark('-r', file, '-Y', answers, '-T', 'fields', '-e', 'cip.genstat');
    expect(statuses).toEqual(Array.from({ length: 5 }, () => '0x00'));
  },
);

// Devices that get their address from their own switches.

const STATION = target({
  ...{ interfaceId: 'station', title: 'Grader station 1', mac: undefined, way: 'switches' },
  ...{ address: ip('172.22.40.110'), heardBy: 'seen', bootSeconds: 3 },
});
const STATION_MAC = mac('02:4c:7a:55:0a:31');

test.each([
  ['as planned', 'grader-station-1', [1, 1, 0], ['seen', 'has-address', 'kept']],
  ['one number off', 'grader-station-1', [1, 1, 1], ['arrived-elsewhere']],
  ['the right number in another network', 'grader-station-2', [1, 1, 0], ['arrived-elsewhere']],
] as const)('R-POWER: power off, turn, power on: %s', async (_how, device, positions, kinds) => {
  const site = new Site([STATION]);
  await site.advance(5);
  site.engine.acts.watchPower({ interfaceId: 'station', person: 'Mara Quist' });
  await site.advance(3);
  expect(site.engine.status().tasks).toMatchObject([{ phase: 'waiting-back' }]);
  site.site.act({ kind: 'power', device, on: false }, site.now());
  site.site.act({ kind: 'turn', device, positions: [...positions] }, site.now());
  site.site.act({ kind: 'power', device, on: true }, site.now());
  await site.advance(8);
  expect(site.kinds()).toEqual(kinds);
  if (kinds.length > 1) expect(site.events.every((one) => one.mac === STATION_MAC)).toBe(true);
});

test('R-POWER: turned but not power-cycled changes nothing', async () => {
  const site = new Site([STATION]);
  await site.advance(5);
  site.engine.acts.watchPower({ interfaceId: 'station', person: '' });
  site.site.act({ kind: 'turn', device: 'grader-station-1', positions: [1, 1, 0] }, site.now());
  await site.advance(20);
  expect(site.kinds()).toEqual([]);
});

test('R-POWER: what has the address already must be seen gone first', async () => {
  const site = new Site([STATION]);
  const power = (on: boolean) =>
    site.site.act({ kind: 'power', device: 'grader-station-1', on }, site.now());
  site.site.act({ kind: 'turn', device: 'grader-station-1', positions: [1, 1, 0] }, site.now());
  await site.advance(5);
  power(false);
  power(true);
  await site.advance(5);
  site.engine.acts.watchPower({ interfaceId: 'station', person: '' });
  await site.advance(5);
  expect(site.kinds()).toEqual([]);
  power(false);
  await site.advance(5);
  power(true);
  await site.advance(5);
  expect(site.kinds()).toEqual(['gone', 'seen', 'has-address', 'kept']);
});

test('terminals ask under the name that their switches make', async () => {
  const site = new Site([
    target({
      ...{ interfaceId: 'terminal', mac: undefined, way: 'dhcp-name', heardBy: 'asked-by-name' },
      ...{ key: { by: 'name', name: 'terminal4-012' }, address: ip('172.22.40.112') },
    }),
  ]);
  site.engine.arm(600_000, '');
  const act = (device: string, positions: readonly number[]) => {
    site.site.act({ kind: 'turn', device, positions: [...positions] }, site.now());
    site.site.act({ kind: 'power', device, on: false }, site.now());
    site.site.act({ kind: 'power', device, on: true }, site.now());
  };
  act('grader-terminal-1', [2, 1, 2]);
  await site.advance(15);
  expect(site.kinds()).toEqual(['asked-by-name', 'answered', 'has-address']);
  // The neighbour is set to the same number by mistake.
  act('grader-terminal-2', [2, 1, 2]);
  await site.advance(15);
  expect(site.kinds()).toContain('address-taken');
});

test('R-RIVAL: a router somebody plugs in is found before anything is answered, and while it is', async () => {
  const site = new Site([VALVES]);
  const cable = (on: boolean) =>
    site.site.act({ kind: 'cable', device: 'router-somebody-brought', on }, site.now());
  const isArmed = () => site.engine.status().answeringUntil !== undefined;
  const told = () => site.engine.status().notices[0];
  site.engine.arm(600_000, '');
  await site.advance(6);
  expect([isArmed(), told()?.code]).toEqual([true, 'no-other-server']);
  cable(true);
  await site.advance(20);
  expect(isArmed()).toBe(false);
  expect(told()).toMatchObject({ code: 'other-server', facts: { server: '172.22.40.215' } });
  site.engine.arm(600_000, '');
  await site.advance(8);
  expect(isArmed()).toBe(false);
  cable(false);
  site.engine.arm(600_000, '');
  await site.advance(8);
  expect(isArmed()).toBe(true);
});
