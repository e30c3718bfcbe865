import { nameSlipWords } from '@ipsonomo/language';
import { messageTypeOf, tryDissect } from '@ipsonomo/core/wire';
import { FAULTS } from '@ipsonomo/practice';
import type { FieldTarget } from '../src/protocol';
import { ip, mac, target } from './bench';
import { Site } from './site';
import { armed, block, camera, give, openPage, pinned, Told, valves } from './told';

// Every fault that can be switched on at the practice site is met by a sentence of its own: what is wrong,
// where, and what to do.

type Scenario = readonly [
  fault: string,
  target: FieldTarget,
  act: (told: Told) => Promise<void>,
  sentence: RegExp,
];

const SCENARIOS: readonly Scenario[] = [
  ['two-fresh', camera, openPage, /2 devices answer at 192\.168\.77\.10 .* Unplug all but one/],
  ['lending-router', valves, armed, /DHCP server that the plan does not expect .*172\.22\.40\.215/],
  [
    'voice-taken',
    valves,
    armed,
    /wanted to speak from 172\.22\.40\.253, but 02:4c:7a:12:00:09 has/,
  ],
  ['in-use', valves, pinned, /Oxygen valve block is in use: .* a machine may be running/],
  [
    'other-revision',
    valves,
    pinned,
    /Its kind stands for revision 2\.7: look for its own description/,
  ],
  [
    'cut-request',
    valves,
    async (told) => {
      await armed(told);
      await told.site.powerCycle('oxygen-valve-block');
      await told.site.advance(10);
    },
    /02:4c:7a:40:51:62 sends what cannot be read .* look at its firmware/,
  ],
  [
    'name-doubled',
    block('02:4c:7a:71:00:31', 'sl1-block-5'),
    give('name'),
    /did not get its name: 02:4c:7a:71:00:36 has that name/,
  ],
  [
    'cut-answer',
    block('02:4c:7a:71:00:21', 'sl1-block-1'),
    give('stored'),
    /02:4c:7a:71:00:21 sends what cannot be read .* look at its firmware/,
  ],
  [
    'other-transaction',
    block('02:4c:7a:71:00:22', 'sl1-block-2'),
    give('stored'),
    /did not get its name: it did not answer, asked three times/,
  ],
];

async function told(fault: string, one: FieldTarget, act: Scenario[2]): Promise<readonly string[]> {
  const site = new Site([one], ['172.22.40.253', '172.22.40.252']);
  await site.advance(12);
  site.site.act({ kind: 'fault', fault, on: true }, site.now());
  await site.advance(1);
  const all = new Told(site);
  await act(all);
  return all.all;
}

test.each(SCENARIOS)('%s', async (fault, one, act, sentence) => {
  expect(await told(fault, one, act)).toContainEqual(expect.stringMatching(sentence));
});

test('page-locked: the page of the device says so itself, and nothing is taken for done', async () => {
  const site = new Site([{ ...camera, mac: mac('02:4c:7a:90:3a:c4') }]);
  site.site.act({ kind: 'fault', fault: 'page-locked', on: true }, site.now());
  await site.advance(10);
  site.engine.acts.follow('one', 'Mara');
  await site.advance(10);
  expect(site.engine.status().tasks).toMatchObject([{ kind: 'follow', phase: 'at-old' }]);
});

test('project-name: with one letter wrong in its project the controller gives nothing', async () => {
  const right = block('02:4c:7a:71:00:31', 'sl1-block-5');
  const site = new Site([right]);
  site.site.act({ kind: 'fault', fault: 'project-name', on: true }, site.now());
  await site.advance(10);
  await site.through(site.engine.acts.giveStation({ interfaceId: 'one', person: 'Mara' }, 'name'));
  await site.advance(20);
  expect(site.kinds()).toContain('named');
  expect(site.kinds()).not.toContain('has-address');
  site.site.act({ kind: 'fault', fault: 'project-name', on: false }, site.now());
  await site.advance(10);
  expect(site.kinds()).toContain('has-address');
});

test('name-slip: capitals are told from another name', async () => {
  const site = new Site([block('02:4c:7a:71:00:27', 'sl1-block-3')]);
  site.site.act({ kind: 'fault', fault: 'name-slip', on: true }, site.now());
  await site.advance(5);
  await site.through(site.engine.acts.stations.search());
  const name = site.engine
    .foundStations()
    .find(({ station }) => station.mac === mac('02:4c:7a:71:00:27'))?.station.name;
  expect(nameSlipWords(name ?? '', 'sl1-block-3')).toMatch(
    /SL1-BLOCK-3 differs from sl1-block-3 only in capital letters.*letter by letter/,
  );
  expect(nameSlipWords('sl1-blok-3', 'sl1-block-3')).toMatch(/in one letter that is missing/);
  expect(nameSlipWords('press-block-4', 'sl1-block-3')).toBeUndefined();
});

test('proxy-arp: the router answers for all, so a probe finds the address taken by it', async () => {
  const site = new Site([valves]);
  site.site.act({ kind: 'fault', fault: 'proxy-arp', on: true }, site.now());
  await site.advance(5);
  site.engine.acts.sweep();
  await site.advance(3);
  const router = site.engine.seen.filter(({ mac: who }) => who === mac('02:4c:7a:01:00:01'));
  expect(router.length).toBeGreaterThanOrEqual(8);
});

test('other-number: one that chooses under another number is given its address all the same', async () => {
  const drive = target({
    ...{ interfaceId: 'one', mac: mac('02:4c:7a:22:05:9e'), way: 'dhcp-mac' },
    address: ip('172.22.40.91'),
  });
  const site = new Site([drive], ['172.22.40.253']);
  site.site.act({ kind: 'fault', fault: 'other-number', on: true }, site.now());
  site.engine.arm(600_000, 'Mara');
  await site.advance(60);
  expect(site.kinds()).toContain('has-address');
  const requests = site.captured().flatMap(({ frame }) => {
    const one = tryDissect(frame);
    return 'kind' in one && one.kind === 'dhcp' && one.dhcp.clientMac === drive.mac
      ? [one.dhcp]
      : [];
  });
  const numbers = (type: string) =>
    requests.filter((one) => messageTypeOf(one) === type).map((one) => one.transaction);
  expect(numbers('REQUEST').length).toBeGreaterThan(0);
  expect(numbers('DISCOVER')).not.toContain(numbers('REQUEST')[0]);
});

test('kept-address: it says at power-up where it is, does not ask, and does once it is set back', async () => {
  const drive = target({
    ...{ interfaceId: 'one', mac: mac('02:4c:7a:22:05:9e'), way: 'dhcp-mac' },
    address: ip('172.22.40.91'),
  });
  const site = new Site([drive], ['172.22.40.253']);
  site.site.act({ kind: 'fault', fault: 'kept-address', on: true }, site.now());
  site.engine.arm(600_000, 'Mara');
  await site.advance(60);
  expect(site.kinds()).toEqual([]);
  expect(site.engine.seen.filter((one) => one.mac === drive.mac)).toMatchObject([
    { address: ip('10.20.0.33') },
  ]);
  site.site.act({ kind: 'set-back', device: 'intake-pump-drive' }, site.now());
  await site.powerCycle('intake-pump-drive');
  await site.advance(30);
  expect(site.kinds()).toContain('has-address');
});

test('trunk-port: the other network comes in with its tag, and its devices are not taken for ours', async () => {
  const site = new Site([valves], ['172.22.40.253']);
  await site.advance(15);
  expect(site.engine.status().socket.tags).toEqual([]);
  site.site.act({ kind: 'fault', fault: 'trunk-port', on: true }, site.now());
  await site.advance(120);
  expect(site.engine.status().socket.tags).toEqual([41]);
  const macs = site.engine.heardClients().map(({ mac: who }) => who);
  expect(macs).not.toContain(mac('02:4c:7a:22:06:11'));
});

test('every fault of the site is met by one of these', () => {
  const met = [...SCENARIOS.map(([fault]) => fault), 'page-locked', 'project-name'];
  const others = ['name-slip', 'proxy-arp', 'other-number', 'trunk-port', 'kept-address'];
  others.push('drops-out', 'other-module', 'other-size'); // vigil.test.ts, proof-run.test.ts
  expect([...met, ...others].sort()).toEqual(FAULTS.map(({ id }) => id).sort());
});

test('resetting puts everything right', async () => {
  const site = new Site([valves]);
  for (const { id } of FAULTS) site.site.act({ kind: 'fault', fault: id, on: true }, site.now());
  expect(site.site.view(site.now()).faults.every(({ on }) => on)).toBe(true);
  site.site.act({ kind: 'reset' }, site.now());
  expect(site.site.view(site.now()).faults.some(({ on }) => on)).toBe(false);
  await site.advance(10);
  site.engine.acts.sweep();
  await site.advance(3);
  const router = site.engine.seen.filter(({ mac: who }) => who === mac('02:4c:7a:01:00:01'));
  expect(router.length).toBeLessThan(3);
});
