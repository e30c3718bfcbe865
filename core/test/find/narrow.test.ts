import { NarrowBook } from '../../src/find';
import { interfacesOf } from '../../src/plan';
import { PLAN } from '../snags/world';

// R-NARROW: a list of devices narrowed down by what they go by, however the words are mixed.

const book = new NarrowBook(PLAN);
const all = interfacesOf(PLAN);
const titles = (wanted: string, more?: (id: string) => string) => {
  const only = book.narrow(wanted, more);
  return only && all.flatMap(({ device, at }) => (only.has(at.id) ? [device.title] : []));
};
const titlesWhere = (isMeant: (one: (typeof all)[number]) => boolean) =>
  all.filter(isMeant).map(({ device }) => device.title);

test('nothing typed is all of them, and not none', () => {
  expect([titles(''), titles('  ')]).toEqual([undefined, undefined]);
});

test.each<[string, (one: (typeof all)[number]) => boolean]>([
  ['belloch', ({ device }) => device.kindId.startsWith('belloch')],
  ['DHCP by MAC', ({ device }) => device.way === 'dhcp-mac'],
  ['wendle switches', ({ device }) => device.kindId.startsWith('wendle')],
  [
    'hall belloch',
    ({ device, at }) => at.subnetId === 'hall' && device.kindId.startsWith('belloch'),
  ],
  ['no such thing', () => false],
])('"%s" leaves those that have every word', (wanted, isMeant) => {
  const meant = titlesWhere(isMeant);
  expect(titles(wanted)).toEqual(meant);
  if (wanted !== 'no such thing') expect(meant.length).toBeGreaterThan(0);
  expect(meant.length).toBeLessThan(all.length);
});

test('by a stage that changes while one works, and with another word', () => {
  const first = all[0];
  const stage = (id: string) => (id === first?.at.id ? 'Heard' : 'Planned');
  expect(titles('heard', stage)).toEqual([first?.device.title]);
  expect(titles(`planned ${first?.device.name ?? ''}`, stage)).toEqual([]);
});
