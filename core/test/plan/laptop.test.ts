import { formatIpv4, must, parsePrefix } from '../../src/net';
import {
  defaultBands,
  laptopAddress,
  laptopCommands,
  toDevice,
  toInterface,
  toPlan,
  toSubnet,
} from '../../src/plan';
import { ip } from '../wire/samples';

const PREFIX = must(parsePrefix('172.22.40.0/24'));
const HALL = toSubnet({ id: 'hall', name: 'Hall', prefix: PREFIX, bands: defaultBands(PREFIX) });

/** A hall with one device. */
function hall(address: string) {
  const at = { id: 'at', deviceId: 'one', subnetId: 'hall', address: ip(address) };
  const fields = { id: 'one', title: 'One', name: 'one', kindId: 'k', way: 'bootp' } as const;
  const device = toDevice({ ...fields, interfaces: [toInterface(at)] });
  return toPlan({ subnets: [HALL], devices: [device] });
}

const BAND = Array.from({ length: 9 }, (_, at) => `172.22.40.${245 + at}`);

test.each([
  ['in the plan, nothing heard', '172.22.40.151', [], '172.22.40.253'],
  ['the highest was heard', '172.22.40.151', ['172.22.40.253'], '172.22.40.252'],
  ['a device has the next', '172.22.40.151', ['172.22.40.253', '172.22.40.252'], '172.22.40.250'],
  ['the whole band was heard', '172.22.40.151', BAND, undefined],
  ['beside a factory address', '192.168.77.10', [], '192.168.77.245'],
  ['the factory address is .245 itself', '192.168.77.245', [], '192.168.77.244'],
  ['that was heard', '192.168.77.10', ['192.168.77.245'], '192.168.77.244'],
])('R-LAPTOP, %s', (_what, target, heard, expected) => {
  const found = laptopAddress(hall('172.22.40.251'), ip(target), new Set(heard.map(ip)));
  expect(found && formatIpv4(found.address)).toBe(expected);
});

test.each([
  ['Windows', 'Ethernet 2', 'add address "Ethernet 2" 192.168.77.245 255.255.255.0', 'delete'],
  ['macOS', 'en5', 'ifconfig en5 alias 192.168.77.245 255.255.255.0', '-alias'],
  ['Linux', 'eth0', 'ip address add 192.168.77.245/24 dev eth0', 'del'],
] as const)('%s: what is set is what is taken off', (system, adapter, set, back) => {
  const at = { address: ip('192.168.77.245'), prefix: must(parsePrefix('192.168.77.0/24')) };
  const commands = laptopCommands(system, adapter, at);
  expect(commands.set.at(-1)).toContain(set);
  expect(commands.back[0]).toContain(back);
  expect(commands.back[0]).toContain('192.168.77.245');
  expect(commands.back).toHaveLength(commands.set.length);
});

test('an adapter’s name cannot end the quotes and begin a command', () => {
  const at = { address: ip('10.0.0.1'), prefix: must(parsePrefix('10.0.0.0/24')) };
  const [, add] = laptopCommands('Windows', 'x" & del $HOME `', at).set;
  expect(add?.split('"')).toHaveLength(3);
});
