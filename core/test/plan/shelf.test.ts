import { parseDhcpName, parseHostName } from '../../src/names';
import { must, parsePrefix, type Issue } from '../../src/net';
import {
  docOf,
  findKind,
  findShelfKind,
  OTHER_DEVICE,
  readThing,
  SHELF,
  toPlan,
  WAYS,
} from '../../src/plan';
import {
  addressBySwitches,
  everyPosition,
  nameBySwitches,
  readSwitches,
  setForAct,
  setForAddress,
} from '../../src/switches';

// The kinds that ship are data: each must be one the rest of the program can work with.
test.each(SHELF.map((kind) => [kind.id, kind] as const))('kind %s is whole', (id, kind) => {
  expect(findShelfKind(id)).toBe(kind);
  const ways = kind.ways.map((one) => one.way);
  expect(ways.length).toBeGreaterThan(0);
  expect(new Set(ways).size).toBe(ways.length);
  expect(parseHostName(kind.stem).ok).toBe(true);
  expect(kind.bootSeconds).toBeGreaterThan(0);
  if (kind.pinning.by === 'own-step') expect(kind.pinning.steps.length).toBeGreaterThan(0);
  if (kind.factory.kind === 'asks')
    expect(ways.some((way) => way === 'bootp' || way.startsWith('dhcp'))).toBe(true);
  // Of some other device nobody knows what sits on it.
  if (kind.factory.kind !== 'unknown')
    expect(ways.includes('switches')).toBe(kind.switches !== undefined);
  const issues: Issue[] = [];
  const doc = docOf('kind', kind);
  expect(readThing('kind', JSON.parse(JSON.stringify(doc)) as typeof doc, id, issues)).toEqual(doc);
  expect(issues).toEqual([]);
});

test('together the kinds of the shelf have every way', () => {
  const ways = new Set(SHELF.flatMap((kind) => kind.ways.map((one) => one.way)));
  expect(WAYS.filter((way) => !ways.has(way))).toEqual([]);
  expect(new Set(SHELF.map((kind) => kind.id)).size).toBe(SHELF.length);
});

test('some other device takes every way, and nothing is made up of how it comes', () => {
  expect(OTHER_DEVICE.ways.map(({ way }) => way)).toEqual([...WAYS]);
  expect(OTHER_DEVICE).toMatchObject({ factory: { kind: 'unknown' }, services: [], roles: [] });
});

test("a plan's own kind stands before one of the shelf", () => {
  const [shelf] = SHELF;
  if (!shelf) throw new Error('the shelf is empty');
  const own = { ...shelf, name: 'as read from its file' };
  expect(findKind(toPlan({ kinds: [own] }), shelf.id)).toBe(own);
  expect(findKind(toPlan({}), shelf.id)).toBe(shelf);
});

const NETWORK = must(parsePrefix('172.22.40.0/24'));
const WIDE = must(parsePrefix('172.22.40.0/22'));
const faces = SHELF.flatMap(({ id, switches }) => (switches ? [[id, switches] as const] : []));

// Position → value → meaning → address or name → back, for every position of every kind that ships.
test.each(faces)('every position of %s goes there and back', (_id, face) => {
  let positions = 0;
  for (const network of [NETWORK, WIDE])
    for (const row of everyPosition(face)) {
      positions += 1;
      const reading = must(readSwitches(face, row));
      const { act, value } = reading;
      if (!act) continue;
      const address = addressBySwitches(face, reading, network);
      if (address !== undefined) {
        const back = must(setForAddress(face, address, network));
        const again = must(readSwitches(face, back.positions));
        expect(addressBySwitches(face, again, network)).toBe(address);
      } else if (act.kind !== 'host-part' && act.kind !== 'last-number') {
        const back = must(setForAct(face, act.kind, (one, at) => one === act && at === value));
        expect(must(readSwitches(face, back.positions)).act).toEqual(act);
      }
      if (act.kind === 'name')
        expect(parseDhcpName(nameBySwitches(act.pattern, value)).ok).toBe(true);
    }
  expect(positions).toBeGreaterThan(50);
});
