import fc from 'fast-check';
import { findIn, FindBook, type Findable } from '../../src/find';
import { must, parseIpv4, parseMac, parsePrefix } from '../../src/net';
import { toDevice, toInterface, toPlan, toSubnet } from '../../src/plan';

// R-FIND: one field for everything of a job.

const device = (id: string, title: string, address: string, mac?: string) =>
  ({
    ...toDevice({ id, title, name: `${id}.hall`, kindId: 'k', way: 'dhcp-mac', cabinet: 'FH2' }),
    interfaces: [
      toInterface({
        ...{ id: `${id}-at`, deviceId: id, subnetId: 'hall', address: must(parseIpv4(address)) },
        mac: mac === undefined ? undefined : must(parseMac(mac)),
      }),
    ],
  }) as const;

const book = new FindBook(
  toPlan({
    subnets: [
      toSubnet({
        id: 'hall',
        name: 'Filter hall',
        vlan: 40,
        prefix: must(parsePrefix('172.22.40.0/24')),
      }),
    ],
    devices: [
      device('pump', 'Intake pump', '172.22.40.86', '02:4c:7a:22:05:9e'),
      device('drum', 'Drum filter drive 1', '172.22.40.85'),
      device('spare', 'Spare drive', '172.22.41.186'),
    ],
  }),
  [
    {
      kind: 'page',
      id: 'copy',
      title: 'Copy a machine',
      detail: '',
      text: 'copy a machine',
      macs: '',
    },
  ],
);
const ids = (wanted: string) => book.find(wanted, 10).found.map(({ id }) => id);

test.each([
  ['intake', ['pump']],
  ['DRIVE 1', ['drum', 'spare']],
  // What begins so stands first.
  ['filter', ['hall', 'drum']],
  ['.86', ['pump']],
  ['40.8', ['drum', 'pump']],
  ['186', ['spare']],
  ['vlan 40', ['hall']],
  ['fh2', ['FH2', 'drum', 'pump', 'spare']],
  ['pump.hall', ['pump']],
  ['02-4C-7A', ['pump']],
  ['7a22.059e', ['pump']],
  ['059e', ['pump']],
  ['copy', ['copy']],
  ['no such thing', []],
  ['   ', []],
])('"%s" finds %j', (wanted, expected) => {
  expect(ids(wanted).sort()).toEqual([...expected].sort());
});

test('what begins with the words stands before what only has them in it', () => {
  expect(ids('filter')).toEqual(['hall', 'drum']);
  expect(ids('drive 1')).toEqual(['drum', 'spare']);
});

test('of many so many are shown, and all are counted', () => {
  const { found, count } = book.find('172', 2);
  expect([found.length, count]).toEqual([2, 4]);
});

/** Looked through one by one, without ranks. */
const slowly = (all: readonly Findable[], wanted: string) => {
  const words = wanted.toLowerCase().split(/\s+/).filter(Boolean);
  return words.length === 0
    ? []
    : all.filter(({ text }) => words.every((word) => text.includes(word))).map(({ id }) => id);
};

test('it finds all that looking through finds, whatever is typed', () => {
  const word = fc.constantFrom('a', 'ab', 'b 1', 'drive', 'x');
  const things = fc.array(
    fc
      .record({ title: word, more: word })
      .map(({ title, more }) => ({ title, text: `${title} ${more}` })),
    { maxLength: 30 },
  );
  fc.assert(
    fc.property(things, word, (some, wanted) => {
      const all = some.map((one, at): Findable => ({
        ...{ kind: 'device', id: String(at), detail: '', macs: '' },
        ...one,
      }));
      const { found, count } = findIn(all, wanted, 1000);
      expect(found.map(({ id }) => id).sort()).toEqual([...slowly(all, wanted)].sort());
      expect(count).toBe(found.length);
    }),
  );
});
