import fc from 'fast-check';
import { formatIpv4, toIpv4, toMac } from '@ipsonomo/core/net';
import { isAsking, WAYS, type Device, type Way } from '@ipsonomo/core/plan';
import type { FormatId } from '@ipsonomo/core/api';
import { device, HALL, ip, mac, planWith, SMALL, textOf } from './samples';
import { inFile, run } from './run';
import { withProgram } from './with-program';

const DEVICES = [
  device('1', 'bootp', { address: ip('172.22.40.81'), mac: mac('02:00:5e:00:53:11') }),
  device('2', 'dhcp-mac', { address: ip('172.22.40.82') }),
  device('3', 'dhcp-name', { address: ip('172.22.40.83') }, { dhcpName: 'Terminal4-001' }),
  device('4', 'dhcp-name', { address: ip('172.22.40.84') }, { dhcpName: 'odd, "name\xff' }),
  device('5', 'dhcp-port', {
    ...{ address: ip('172.22.40.85'), port: { circuit: '7031', remote: '0a0b' } },
  }),
  device('6', 'dhcp-port', { address: ip('172.22.40.86') }),
  device('7', 'switches', { address: ip('172.22.40.87'), mac: mac('02:00:5e:00:53:12') }),
  device('8', 'dhcp-mac', { address: ip('172.22.40.88'), mac: mac('02:00:5e:00:53:18') }),
  device('9', 'dhcp-mac', { address: ip('172.22.40.88'), mac: mac('02:00:5e:00:53:19') }),
  device('10', 'dhcp-mac', { address: ip('10.9.9.9'), mac: mac('02:00:5e:00:53:20') }),
  device('11', 'dhcp-name', { address: ip('172.22.40.91') }, { dhcpName: 'Same' }),
  device('12', 'dhcp-name', { address: ip('172.22.40.92') }, { dhcpName: 'sAME' }),
  device('13', 'dhcp-port', {
    ...{ address: ip('10.9.7.66'), subnetId: 'small', port: { circuit: '', remote: '0c' } },
  }),
];
const plan = planWith(DEVICES, [HALL, SMALL]);
const GIVEN = ['172.22.40.81', '172.22.40.83', '172.22.40.84', '172.22.40.85', '10.9.7.66'];
const SERVERS = ['dnsmasq', 'dhcpd', 'kea'] as const;

const withoutComments = (text: string) =>
  text
    .split('\n')
    .filter((line) => !line.startsWith('#') && line !== '')
    .join('\n');

/** Addresses that a file really gives, read by a pattern of its own for each server. */
function givenIn(id: FormatId, text: string): readonly string[] {
  if (id === 'kea') {
    const { subnet4 } = (
      JSON.parse(text) as {
        Dhcp4: { subnet4: { pools: { pool: string }[]; reservations: Record<string, string>[] }[] };
      }
    ).Dhcp4;
    return subnet4.flatMap(({ pools, reservations }) => [
      ...pools.map(({ pool }) => pool.split(' - ')[0] ?? ''),
      ...reservations.map((one) => one['ip-address'] ?? ''),
    ]);
  }
  const patterns =
    id === 'dnsmasq'
      ? [/^dhcp-host=.*?,(\d+\.\d+\.\d+\.\d+)/, /^dhcp-range=tag:.*?,(\d+\.\d+\.\d+\.\d+),\d/]
      : [/fixed-address (\S+);/, /range (\S+);/];
  return withoutComments(text)
    .split('\n')
    .flatMap((line) => patterns.flatMap((one) => one.exec(line)?.[1] ?? []));
}

test.each(SERVERS)('R-RESERVATIONS: %s gives what can be given, and lists the rest', async (id) => {
  const { text, left } = await textOf(id, plan);
  expect([...givenIn(id, text)].sort()).toEqual([...GIVEN].sort());
  expect(left.map(({ title, reason }) => `${title}: ${reason}`).sort()).toEqual(
    [
      ...['Device 2: no-mac', 'Device 6: no-port', 'Device 8: same-address'],
      ...['Device 9: same-address', 'Device 10: outside'],
      ...['Device 11: same-key', 'Device 12: same-key'],
    ].sort(),
  );
  for (const { title } of left) expect(text).toContain(`${title}, `);
});

test('R-DHCP-EXPORT: a line for each by what it is known; nobody is given a router that is not there', async () => {
  const { text } = await textOf('dnsmasq', plan);
  expect(withoutComments(text).split('\n')).toEqual([
    'dhcp-range=set:subnet1,172.22.40.0,static,255.255.255.0,43200',
    'dhcp-option=tag:subnet1,option:router,172.22.40.1',
    'dhcp-host=02:00:5e:00:53:11,172.22.40.81,fh-1',
    'dhcp-name-match=set:subnet1port2,Terminal4-001',
    'dhcp-match=set:subnet1port2,61,54:65:72:6d:69:6e:61:6c:34:2d:30:30:31',
    'dhcp-range=tag:subnet1port2,172.22.40.83,172.22.40.83,255.255.255.0,120',
    'dhcp-match=set:subnet1port3,61,6f:64:64:2c:20:22:6e:61:6d:65:ff',
    'dhcp-range=tag:subnet1port3,172.22.40.84,172.22.40.84,255.255.255.0,120',
    'dhcp-circuitid=set:subnet1port4c,70:31',
    'dhcp-remoteid=set:subnet1port4r,0a:0b',
    'dhcp-range=tag:subnet1port4c,tag:subnet1port4r,172.22.40.85,172.22.40.85,255.255.255.0,120',
    'dhcp-range=set:subnet2,10.9.7.64,static,255.255.255.224,43200',
    'dhcp-option=tag:subnet2,option:router',
    'dhcp-remoteid=set:subnet2port1r,0c',
    'dhcp-range=tag:subnet2port1r,10.9.7.66,10.9.7.66,255.255.255.224,120',
  ]);
});

// R-DHCP-EXPORT, R-DHCPD-EXPORT, R-KEA-EXPORT: each read by its own server, and served in `e2e/wire/export.wire.ts`.
const CHECKS = {
  dnsmasq: (file: string) => ['dnsmasq', '--test', `--conf-file=${file}`],
  dhcpd: (file: string) => ['dhcpd', '-4', '-t', '-cf', file, '-lf', '/dev/null'],
  kea: (file: string) => ['kea-dhcp4', '-t', file],
} as const;

for (const id of SERVERS) {
  const [program = ''] = CHECKS[id]('');
  withProgram(program, '--version')(`${id} reads it without a word`, async () => {
    const { text } = await textOf(id, plan);
    const [command = '', ...args] = CHECKS[id](inFile(text));
    const { status, out } = run(command, ...args);
    expect([status, status === 0 ? '' : out]).toEqual([0, '']);
  });
}

const WORDS = ['a', 'A', 'b-1', 'odd name', 'x"y'];
const random = fc
  .array(
    fc.record({
      way: fc.constantFrom<Way>(...WAYS),
      last: fc.integer({ min: 2, max: 12 }),
      small: fc.boolean(),
      hasMac: fc.boolean(),
      mac: fc.integer({ min: 1, max: 12 }),
      name: fc.constantFrom(...WORDS, ''),
      port: fc.constantFrom('', '01', '02'),
    }),
    { maxLength: 14 },
  )
  .map((all) =>
    all.map((one, at): Device => {
      const net = one.small ? ip('10.9.7.64') : ip('172.22.40.0');
      return device(
        String(at),
        one.way,
        {
          ...{ address: toIpv4(net + one.last), subnetId: one.small ? 'small' : 'hall' },
          ...(one.hasMac ? { mac: toMac(0x02005e005300 + one.mac) } : {}),
          ...(one.port === '' ? {} : { port: { circuit: one.port, remote: '' } }),
        },
        { dhcpName: one.name },
      );
    }),
  );

test.each(SERVERS)(
  'R-RESERVATIONS: %s: in the file + listed = all that ask, whatever the plan',
  async (id) => {
    await fc.assert(
      fc.asyncProperty(random, async (devices) => {
        const { text, left } = await textOf(id, planWith(devices, [HALL, SMALL]));
        const given = givenIn(id, text);
        expect(new Set(given).size).toBe(given.length);
        expect(given.length + left.length).toBe(devices.filter(({ way }) => isAsking(way)).length);
        const listed = new Set(left.map(({ address }) => address));
        const asking = devices.filter(({ way }) => isAsking(way));
        const addresses = asking.map((one) =>
          formatIpv4(one.interfaces[0]?.address ?? ip('0.0.0.0')),
        );
        expect(addresses.every((one) => given.includes(one) || listed.has(one))).toBe(true);
      }),
      { numRuns: 150 },
    );
  },
);
