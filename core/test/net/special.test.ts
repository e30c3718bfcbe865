import { must, parseIpv4, parsePrefix, specialBlocksOf, specialBlocksWithin } from '../../src/net';

// R-SPECIAL: RFC 6890 §2.2.2, RFC 8190, RFC 5737 §3, RFC 5771 §3.
test.each([
  ['10.1.2.3', ['Private-Use']],
  ['172.15.255.255', []],
  ['172.16.0.0', ['Private-Use']],
  ['172.31.255.255', ['Private-Use']],
  ['172.32.0.0', []],
  ['192.0.2.7', ['Documentation (TEST-NET-1)']],
  ['198.51.100.1', ['Documentation (TEST-NET-2)']],
  ['203.0.113.1', ['Documentation (TEST-NET-3)']],
  ['192.0.0.9', ['IETF Protocol Assignments', 'Port Control Protocol Anycast']],
  ['100.127.255.255', ['Shared Address Space']],
  ['198.19.0.1', ['Benchmarking']],
  ['224.0.0.5', ['Multicast', 'Local Network Control Block']],
  ['255.255.255.255', ['Reserved', 'Limited Broadcast']],
  ['169.254.1.1', ['Link Local']],
  ['8.8.4.4', []],
])('%s lies in %j', (text, names) => {
  expect(specialBlocksOf(must(parseIpv4(text))).map((block) => block.name)).toEqual(names);
});

test('a block tells every special block it touches', () => {
  const names = specialBlocksWithin(must(parsePrefix('192.0.0.0/16'))).map((b) => b.name);
  expect(names).toContain('Documentation (TEST-NET-1)');
  expect(names).not.toContain('Private-Use');
});
