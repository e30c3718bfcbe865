import { must, parseIpv4, parsePrefix, specialBlocksOf, specialBlocksWithin } from '../../src';

// RFC 6890 §2.2.2, RFC 8190, RFC 5737 §3, RFC 5771 §3.
test.each([
  ['10.1.2.3', ['private']],
  ['172.15.255.255', []],
  ['172.16.0.0', ['private']],
  ['172.31.255.255', ['private']],
  ['172.32.0.0', []],
  ['192.0.2.7', ['documentation']],
  ['198.51.100.1', ['documentation']],
  ['203.0.113.1', ['documentation']],
  ['192.0.0.9', ['protocol assignments', 'port control anycast']],
  ['100.127.255.255', ['shared address space']],
  ['198.19.0.1', ['benchmarking']],
  ['224.0.0.5', ['multicast', 'multicast, this link only']],
  ['255.255.255.255', ['reserved', 'limited broadcast']],
  ['169.254.1.1', ['link local']],
  ['8.8.4.4', []],
])('%s lies in %j', (text, names) => {
  expect(specialBlocksOf(must(parseIpv4(text))).map((block) => block.name)).toEqual(names);
});

test('a block tells every special block it touches', () => {
  const names = specialBlocksWithin(must(parsePrefix('192.0.0.0/16'))).map((b) => b.name);
  expect(names).toContain('documentation');
  expect(names).not.toContain('private');
});
