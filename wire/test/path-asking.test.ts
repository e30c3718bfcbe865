import { evidenceWords } from '@ipsonomo/language';
import { must, parsePrefix } from '@ipsonomo/core/net';
import { findShelfKind, readEvidence } from '@ipsonomo/core/plan';
import type { PortSegment } from '@ipsonomo/core/wire';
import { ip, mac, planOf, target, wanted } from './bench';
import { Site } from './site';

// R-PATH-ASKED: along a route path through the rack of the practice site.

const rack = target({
  ...{ interfaceId: 'rack', title: 'Grader rack', mac: mac('02:4c:7a:10:0a:01') },
  ...{ address: ip('172.22.40.14'), way: 'makers-tool' },
});
const valves = (serial = '') =>
  target({
    ...{ interfaceId: 'valves', title: 'Grader gate valves', subnetId: 'cell' },
    ...{ address: ip('192.168.90.21'), mac: undefined },
    proof: wanted({
      ...{ identity: findShelfKind('tarnwick-valves-16')?.identity, revision: '2.1', serial },
    }),
  });
const cell = {
  ...{ id: 'cell', name: 'Cell', network: must(parsePrefix('192.168.90.0/24')).network },
  ...{ length: must(parsePrefix('192.168.90.0/24')).length, gateway: undefined },
  ...{ voices: [], servers: [] },
};

async function asked(route: readonly PortSegment[], serial = '', set?: (site: Site) => void) {
  const site = new Site([rack, valves(serial)]);
  const plan = planOf([rack, valves(serial)], ['172.22.40.253']);
  site.engine.plan({ ...plan, subnets: [...plan.subnets, cell] });
  site.site.act({ kind: 'cable', device: 'grader-rack', on: true }, site.now());
  set?.(site);
  await site.advance(8);
  const wish = { entry: 'rack', interfaceId: 'valves', route, person: 'Mara' };
  await site.through(site.engine.acts.askPath(wish));
  return site.last('path-asked')?.facts ?? {};
}

const GOOD = [
  { port: 1, link: 3 },
  { port: 2, link: '192.168.90.21' },
];

test.each<[string, readonly PortSegment[], string, object, RegExp]>([
  [
    'the one that is meant',
    GOOD,
    '',
    { how: 'reached', serial: '7a405210' },
    /it is there, Valve block/,
  ],
  ['noted by its serial number', GOOD, '7A405210', { how: 'reached' }, /it is there/],
  [
    'a right path to another one of its kind',
    GOOD,
    '00000007',
    { how: 'other', what: 'serial', found: '7a405210' },
    /leads somewhere, but to another device: serial number 7a405210 instead of 00000007/,
  ],
  [
    'a right path to another kind',
    [GOOD[0] ?? { port: 1, link: 3 }, { port: 2, link: '192.168.90.22' }],
    '',
    { how: 'other', what: 'kind' },
    /another device: maker \/ type \/ product 65203 \/ 2 \/ 7/,
  ],
  [
    'a slot with nothing in it',
    [{ port: 1, link: 7 }],
    '',
    { how: 'refused', status: 1, extended: 0x0312 },
    /refused\. 0x0312: /,
  ],
  [
    'a module without a network',
    [
      { port: 1, link: 2 },
      { port: 2, link: '192.168.90.21' },
    ],
    '',
    { how: 'refused', extended: 0x0311 },
    /refused\. 0x0311: /,
  ],
  [
    'nobody at that address',
    [
      { port: 1, link: 3 },
      { port: 2, link: '192.168.90.99' },
    ],
    '',
    { how: 'refused', extended: 0x0204 },
    /refused\. 0x0204: /,
  ],
])('%s', async (_name, route, serial, facts, words) => {
  const found = await asked(route, serial);
  expect(found).toMatchObject(facts);
  expect(evidenceWords(readEvidence('path-asked', found))).toMatch(words);
  expect(found['via']).toBe(route.map(({ port, link }) => `${port},${link}`).join(','));
});

test('the device behind the rack is switched off: the path ends in a time-out', async () => {
  const off = (site: Site) =>
    site.site.act({ kind: 'power', device: 'grader-gate-valves', on: false }, site.now());
  expect(await asked(GOOD, '', off)).toMatchObject({ how: 'refused', extended: 0x0204 });
});

test('the rack is unplugged: nothing is asked, and that is said', async () => {
  const site = new Site([rack, valves()]);
  await site.advance(5);
  const wish = { entry: 'rack', interfaceId: 'valves', route: GOOD, person: 'Mara' };
  await expect(site.through(site.engine.acts.askPath(wish))).rejects.toThrow('talk.silent');
});
