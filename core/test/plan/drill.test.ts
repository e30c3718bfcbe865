import { returnWords } from '@ipsonomo/language';
import { must, parseIpv4, parseMac } from '../../src/net';
import { returnOf, returnsOf, worstFirst, type DrillRow } from '../../src/plan';

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
  const mac = (last: string) => must(parseMac(`02:00:5e:00:53:${last}`));
  const expected = (interfaceId: string, address: string, bound?: string, subnetId = 'hall') => ({
    ...{ interfaceId, subnetId, way: 'dhcp-mac' as const, address: ip(address) },
    mac: bound === undefined ? undefined : mac(bound),
  });
  const interfaces = [
    expected('good-at', '10.1.0.85', '10'),
    expected('quiet-at', '10.1.0.86', '11'),
    expected('asks-at', '10.1.0.87', '12'),
    expected('far-at', '10.2.0.85', '13', 'feed'),
    expected('unbound-at', '10.1.0.88'),
  ];
  const rows = [row({ mac: mac('10'), address: has('10.1.0.85') }), row({ mac: mac('12'), asked })];
  expect(
    worstFirst(returnsOf(interfaces, rows)).map((one) => [one.expected.interfaceId, one.how]),
  ).toEqual([
    ['asks-at', 'asks'],
    ['quiet-at', 'silent'],
    ['good-at', 'kept'],
  ]);
});
