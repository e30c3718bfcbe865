import fc from 'fast-check';
import ipaddr from 'ipaddr.js';
import {
  broadcastOf,
  containsAddress,
  firstHostOf,
  formatIpv4,
  formatPrefix,
  hostCountOf,
  lastHostOf,
  lastOf,
  maskOf,
  must,
  overlaps,
  parseIpv4,
  parseMask,
  parsePrefix,
  readMask,
  readNetwork,
  prefixOf,
  rangeHas,
  roleOf,
  sizeOf,
  toIpv4,
  toPrefixLength,
  toRange,
} from '../../src/net';

import { cases } from '../cases';

const ip = (text: string) => must(parseIpv4(text));
const cidr = (text: string) => must(parsePrefix(text));

test.each([
  ['172.22.40.0', 'prefix.slash', '172.22.40.0'],
  ['172.22.40.0/08', 'prefix.leadingZero', '08'],
  ['172.22.40.0/33', 'prefix.range', '33'],
  ['172.22.40.0/', 'prefix.digits', ''],
  ['172.22.40.0/ 24', 'prefix.digits', ' 24'],
  ['172.22.40.9/24', 'prefix.hostBits', '172.22.40.9/24'],
  ['172.22.400.0/24', 'ipv4.octet', '400'],
])('parsePrefix refuses %j as %s', (text, code, where) => {
  expect(parsePrefix(text)).toMatchObject({ ok: false, error: { code, where } });
});

// R-PREFIX, the ends of the scale: RFC 4632 §3.1 (/0, /32), RFC 3021 §2.1 (/31: both addresses are hosts).
test.each([
  ['/0', '0.0.0.0/0', undefined, '0.0.0.1', '255.255.255.254', 4294967294, '255.255.255.255'],
  ['/24', '172.22.40.0/24', 255, '172.22.40.1', '172.22.40.254', 254, '172.22.40.255'],
  ['/30', '10.0.0.4/30', 3, '10.0.0.5', '10.0.0.6', 2, '10.0.0.7'],
  ['/31', '10.0.0.4/31', 1, '10.0.0.4', '10.0.0.5', 2, undefined],
  ['/32', '10.0.0.4/32', 0, '10.0.0.4', '10.0.0.4', 1, undefined],
])('%s is decided by name', (_name, text, _last, first, last, hosts, broadcast) => {
  const prefix = cidr(text);
  const found = broadcastOf(prefix);
  expect(formatIpv4(firstHostOf(prefix))).toBe(first);
  expect(formatIpv4(lastHostOf(prefix))).toBe(last);
  expect(hostCountOf(prefix)).toBe(hosts);
  expect(found === undefined ? undefined : formatIpv4(found)).toBe(broadcast);
});

// RFC 1878 §2, "Variable Length Subnet Table For IPv4": mask and number of addresses.
test.each([
  [1, '128.0.0.0', 2147483648],
  [8, '255.0.0.0', 16777216],
  [12, '255.240.0.0', 1048576],
  [17, '255.255.128.0', 32768],
  [20, '255.255.240.0', 4096],
  [24, '255.255.255.0', 256],
  [27, '255.255.255.224', 32],
  [30, '255.255.255.252', 4],
  [32, '255.255.255.255', 1],
])('a /%i has mask %s and %i addresses', (length, mask, size) => {
  expect(formatIpv4(maskOf(toPrefixLength(length)))).toBe(mask);
  expect(parseMask(mask)).toEqual({ ok: true, value: length });
  expect(sizeOf(prefixOf(toIpv4(0), toPrefixLength(length)))).toBe(size);
});

// As people write a network (common practice, no source).
test.each([
  ['192.168.10.0/24', '192.168.10.0/24'],
  [' 192.168.10.0 / 24 ', '192.168.10.0/24'],
  ['192.168.10.0 255.255.255.0', '192.168.10.0/24'],
  ['192.168.10.0/255.255.255.128', '192.168.10.0/25'],
  ['192.168.10.0  mask  255.255.255.0', '192.168.10.0/24'],
  ['10.0.0.0 8', '10.0.0.0/8'],
  ['192.168.10.0', 'prefix.slash'],
  ['192.168.10.0 255.0.255.0', 'mask.gap'],
  ['192.168.10.0 255.255.255', 'ipv4.parts'],
  ['192.168.10.9 255.255.255.0', 'prefix.hostBits'],
  ['192.168.10.0/33', 'prefix.range'],
  ['', 'prefix.slash'],
])('a network is read as it is written: %j', (text, wanted) => {
  const read = readNetwork(text);
  expect(read.ok ? formatPrefix(read.value) : read.error.code).toBe(wanted);
});

test('every prefix is read the same with its length and with its dotted mask', () => {
  fc.assert(
    fc.property(fc.nat(0xffffffff), fc.integer({ min: 0, max: 32 }), (address, bits) => {
      const length = toPrefixLength(bits);
      const prefix = prefixOf(toIpv4(address), length);
      const dotted = `${formatIpv4(prefix.network)} ${formatIpv4(maskOf(length))}`;
      expect(readNetwork(dotted)).toEqual(parsePrefix(formatPrefix(prefix)));
      expect(readMask(`/${bits}`)).toEqual(readMask(formatIpv4(maskOf(length))));
    }),
    { numRuns: cases(300), seed: 17 },
  );
});

test.each(['255.0.255.0', '0.255.255.255', '255.255.255.1'])('mask %s has a gap', (mask) => {
  expect(parseMask(mask)).toMatchObject({ ok: false, error: { code: 'mask.gap' } });
});

// RFC 4632 §5.1: a /20 holds its sixteen /24.
test('RFC 4632: 10.24.0.0/21 is eight times a /24 and no more', () => {
  const block = cidr('10.24.0.0/21');
  expect(containsAddress(block, ip('10.24.7.255'))).toBe(true);
  expect(containsAddress(block, ip('10.24.8.0'))).toBe(false);
});

test('network, broadcast and outside are told apart', () => {
  const prefix = cidr('172.22.40.0/24');
  expect(
    ['172.22.40.0', '172.22.40.255', '172.22.41.1', '172.22.40.86'].map((a) =>
      roleOf(prefix, ip(a)),
    ),
  ).toEqual(['network', 'broadcast', 'outside', 'host']);
  expect(roleOf(cidr('10.0.0.4/31'), ip('10.0.0.4'))).toBe('host');
});

test('agrees with ipaddr.js on seeded blocks', () => {
  const block = fc.tuple(fc.nat(0xffffffff), fc.nat(32));
  fc.assert(
    fc.property(block, block, ([value, length], [other, otherLength]) => {
      const prefix = prefixOf(toIpv4(value), toPrefixLength(length));
      const text = formatPrefix(prefix);
      const inner = prefixOf(toIpv4(other), toPrefixLength(otherLength));
      const [network, bits] = ipaddr.IPv4.parseCIDR(text);
      expect(formatIpv4(lastOf(prefix))).toBe(
        ipaddr.IPv4.broadcastAddressFromCIDR(text).toString(),
      );
      const theirs = ipaddr.IPv4.parse(formatIpv4(toIpv4(other))).match(network, bits);
      expect(containsAddress(prefix, toIpv4(other))).toBe(theirs);
      const shared =
        Math.max(prefix.network, inner.network) <= Math.min(lastOf(prefix), lastOf(inner));
      expect(overlaps(prefix, inner)).toBe(shared);
    }),
  );
});

test('a range has both its ends and no more; the wrong way round it is refused', () => {
  const range = must(toRange(ip('10.0.0.10'), ip('10.0.0.12')));
  const has = ['10.0.0.9', '10.0.0.10', '10.0.0.12', '10.0.0.13'].map((a) =>
    rangeHas(range, ip(a)),
  );
  expect(has).toEqual([false, true, true, false]);
  expect(toRange(ip('10.0.0.12'), ip('10.0.0.10'))).toMatchObject({
    error: { code: 'range.order' },
  });
});
