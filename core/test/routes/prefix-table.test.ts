import fc from 'fast-check';
import { containsAddress, prefixOf, toIpv4, toPrefixLength, type Ipv4 } from '../../src/net';
import { PrefixTable } from '../../src/routes';
import { ip, prefix } from './site';
import { cases } from '../cases';

// R-LONGEST-PREFIX.

/** The scan of every line, as RFC 1812 §5.2.4.3 words it. */
function scanned<T>(
  entries: readonly { prefix: ReturnType<typeof prefix>; value: T }[],
  address: Ipv4,
): T | undefined {
  let best: (typeof entries)[number] | undefined;
  for (const entry of entries)
    if (containsAddress(entry.prefix, address) && entry.prefix.length > (best?.prefix.length ?? -1))
      best = entry;
  return best?.value;
}

const table = (...rows: readonly (readonly [string, string])[]) =>
  new PrefixTable(rows.map(([to, value]) => ({ prefix: prefix(to), value })));

// The blocks of the example in RFC 4632 §4.2 (from memory); by §5.1 the more specific one always wins.
test.each([
  ['10.24.16.9', 'C2'],
  ['10.24.0.1', 'whole'],
  ['10.24.31.255', 'C2'],
  ['10.24.32.0', 'whole'],
  ['10.32.0.1', undefined],
])('of a block and a part of it, %s belongs to %s', (address, expected) => {
  const found = table(['10.24.0.0/13', 'whole'], ['10.24.16.0/20', 'C2']).find(ip(address));
  expect(found).toBe(expected);
});

test('no line is as long as the default, and every other line is longer', () => {
  const found = table(['0.0.0.0/0', 'default'], ['255.255.255.255/32', 'last']);
  expect(found.find(ip('0.0.0.0'))).toBe('default');
  expect(found.find(ip('255.255.255.254'))).toBe('default');
  expect(found.find(ip('255.255.255.255'))).toBe('last');
  expect(table().find(ip('10.0.0.1'))).toBeUndefined();
});

test('of two equal prefixes the first wins', () => {
  expect(table(['10.0.0.0/8', 'one'], ['10.0.0.0/8', 'two']).find(ip('10.9.9.9'))).toBe('one');
});

test('for tables and addresses of every kind: as the scan of every line', () => {
  // Few bits differ, so that prefixes nest and meet often.
  const address = fc
    .integer({ min: 0, max: 0xff })
    .map((bits) => toIpv4(0xac160000 + bits * 0x4041));
  const entry = fc.record({
    prefix: fc
      .tuple(address, fc.integer({ min: 0, max: 32 }))
      .map(([at, length]) => prefixOf(at, toPrefixLength(length))),
    value: fc.integer(),
  });
  const anywhere = fc.oneof(address, fc.integer({ min: 0, max: 0xffffffff }).map(toIpv4));
  fc.assert(
    fc.property(fc.array(entry, { maxLength: 40 }), fc.array(anywhere), (entries, asked) => {
      const made = new PrefixTable(entries);
      for (const one of [...asked, ...entries.map((each) => each.prefix.network)])
        expect(made.find(one)).toBe(scanned(entries, one));
    }),
    { numRuns: cases(300) },
  );
});
