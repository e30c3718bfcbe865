import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { dnsmasqConfig } from '../../src/formats';
import { must, parsePrefix } from '../../src/net';
import {
  toDevice,
  toInterface,
  toPlan,
  toSubnet,
  type Device,
  type Interface,
  type Way,
} from '../../src/plan';
import { ip, mac } from '../wire/samples';

const HALL = toSubnet({
  ...{ id: 'hall', name: 'Hall\nline', prefix: must(parsePrefix('172.22.40.0/24')) },
  gateway: ip('172.22.40.1'),
});

let count = 0;
function device(way: Way, at: Partial<Interface>, fields: Partial<Device> = {}): Device {
  count += 1;
  const id = `device-${count}`;
  const wanted = { id: `${id}-at`, deviceId: id, subnetId: 'hall', ...at };
  const address = ip(`172.22.40.${80 + count}`);
  const own = toInterface({ address, ...wanted });
  const named = { id, title: `Device ${count}`, name: `fh-${count}`, kindId: 'k', way };
  return toDevice({ ...named, interfaces: [own], ...fields });
}

const DEVICES = [
  device('bootp', { mac: mac('02:00:5e:00:53:11') }),
  device('dhcp-mac', {}),
  device('dhcp-name', {}, { dhcpName: 'Terminal4-001' }),
  device('dhcp-name', {}, { dhcpName: 'odd, name\xff' }),
  device('dhcp-port', { port: { circuit: '7031', remote: '0a0b' } }),
  device('dhcp-port', {}),
  device('switches', { mac: mac('02:00:5e:00:53:12') }),
];
const config = dnsmasqConfig(toPlan({ subnets: [HALL], devices: DEVICES }));
const lines = config.split('\n').filter((line) => !line.startsWith('#') && line !== '');

test('R-DHCP-EXPORT: a line for each interface that asks, by what it is known', () => {
  expect(lines).toEqual([
    'dhcp-range=set:subnet1,172.22.40.0,static,255.255.255.0,12h',
    'dhcp-option=tag:subnet1,option:router,172.22.40.1',
    'dhcp-host=02:00:5e:00:53:11,172.22.40.81,fh-1',
    'dhcp-host=Terminal4-001,172.22.40.83',
    'dhcp-host=id:6f:64:64:2c:20:6e:61:6d:65:ff,172.22.40.84',
    'dhcp-circuitid=set:subnet1port5c,70:31',
    'dhcp-remoteid=set:subnet1port5r,0a:0b',
    'dhcp-range=tag:subnet1port5c,tag:subnet1port5r,172.22.40.85,172.22.40.85,255.255.255.0,12h',
  ]);
});

test('what is not given is named, with why', () => {
  expect(config).toContain('# Device 2: no MAC is bound yet, 172.22.40.82 is not given');
  expect(config).toContain('# Device 6: its switch port is not known yet');
  expect(config).not.toContain('172.22.40.87');
});

const installed = spawnSync('dnsmasq', ['--version']).status === 0;
const withDnsmasq = installed || process.env['CI'] ? test : test.skip;

withDnsmasq('dnsmasq reads it without a word', () => {
  const file = join(mkdtempSync(join(tmpdir(), 'ipsonomo-')), 'dhcp.conf');
  writeFileSync(file, config);
  const { status, stderr } = spawnSync('dnsmasq', ['--test', `--conf-file=${file}`], {
    encoding: 'utf8',
  });
  expect([status, stderr]).toEqual([0, expect.stringContaining('syntax check OK')]);
});
