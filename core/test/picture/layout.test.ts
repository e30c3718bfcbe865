import { toIpv4 } from '../../src/net';
import {
  boxesOf,
  cornersOf,
  foldedPicture,
  linesOf,
  placed,
  within,
  type Box,
  type Joiner,
  type Lane,
  type Picture,
} from '../../src/picture';

const lane = (subnetId: string, count: number): Lane => ({
  ...{ subnetId, name: subnetId, vlan: undefined, length: 24 },
  devices: Array.from({ length: count }, (_, at) => ({
    ...{ deviceId: `${subnetId}-d${at}`, interfaceId: `${subnetId}-i${at}`, title: `d ${at}` },
    address: toIpv4(at),
  })),
});
const joiner = (id: string, ...lanes: readonly string[]): Joiner => ({
  ...{ id, title: id, kind: 'router', lanes },
});

const PICTURES: readonly (readonly [string, Picture])[] = [
  [
    'a star',
    { lanes: [lane('a', 24), lane('b', 5), lane('c', 0)], joiners: [joiner('r', 'a', 'b', 'c')] },
  ],
  [
    'a chain',
    {
      lanes: [lane('a', 3), lane('b', 13), lane('c', 1)],
      joiners: [joiner('r1', 'a', 'b'), joiner('r2', 'b', 'c')],
    },
  ],
  [
    'a ring of three routers, and an island',
    {
      lanes: [lane('a', 2), lane('b', 2), lane('c', 2), lane('d', 4)],
      joiners: [joiner('r1', 'a', 'b'), joiner('r2', 'b', 'c'), joiner('r3', 'c', 'a')],
    },
  ],
  ['nothing at all', { lanes: [], joiners: [] }],
];

const overlap = (a: Box, b: Box): boolean =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

describe.each(PICTURES)('%s', (_name, picture) => {
  const layout = placed(picture);
  const boxes = [...layout.lanes, ...layout.joiners].map(({ box }) => box);

  test('nothing lies on anything else, and all of it is in the picture', () => {
    boxes.forEach((box, at) => {
      expect(boxes.slice(at + 1).some((other) => overlap(box, other))).toBe(false);
      expect([box.x >= 0, box.y >= 0]).toEqual([true, true]);
      expect(box.x + box.width).toBeLessThanOrEqual(layout.width);
      expect(box.y + box.height).toBeLessThanOrEqual(layout.height);
    });
  });

  test('every device stands in its lane, and beside no other', () => {
    for (const { box, devices } of layout.lanes)
      devices.forEach((one, at) => {
        expect(one.box.x).toBeGreaterThan(box.x);
        expect(one.box.y + one.box.height).toBeLessThan(box.y + box.height);
        expect(one.box.x + one.box.width).toBeLessThan(box.x + box.width);
        expect(devices.slice(at + 1).some((other) => overlap(one.box, other.box))).toBe(false);
      });
  });

  test('every port has its line', () => {
    const ports = picture.joiners.reduce((sum, { lanes }) => sum + lanes.length, 0);
    expect(linesOf(layout)).toHaveLength(ports);
  });
});

test('a way goes through the middle of what it passes; what is not in the picture is left out', () => {
  const layout = placed(PICTURES[0]?.[1] ?? { lanes: [], joiners: [] });
  const corners = cornersOf(layout, ['a-d0', 'r', 'nobody', 'b-d1'], 0).split(' ');
  expect(corners).toHaveLength(3);
});

describe('a large site', () => {
  const picture: Picture = {
    lanes: [lane('a', 250), lane('b', 80), lane('c', 3)],
    joiners: [joiner('r', 'a', 'b', 'c')],
  };
  const drawn = (open: readonly string[], shown: readonly string[] = []) =>
    placed(foldedPicture(picture, new Set(open), shown)).lanes.map(
      ({ devices, lane: of, rest }) => [devices.length, of.folded?.length ?? 0, rest !== undefined],
    );

  test('its lanes are folded, but for those with few devices; one that is opened is drawn whole', () => {
    expect(drawn([])).toEqual([
      [0, 250, true],
      [0, 80, true],
      [3, 0, false],
    ]);
    expect(drawn(['b'])).toEqual([
      [0, 250, true],
      [80, 0, false],
      [3, 0, false],
    ]);
  });

  test('what is chosen is drawn, and its way goes through it', () => {
    const layout = placed(foldedPicture(picture, new Set(), ['a-i7', 'b-i9']));
    expect(drawn([], ['a-i7', 'b-i9'])[0]).toEqual([1, 249, true]);
    expect(boxesOf(layout).has('a-d7')).toBe(true);
    expect(cornersOf(layout, ['a-d7', 'r', 'b-d9'], 0).split(' ')).toHaveLength(3);
  });

  test('a small one is drawn whole', () => {
    const small = { ...picture, lanes: [lane('a', 200), lane('b', 80)] };
    expect(foldedPicture(small, new Set(), [])).toBe(small);
  });
});

describe('what is seen of a picture', () => {
  const whole = placed({
    lanes: Array.from({ length: 40 }, (_, at) => lane(`l${at}`, 30)),
    joiners: [joiner('r', ...Array.from({ length: 40 }, (_, at) => `l${at}`))],
  });
  const chips = ({ lanes }: typeof whole) => lanes.flatMap(({ devices }) => devices);

  test('everything in the box is there, nothing beside it, wherever the box is', () => {
    const touches = (a: Box, b: Box) =>
      Math.max(a.x, b.x) < Math.min(a.x + a.width, b.x + b.width) &&
      Math.max(a.y, b.y) < Math.min(a.y + a.height, b.y + b.height);
    for (let y = -500; y < whole.height + 500; y += 370)
      for (const x of [-900, 0, 300, whole.width]) {
        const seen = { x, y, width: 800, height: 600 };
        const part = within(whole, seen);
        const wanted = chips(whole).filter(({ box }) => touches(box, seen));
        expect(chips(part)).toEqual(wanted);
        expect(part.lanes.length).toBe(whole.lanes.filter(({ box }) => touches(box, seen)).length);
      }
  });

  test('of a large one it is a small part, and no taller site makes it more', () => {
    const seen = { x: 0, y: 0, width: 1280 + 1200, height: 800 + 1200 };
    expect(chips(whole).length).toBe(1200);
    expect(chips(within(whole, seen)).length).toBeLessThan(250);
  });
});
