import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { compareKnown, knownEdits, readKnown, type KnownEntry } from '../../src/known';
import { formatIpv4, formatMac, must, parseIpv4, parseMac, parsePrefix } from '../../src/net';
import { docOfPlan, toDevice, toInterface, toPlan, toSubnet } from '../../src/plan';

// R-KNOWN: files that the servers wrote (core/test/data/known: dnsmasq 2.90, ISC dhcpd 4.4.3, Kea 2.2.0, run on Debian 12
// with real clients) and what tools print, as their manuals show it and these systems do.

const data = (name: string) => readFileSync(join(__dirname, '../data/known', name), 'utf8');
const lineOf = ({ address, mac, name }: KnownEntry) =>
  [address === undefined ? '' : formatIpv4(address), mac === undefined ? '' : formatMac(mac), name]
    .join(' ')
    .trim();
const read = (text: string) => {
  const { kind, entries } = must(readKnown(text));
  return [kind, ...entries.map(lineOf)];
};

test.each([
  ['dnsmasq.leases', 'dnsmasq-leases'],
  ['dhcpd.leases', 'dhcpd-leases'],
  ['kea-leases4.csv', 'kea-leases'],
])('%s, as the server wrote it', (file, kind) => {
  const [is, ...entries] = read(data(file));
  expect([is, ...entries.sort().reverse()]).toEqual([
    kind,
    '10.77.0.121 02:00:5e:00:53:21 drive-1',
    '10.77.0.112 02:00:5e:00:53:22 terminal4-001',
  ]);
});

test.each([
  [
    'arp -a, Linux',
    'gate.example (172.22.40.1) at 02:00:5e:00:53:01 [ether] on eth0\n? (172.22.40.9) at <incomplete> on eth0\n',
    ['neighbours', '172.22.40.1 02:00:5e:00:53:01 gate.example'],
  ],
  [
    'arp -a, digits without their zero',
    '? (172.22.40.1) at 2:0:5e:0:53:1 on en0 ifscope [ethernet]\n',
    ['neighbours', '172.22.40.1 02:00:5e:00:53:01'],
  ],
  [
    'arp -a, Windows, German',
    '\r\nSchnittstelle: 172.22.40.5 --- 0xb\r\n  Internetadresse       Physische Adresse     Typ\r\n  172.22.40.1           02-00-5e-00-53-01     dynamisch \r\n  172.22.40.255         ff-ff-ff-ff-ff-ff     statisch  \r\n',
    ['neighbours', '172.22.40.1 02:00:5e:00:53:01'],
  ],
  [
    'ip neigh',
    '172.22.40.1 dev eth0 lladdr 02:00:5e:00:53:01 REACHABLE\n172.22.40.3 dev eth0  FAILED\nfe80::1 dev eth0 lladdr 02:00:5e:00:53:01 router STALE\n',
    ['neighbours', '172.22.40.1 02:00:5e:00:53:01'],
  ],
  [
    'ipconfig /all, English',
    'Windows IP Configuration\r\n\r\n   Host Name . . . . . . . . . . . . : PANEL-4\r\n\r\nEthernet adapter Machine:\r\n\r\n   Physical Address. . . . . . . . . : 02-00-5E-00-53-41\r\n   IPv4 Address. . . . . . . . . . . : 172.22.40.61(Preferred)\r\n   Subnet Mask . . . . . . . . . . . : 255.255.255.0\r\n   Default Gateway . . . . . . . . . : 172.22.40.1\r\n\r\nEthernet adapter Office:\r\n\r\n   Media State . . . : Media disconnected\r\n   Physical Address. . . . . . . . . : 02-00-5E-00-53-42\r\n',
    ['own-adapters', '172.22.40.61 02:00:5e:00:53:41 PANEL-4'],
  ],
  [
    'ipconfig /all, German',
    'Windows-IP-Konfiguration\r\n\r\n   Hostname  . . . . . . . . . . . . : PANEL-4\r\n\r\nEthernet-Adapter Maschine:\r\n\r\n   Physische Adresse . . . . . . . . : 02-00-5E-00-53-41\r\n   IPv4-Adresse  . . . . . . . . . . : 172.22.40.61(Bevorzugt)\r\n   Subnetzmaske  . . . . . . . . . . : 255.255.255.0\r\n',
    ['own-adapters', '172.22.40.61 02:00:5e:00:53:41 PANEL-4'],
  ],
  [
    'fping',
    '172.22.40.1 is alive\n172.22.40.2 is unreachable\n172.22.40.3 is alive (0.42 ms)\n',
    ['alive', '172.22.40.1', '172.22.40.3'],
  ],
  ['fping -a', '172.22.40.1\n172.22.40.3\n', ['alive', '172.22.40.1', '172.22.40.3']],
  [
    'dnsmasq.conf',
    'port=0\n# dhcp-host=02:00:5e:00:53:99,10.9.0.99\ndhcp-host=02:00:5e:00:53:11,10.9.0.7,vb-1,12h\ndhcp-host = vb-2 , 10.9.0.8\ndhcp-host=id:61:62,10.9.0.9,infinite\n',
    ['dnsmasq', '10.9.0.7 02:00:5e:00:53:11 vb-1', '10.9.0.8  vb-2', '10.9.0.9'],
  ],
  [
    'dhcpd.conf',
    'subnet 10.9.0.0 netmask 255.255.255.0 {\n  option routers 10.9.0.1;\n}\nhost vb-1 {\n  hardware ethernet 02:00:5e:00:53:11; # left\n  fixed-address 10.9.0.7;\n}\nhost vb-2 { hardware ethernet 02:00:5e:00:53:12; fixed-address 10.9.0.8; }\n',
    ['dhcpd', '10.9.0.7 02:00:5e:00:53:11 vb-1', '10.9.0.8 02:00:5e:00:53:12 vb-2'],
  ],
  [
    'kea-dhcp4.conf',
    JSON.stringify({
      Dhcp4: {
        reservations: [{ 'hw-address': '02:00:5e:00:53:13', 'ip-address': '10.9.0.9' }],
        subnet4: [
          {
            reservations: [
              { 'hw-address': '02:00:5e:00:53:11', 'ip-address': '10.9.0.7', hostname: 'vb-1' },
            ],
          },
        ],
      },
    }),
    ['kea', '10.9.0.9 02:00:5e:00:53:13', '10.9.0.7 02:00:5e:00:53:11 vb-1'],
  ],
  [
    'dhcpd.leases: the last of an address counts, and one that is free again has nobody',
    'lease 10.9.0.7 {\n  binding state active;\n  hardware ethernet 02:00:5e:00:53:11;\n}\nlease 10.9.0.7 {\n  binding state active;\n  hardware ethernet 02:00:5e:00:53:12;\n  client-hostname "vb-1";\n}\nlease 10.9.0.8 {\n  binding state active;\n  hardware ethernet 02:00:5e:00:53:13;\n}\nlease 10.9.0.8 {\n  binding state free;\n  hardware ethernet 02:00:5e:00:53:13;\n}\n',
    ['dhcpd-leases', '10.9.0.7 02:00:5e:00:53:12 vb-1', '10.9.0.8'],
  ],
])('%s', (_what, text, wanted) => {
  expect(read(text)).toEqual(wanted);
});

test.each(['', 'Nothing here.', '{"Dhcp4": {', '999.1.1.1 is alive', 'lease {', '\u0000\u0001'])(
  'what has neither an address nor a MAC in it is refused: %j',
  (text) => {
    expect(readKnown(text)).toMatchObject({ ok: false, error: { code: 'known.nothing' } });
  },
);

const ip = (text: string) => must(parseIpv4(text));
const mac = (last: string) => must(parseMac(`02:00:5e:00:53:${last}`));
const device = (id: string, address: string, own?: string) =>
  toDevice({
    ...{ id, title: `Device ${id}`, name: `vb-${id}`, kindId: 'k', way: 'bootp' },
    interfaces: [
      toInterface({
        ...{ id: `${id}-at`, deviceId: id, subnetId: 's', address: ip(address) },
        mac: own === undefined ? undefined : mac(own),
      }),
    ],
  });
const plan = toPlan({
  subnets: [toSubnet({ id: 's', name: 'Hall', prefix: must(parsePrefix('10.9.0.0/24')) })],
  devices: [
    device('1', '10.9.0.1', '11'),
    device('2', '10.9.0.2', '12'),
    device('3', '10.9.0.3'),
    device('4', '10.9.0.4'),
    device('5', '10.9.0.5'),
  ],
});
const known = (address: string, own: string, name = ''): KnownEntry => ({
  ...{ line: 1, address: ip(address), mac: own === '' ? undefined : mac(own), name },
});

test('R-KNOWN-AGAINST: by MAC, then by address, then by name', () => {
  const findings = compareKnown(plan, [
    known('10.9.0.1', '11'),
    known('10.9.0.2', '99'),
    known('10.9.0.77', '12'),
    known('10.9.0.3', '13'),
    known('10.9.0.88', '14', 'VB-4'),
    known('10.9.0.5', ''),
    known('10.9.0.99', '98'),
  ]);
  expect(findings.map(({ verdict, planned }) => [verdict, planned?.device.id])).toEqual([
    ...[
      ['as-planned', '1'],
      ['other-mac', '2'],
      ['other-address', '2'],
      ['unbound', '3'],
      ['by-name', '4'],
      ['as-planned', '5'],
      ['stranger', undefined],
    ],
  ]);
  expect(
    knownEdits(docOfPlan(plan), findings).map((one) => ('id' in one ? [one.id, one.to] : one)),
  ).toEqual([
    ...[
      ['3-at', '02:00:5e:00:53:13'],
      ['4-at', '02:00:5e:00:53:14'],
    ],
  ]);
});

test('R-KNOWN-AGAINST: one MAC of two, or two of one, is taken by none', () => {
  const twice = compareKnown(plan, [known('10.9.0.3', '13'), known('10.9.0.4', '13')]);
  expect(knownEdits(docOfPlan(plan), twice)).toEqual([]);
  const both = compareKnown(plan, [known('10.9.0.3', '13'), known('10.9.0.80', '15', 'vb-3')]);
  expect(knownEdits(docOfPlan(plan), both)).toEqual([]);
});
