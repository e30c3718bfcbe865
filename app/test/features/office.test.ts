import type { AdapterView, JobView } from '@ipsonomo/core/api';
import { officeClashes } from '../../src/features/wire/office';

const subnets = [{ name: 'Hall', network: '172.22.40.0/24' }] as unknown as JobView['subnets'];
const adapter = (name: string, ...addresses: string[]) =>
  ({ name, addresses }) as unknown as AdapterView;

test.each([
  ['none', [adapter('wlan0', '192.168.1.4')], undefined, []],
  [
    'the radio is in the machine’s subnet',
    [adapter('wlan0', '172.22.40.7')],
    'eth0',
    ['wlan0 Hall'],
  ],
  ['that is the wire in use', [adapter('eth0', '172.22.40.7')], 'eth0', []],
  ['what is no IPv4 address', [adapter('eth1', 'fe80::1')], undefined, []],
  [
    'several',
    [adapter('a', '172.22.40.7', '10.0.0.1'), adapter('b', '172.22.40.8')],
    '',
    ['a Hall', 'b Hall'],
  ],
])('%s', (_what, adapters, live, expected) => {
  const found = officeClashes(subnets, adapters, live);
  expect(found.map((one) => `${one.adapter} ${one.subnet}`)).toEqual(expected);
});
