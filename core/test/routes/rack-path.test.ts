import { rackPathView } from '@ipsonomo/language';
import { toDevice, toInterface, toPlan, toSubnet, type Interface } from '../../src/plan';
import { askedPath, rackPath } from '../../src/routes';
import { encodeWith, portPath, toHex } from '../../src/wire';
import { ip, prefix } from './site';

// R-RACK-PATH: from the plant's network through two racks to a device on a private one.

const subnet = (id: string, network: string) => toSubnet({ id, name: id, prefix: prefix(network) });
const at = (
  id: string,
  deviceId: string,
  subnetId: string,
  address: string,
  slot?: number,
): Interface => toInterface({ id, deviceId, subnetId, address: ip(address), slot });
const device = (id: string, ...interfaces: readonly Interface[]) => ({
  ...toDevice({ id, title: id, name: id, kindId: 'osterhew-controller-k', way: 'makers-tool' }),
  interfaces,
});

const plan = toPlan({
  subnets: [
    subnet('plant', '172.22.40.0/24'),
    subnet('line', '192.168.7.0/24'),
    subnet('cell', '192.168.9.0/24'),
  ],
  devices: [
    device(
      'line-rack',
      at('line-up', 'line-rack', 'plant', '172.22.40.10', 3),
      at('line-down', 'line-rack', 'line', '192.168.7.1', 5),
    ),
    device(
      'cell-rack',
      at('cell-up', 'cell-rack', 'line', '192.168.7.86', 2),
      at('cell-down', 'cell-rack', 'cell', '192.168.9.1', 4),
    ),
    device('drive', at('drive-at', 'drive', 'cell', '192.168.9.20')),
    device(
      'panel',
      at('panel-a', 'panel', 'plant', '172.22.40.30'),
      at('panel-b', 'panel', 'cell', '192.168.9.30'),
    ),
  ],
});

const walked = (steps: ReturnType<typeof rackPath>): string | undefined =>
  steps?.map(({ port, link }) => `${port},${link}`).join(' ');

test.each<[string, Parameters<typeof rackPath>[1], string, string | undefined]>([
  ['to the module itself', { kind: 'module', interface: 'line-up' }, 'line-up', ''],
  ['to the other module of the rack', { kind: 'module', interface: 'line-up' }, 'line-down', '1,5'],
  ['to the next rack', { kind: 'module', interface: 'line-up' }, 'cell-up', '1,5 2,192.168.7.86'],
  [
    'through both racks',
    { kind: 'module', interface: 'line-up' },
    'drive-at',
    '1,5 2,192.168.7.86 1,4 2,192.168.9.20',
  ],
  [
    'from the controller of the second',
    { kind: 'controller', device: 'cell-rack' },
    'drive-at',
    '1,4 2,192.168.9.20',
  ],
  // Two interfaces and no slot: not a rack, so nothing goes through it.
  ['through what is no rack', { kind: 'module', interface: 'panel-a' }, 'drive-at', undefined],
  ['from nowhere', { kind: 'module', interface: 'nothing' }, 'drive-at', undefined],
])('%s', (_what, start, target, expected) => {
  expect(walked(rackPath(plan, start, target))).toBe(expected);
});

test('as it is shown: where it begins, hop by hop, numbers and bytes', () => {
  expect(rackPathView(plan, 'panel', 'cell-up')).toEqual({
    from: 'line-rack, module in slot 3 (172.22.40.10), which one is connected to',
    hops: [
      { step: 'backplane, slot 5', leadsTo: 'line-rack, module in slot 5 (192.168.7.1)' },
      { step: 'port 2, 192.168.7.86', leadsTo: 'cell-rack, module in slot 2 (192.168.7.86)' },
    ],
    numbers: '1,5,2,192.168.7.86',
    bytes: '01 05 12 0C 31 39 32 2E 31 36 38 2E 37 2E 38 36',
  });
  expect(rackPathView(plan, 'line-rack', 'cell-up')).toMatchObject({ from: 'line-rack itself' });
  expect(rackPathView(plan, 'drive', 'line-up')?.numbers).toBe('1,2,2,192.168.7.1,1,3');
});

test('as bytes: each part of an even length', () => {
  const bytes = (link: string) =>
    toHex(
      encodeWith(portPath, [
        { port: 1, link: 5 },
        { port: 2, link },
      ]),
    ).toUpperCase();
  expect(bytes('172.22.40.86')).toBe('0105120C3137322E32322E34302E3836');
  expect(bytes('172.22.40.186')).toBe('0105120D3137322E32322E34302E31383600');
});

test('asked along: from the module in the asker’s own network, over the backplane first', () => {
  const laptop = device('laptop', at('lap', 'laptop', 'plant', '172.22.40.99'));
  const cell = device('cell-io', at('io', 'cell-io', 'cell', '192.168.9.21'));
  const whole = {
    ...plan,
    devices: [...plan.devices.filter(({ id }) => id !== 'cell-io'), laptop, cell],
  };
  const asked = askedPath(whole, 'laptop', 'io');
  expect(asked?.entry.id).toBe('line-up');
  expect(asked?.steps[0]).toMatchObject({ port: 1 });
  expect(asked?.steps.at(-1)).toMatchObject({ port: 2, link: '192.168.9.21' });
  expect(askedPath({ ...whole, devices: [laptop, cell] }, 'laptop', 'io')).toBeUndefined();
});
