import { formatIpv4, must, parsePrefix, toIpv4 } from '@ipsonomo/core/net';
import { toInterface, toSubnet, type Plan } from '@ipsonomo/core/plan';
import fc from 'fast-check';
import { reverseZonesOf } from '../src/formats/zone/reverse';
import { device, HALL, ip, planWith, SMALL, textOf, WIDE, written } from './samples';
import { inFile, run } from './run';
import { withProgram } from './with-program';

// Hosts and zones: read by the programs that would serve them.

const twoPorts = device('rack', 'card', { address: ip('172.22.40.10') });
const plan: Plan = planWith(
  [
    device('a', 'bootp', { address: ip('172.22.40.81') }),
    device('b', 'bootp', { address: ip('10.9.7.66'), subnetId: 'small' }),
    device('c', 'bootp', { address: ip('10.20.9.4'), subnetId: 'wide' }),
    device('d', 'bootp', { address: ip('172.22.40.82') }, { name: 'plc_1' }),
    device('e', 'bootp', { address: ip('172.22.40.83') }, { name: 'Twin' }),
    device('f', 'bootp', { address: ip('172.22.40.84') }, { name: 'twin' }),
    device('g', 'bootp', { address: ip('192.168.5.5'), subnetId: 'bare' }, { title: 'No; domain' }),
    {
      ...twoPorts,
      interfaces: [
        ...twoPorts.interfaces,
        toInterface({
          ...{ id: 'rack-2', deviceId: 'rack', subnetId: 'small', label: 'Service (X2)' },
          address: ip('10.9.7.67'),
        }),
      ],
    },
  ],
  [
    ...[HALL, SMALL, WIDE],
    toSubnet({ id: 'bare', name: 'Bare', prefix: must(parsePrefix('192.168.5.0/24')) }),
  ],
);

// R-HOST-NAMES-OUT: what is no host name, and what is one twice, is told.
test('R-HOSTS: address, full name, short name; what is no host name is told', async () => {
  const { text, left } = await textOf('hosts', plan);
  expect(text.split('\n').filter((line) => line !== '' && !line.startsWith('#'))).toEqual([
    '10.9.7.66\tfh-b.press.example fh-b\t# Device b',
    '10.9.7.67\tfh-rack-service-x2.press.example fh-rack-service-x2\t# Device rack',
    '10.20.9.4\tfh-c.hall.example fh-c\t# Device c',
    '172.22.40.10\tfh-rack.hall.example fh-rack\t# Device rack',
    '172.22.40.81\tfh-a.hall.example fh-a\t# Device a',
    '192.168.5.5\tfh-g\t# No; domain',
  ]);
  expect(left.map(({ title, reason, value }) => `${title} ${reason} ${value}`)).toEqual([
    'Device d not-a-host-name plc_1',
    'Device e same-name twin',
    'Device f same-name twin',
  ]);
});

withProgram('getent', '--version')('R-HOSTS: the C library finds every name in it', async () => {
  const { text } = await textOf('hosts', plan);
  const file = inFile(text);
  // In a mount of its own the file stands where the library looks.
  const look = (name: string) =>
    run('unshare', '-rm', 'sh', '-c', `mount --bind ${file} /etc/hosts && getent hosts ${name}`);
  const { status, out } = look('fh-rack-service-x2');
  if (status === 1 && /unshare|mount/.test(out)) return; // no right to mount here
  expect(out.split(/\s+/)[0]).toBe('10.9.7.67');
  expect(look('fh-b.press.example').out.split(/\s+/)[0]).toBe('10.9.7.66');
  expect(look('twin').out).toBe('');
});

const zoneName = (file: string): string =>
  file.replace(/\.zone$/, '').replace(/^(\d+)-(\d+)\./, '$1/$2.');

test('R-ZONES: the zones of these subnets, and what leads to one of less than a /24', async () => {
  const { files, left } = await written('zones', plan);
  expect(files.map(({ name }) => name)).toEqual([
    ...['hall.example.zone', 'press.example.zone', '40.22.172.in-addr.arpa.zone'],
    '64-27.7.9.10.in-addr.arpa.zone',
    '64-27.7.9.10.in-addr.arpa.above.txt',
    '9.20.10.in-addr.arpa.zone',
  ]);
  expect(left.map(({ reason }) => reason)).toEqual([
    ...['not-a-host-name', 'same-name', 'same-name', 'no-domain'],
  ]);
  const above = String(files.find(({ name }) => name.endsWith('.above.txt'))?.content);
  expect(above).toContain('$ORIGIN 7.9.10.in-addr.arpa.\n64/27 IN NS localhost.\n');
  expect(above).toContain('66 IN CNAME 66.64/27.7.9.10.in-addr.arpa.\n');
});

withProgram('named-checkzone', '-v')(
  'R-ZONES: named-checkzone and named-compilezone take every zone',
  async () => {
    const { files } = await written('zones', plan, { revision: 41 });
    const compiled = files
      .filter(({ name }) => name.endsWith('.zone'))
      .map(({ name, content }) => {
        const zone = zoneName(name);
        const file = inFile(content);
        const check = run('named-checkzone', zone, file);
        expect([zone, check.status, check.out]).toEqual([zone, 0, expect.stringMatching(/OK/)]);
        expect(check.out).toContain('loaded serial 41');
        return run('named-compilezone', '-s', 'full', '-o', '-', zone, file).out;
      })
      .join('');
    expect(compiled).toMatch(/^fh-rack-service-x2\.press\.example\.\s+86400 IN A\s+10\.9\.7\.67$/m);
    expect(compiled).toMatch(
      /^66\.64\/27\.7\.9\.10\.in-addr\.arpa\.\s+86400 IN PTR\s+fh-b\.press\.example\.$/m,
    );
    expect(compiled).toMatch(
      /^4\.9\.20\.10\.in-addr\.arpa\.\s+86400 IN PTR\s+fh-c\.hall\.example\.$/m,
    );
  },
);

test.each([
  ['10.0.0.0/8', ['10.in-addr.arpa']],
  ['172.16.0.0/15', ['16.172.in-addr.arpa', '17.172.in-addr.arpa']],
  ['10.20.8.0/22', [8, 9, 10, 11].map((third) => `${third}.20.10.in-addr.arpa`)],
  // The examples of RFC 2317 §4.
  ['192.0.2.0/25', ['0/25.2.0.192.in-addr.arpa']],
  ['192.0.2.128/26', ['128/26.2.0.192.in-addr.arpa']],
  ['192.0.2.192/26', ['192/26.2.0.192.in-addr.arpa']],
])('R-REVERSE: %s', (prefix, names) => {
  expect(reverseZonesOf(must(parsePrefix(prefix))).map(({ name }) => name)).toEqual(names);
});

test('R-REVERSE: every address of a subnet stands in one zone of it, under its own name', () => {
  const prefixes = fc.integer({ min: 12, max: 30 }).chain((length) =>
    fc.tuple(fc.integer({ min: 0, max: 2 ** 32 - 1 }), fc.nat()).map(([any, host]) => {
      const size = 2 ** (32 - length);
      const network = Math.floor(any / size) * size;
      return { network, length, address: network + (host % size) };
    }),
  );
  fc.assert(
    fc.property(prefixes, ({ network, length, address }) => {
      const prefix = must(parsePrefix(`${formatIpv4(toIpv4(network))}/${length}`));
      const zones = reverseZonesOf(prefix).filter((one) => one.has(address));
      expect(zones.length).toBe(1);
      const full = `${zones[0]?.label(address)}.${zones[0]?.name}`.replace(/\d+\/\d+\./, '');
      const reversed = formatIpv4(toIpv4(address)).split('.').reverse().join('.');
      expect(full).toBe(`${reversed}.in-addr.arpa`);
    }),
    { numRuns: 300 },
  );
});
