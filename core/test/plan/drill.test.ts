import {
  must,
  parseIpv4,
  parseMac,
  parsePrefix,
  returnOf,
  returnsOf,
  returnWords,
  toDevice,
  toInterface,
  toPlan,
  toSubnet,
  type DrillRow,
} from '../../src';

// R-DRILL: how a device came back from a cold start.

const ip = (text: string) => must(parseIpv4(text));
const PLANNED = ip('10.1.0.85');
const row = (more: Partial<DrillRow> = {}): DrillRow => ({
  ...{ mac: must(parseMac('02:00:5e:00:53:11')), firstAt: 3000, asked: undefined },
  ...{ answered: undefined, address: undefined },
  ...more,
});
const asked = { at: 3000, message: 'DISCOVER', count: 2 };
const answered = { at: 3100, by: ip('10.1.0.8'), gave: PLANNED };
const has = (address: string) => ({ value: ip(address), at: 4000 });

test.each<[string, DrillRow | undefined, boolean, string]>([
  ['nothing heard', undefined, false, 'silent'],
  ['it spoke, nothing more', row(), false, 'starting'],
  ['at its address without asking', row({ address: has('10.1.0.85') }), false, 'kept'],
  ['it asks and asks', row({ asked }), false, 'asks'],
  [
    'it asked in vain and took what it kept',
    row({ asked, address: has('10.1.0.85') }),
    false,
    'kept',
  ],
  [
    'somebody gave it its address',
    row({ asked, answered, address: has('10.1.0.85') }),
    false,
    'leans',
  ],
  [
    'its way is that somebody gives it',
    row({ asked, answered, address: has('10.1.0.85') }),
    true,
    'given',
  ],
  [
    'somebody gave it another',
    row({ asked, answered, address: has('10.1.0.216') }),
    true,
    'elsewhere',
  ],
  ['it kept another', row({ address: has('10.20.0.33') }), false, 'elsewhere'],
])('%s', (_what, seen, isGiven, how) => {
  expect(returnOf(seen, PLANNED, isGiven)).toBe(how);
});

test('each in words of its own', () => {
  const all = ['kept', 'given', 'leans', 'asks', 'elsewhere', 'starting', 'silent'];
  const words = all.map((how) =>
    returnWords({ how, seconds: 4.2, has: '10.1.0.9', by: '10.1.0.8' }),
  );
  expect(new Set(words).size).toBe(all.length);
  expect(words[3]).toBe(
    'asks for an address after 4.2 s, and nobody gives it one: it was not told to keep it',
  );
});

test('worst first; who is on another wire is left out', () => {
  const subnet = (id: string, network: string) =>
    toSubnet({ id, name: id, prefix: must(parsePrefix(network)) });
  const device = (id: string, subnetId: string, address: string) => ({
    ...toDevice({ id, title: id, name: id, kindId: 'belloch-drive-d4', way: 'dhcp-mac' }),
    interfaces: [toInterface({ id: `${id}-at`, deviceId: id, subnetId, address: ip(address) })],
  });
  const plan = toPlan({
    subnets: [subnet('hall', '10.1.0.0/24'), subnet('feed', '10.2.0.0/24')],
    devices: [
      device('good', 'hall', '10.1.0.85'),
      device('quiet', 'hall', '10.1.0.86'),
      device('asks', 'hall', '10.1.0.87'),
      device('far', 'feed', '10.2.0.85'),
      device('unbound', 'hall', '10.1.0.88'),
    ],
  });
  const macs = new Map(
    ['good', 'quiet', 'asks', 'far'].map((id, at) => [
      `${id}-at`,
      must(parseMac(`02:00:5e:00:53:1${at}`)),
    ]),
  );
  const rows = [
    row({ mac: must(parseMac('02:00:5e:00:53:10')), address: has('10.1.0.85') }),
    row({ mac: must(parseMac('02:00:5e:00:53:12')), asked }),
  ];
  expect(
    returnsOf(plan, rows, (id) => macs.get(id)).map(({ interfaceId, how }) => [interfaceId, how]),
  ).toEqual([
    ['asks-at', 'asks'],
    ['quiet-at', 'silent'],
    ['good-at', 'kept'],
  ]);
});
