import fc from 'fast-check';
import { Netmask } from 'netmask';
import {
  containsPrefix,
  formatPrefix,
  must,
  overlaps,
  parsePrefix,
  toIpv4,
  toPrefixLength,
  type Prefix,
} from '../../src/net';
import { hostsOf, lengthFor, repackBlock, splitBlock, type Need } from '../../src/plan';
import { cases } from '../cases';

const net = (text: string): Prefix => must(parsePrefix(text));

const need = (devices: number, fields: Partial<Need> = {}): Need => ({
  ...{ name: `for ${devices}`, devices, growthPercent: 0, held: 0, isWhole24: false },
  fixed: undefined,
  ...fields,
});

// R-NEED: ceil(devices × (1 + growth)) + gateway + held.
test.each([
  [40, 20, 0, 49],
  [1, 0, 0, 2],
  [0, 0, 0, 1],
  [33, 10, 4, 42],
  [10, 25, 2, 16],
  [100, 0, 27, 128],
])('%i devices, %i %% growth and %i held need %i hosts', (devices, growthPercent, held, hosts) => {
  expect(hostsOf({ devices, growthPercent, held })).toBe(hosts);
});

// R-NEED against RFC 1878's table of host counts, which is 2^n − 2 for every length.
test.each([
  [30, 2],
  [29, 6],
  [28, 14],
  [27, 30],
  [26, 62],
  [25, 126],
  [24, 254],
  [23, 510],
  [22, 1022],
  [21, 2046],
  [20, 4094],
  [16, 65534],
])('a /%i is the smallest for its %i hosts and too small for one more', (length, hosts) => {
  const block = net('10.0.0.0/8');
  // The gateway is one of the hosts.
  expect(lengthFor(need(hosts - 1), block)).toBe(length);
  expect(lengthFor(need(hosts), block)).toBe(length - 1);
  expect(new Netmask(`10.0.0.0/${length}`).size - 2).toBe(hosts);
});

test.each([
  ['10.0.0.0/16', 40, 24],
  ['10.0.0.0/24', 40, 24],
  ['10.0.0.0/25', 40, 26],
  ['10.0.0.0/16', 300, 23],
])('in %s a whole /24 for %i devices is a /%i', (block, devices, length) => {
  expect(lengthFor(need(devices, { isWhole24: true }), net(block))).toBe(length);
});

/** The largest aligned block that is free, by trying all of them. */
function largestFree(block: Prefix, taken: readonly Prefix[]): number {
  for (let length: number = block.length; length <= 32; length += 1)
    for (const one of alignedIn(block, length)) if (isFree(one, taken)) return length;
  return 33;
}

const isFree = (one: Prefix, taken: readonly Prefix[]): boolean =>
  taken.every((other) => !overlaps(one, other));

const alignedIn = (block: Prefix, length: number): readonly Prefix[] =>
  Array.from({ length: 2 ** (length - block.length) }, (_, index) => ({
    network: toIpv4(block.network + index * 2 ** (32 - length)),
    length: toPrefixLength(length),
  }));

/** R-SPLIT by brute force: every place is tried, and the one that leaves most is the lowest best. */
function bruteForce(block: Prefix, needs: readonly Need[]): readonly (string | undefined)[] {
  const taken = needs.flatMap((one) => one.fixed ?? []);
  const found = needs.map((one) => one.fixed);
  const waiting = needs
    .map((one, index) => ({ index, length: lengthFor(one, block) ?? 0, one }))
    .filter(({ one }) => !one.fixed)
    .sort((a, b) => a.length - b.length || a.index - b.index);
  for (const { index, length } of waiting) {
    let best: { readonly place: Prefix; readonly left: number } | undefined;
    for (const place of length < block.length ? [] : alignedIn(block, length)) {
      if (!isFree(place, taken)) continue;
      const left = largestFree(block, [...taken, place]);
      if (!best || left < best.left) best = { place, left };
    }
    if (!best) continue;
    found[index] = best.place;
    taken.push(best.place);
  }
  return found.map((one) => one && formatPrefix(one));
}

const arbitraryNeeds = fc
  .record({
    length: fc.integer({ min: 25, max: 28 }),
    devices: fc.array(fc.integer({ min: 0, max: 40 }), { minLength: 1, maxLength: 7 }),
    fixedAt: fc.option(fc.tuple(fc.nat(7), fc.integer({ min: 28, max: 30 }))),
  })
  .map(({ length, devices, fixedAt }) => {
    const block = net(`10.4.0.0/${length}`);
    const needs = devices.map((count) => need(count));
    if (!fixedAt) return { block, needs };
    const places = alignedIn(block, Math.max(fixedAt[1], length));
    const fixed = places[fixedAt[0] % places.length];
    return { block, needs: [...needs, need(1, { name: 'stays', fixed })] };
  });

test('needs go where a search through every place puts them', () => {
  fc.assert(
    fc.property(arbitraryNeeds, ({ block, needs }) => {
      const split = must(splitBlock(block, needs));
      const places = needs.map((one) => {
        const placed = split.placed.find((other) => other.need === one);
        return placed && formatPrefix(placed.prefix);
      });
      expect(places).toEqual(bruteForce(block, needs));
      expect(split.unplaced.map((one) => one.need)).toEqual(
        needs.filter((one) => !split.placed.some((other) => other.need === one)),
      );
    }),
    { numRuns: cases(300), seed: 4632 },
  );
});

test('what is placed and what is left are the block, each address once', () => {
  fc.assert(
    fc.property(arbitraryNeeds, ({ block, needs }) => {
      const { placed, left } = must(splitBlock(block, needs));
      const parts = [...placed.map((one) => one.prefix), ...left].sort(
        (a, b) => a.network - b.network,
      );
      let next: number = block.network;
      for (const part of parts) {
        expect(part.network).toBe(next);
        expect(containsPrefix(block, part)).toBe(true);
        next += 2 ** (32 - part.length);
      }
      expect(next).toBe(block.network + 2 ** (32 - block.length));
    }),
    { numRuns: cases(300), seed: 1878 },
  );
});

// RFC 4632 §5.1 (from memory): six clients of a provider with 10.24.0.0/13, by their sizes.
const CLIENTS = [
  ['C1', 2047, '10.24.0.0/21'],
  ['C2', 4095, '10.24.16.0/20'],
  ['C3', 1023, '10.24.8.0/22'],
  ['C4', 1023, '10.24.12.0/22'],
  ['C5', 511, '10.24.32.0/23'],
  ['C6', 511, '10.24.34.0/23'],
] as const;

test('the clients of RFC 4632 get blocks of those sizes, and their own places fit', () => {
  const block = net('10.24.0.0/13');
  const needs = CLIENTS.map(([name, addresses]) => need(addresses - 2, { name }));
  const lengths = must(splitBlock(block, needs)).placed.map((one) => one.prefix.length);
  expect(lengths).toEqual(CLIENTS.map(([, , network]) => net(network).length));
  const fixed = CLIENTS.map(([name, size, network]) =>
    need(size - 2, { name, fixed: net(network) }),
  );
  expect(must(splitBlock(block, fixed)).left.map(formatPrefix)).toEqual([
    '10.24.36.0/22',
    '10.24.40.0/21',
    '10.24.48.0/20',
    '10.24.64.0/18',
    '10.24.128.0/17',
    '10.25.0.0/16',
    '10.26.0.0/15',
    '10.28.0.0/14',
  ]);
});

test.each([
  ['10.5.0.0/28', 'split.outside'],
  ['10.4.0.0/29', 'split.small'],
  ['10.4.0.16/28', 'split.overlap'],
])('a need fixed at %s is refused as %s', (fixed, code) => {
  const split = splitBlock(net('10.4.0.0/24'), [
    need(10, { name: 'stands', fixed: net('10.4.0.16/28') }),
    need(10, { name: 'moved', fixed: net(fixed) }),
  ]);
  expect(!split.ok && split.error.map((one) => one.code)).toContain(code);
});

test('a need that does not fit says what it wanted and what there was', () => {
  const { unplaced } = must(splitBlock(net('10.4.0.0/26'), [need(20), need(20), need(1)]));
  expect(unplaced).toEqual([{ need: need(1), wanted: 30, largest: undefined }]);
});

test('a new need moves nobody; a repack may', () => {
  const block = net('10.4.0.0/26');
  const old = need(5, { name: 'old', fixed: net('10.4.0.24/29') });
  const { placed } = must(splitBlock(block, [old, need(20)]));
  expect(placed.map((one) => formatPrefix(one.prefix))).toEqual(['10.4.0.24/29', '10.4.0.32/27']);
  const packed = must(repackBlock(block, [old, need(20)])).placed;
  expect(packed.map((one) => formatPrefix(one.prefix))).toEqual(['10.4.0.32/29', '10.4.0.0/27']);
});
