import { formatIpv4, toPrefixLength } from '@ipsonomo/core/net';
import { Subnets } from '../src/engine/hearing/subnets';
import type { FieldSubnet } from '../src/protocol';
import { ip } from './bench';

const planned: FieldSubnet = {
  ...{ id: 'hall', name: 'Hall', network: ip('172.22.40.0'), length: toPrefixLength(22) },
  ...{ gateway: undefined, voices: [ip('172.22.43.253')], servers: [] },
};

function subnets(): Subnets {
  const all = new Subnets();
  all.plan({ subnets: [planned] });
  return all;
}

test.each([
  ['172.22.40.0', 'hall'],
  ['172.22.43.255', 'hall'],
  ['172.22.39.255', 'around 172.22.39.0'],
  ['172.22.44.0', 'around 172.22.44.0'],
  ['192.168.77.10', 'around 192.168.77.0'],
  ['255.255.255.255', 'around 255.255.255.0'],
  ['0.0.0.1', 'around 0.0.0.0'],
])('%s is spoken to in: %s', (address, id) => {
  const all = subnets();
  expect(all.around(ip(address)).id).toBe(id);
  expect(all.find(id)?.id).toBe(id);
});

test('one around an address is made once, and the address itself is none of ours', () => {
  const all = subnets();
  const around = all.around(ip('192.168.77.246'));
  expect(all.around(ip('192.168.77.10'))).toBe(around);
  expect(around.voices.map(formatIpv4)).toEqual([
    '192.168.77.247',
    '192.168.77.243',
    '192.168.77.242',
  ]);
  expect(all.all).toEqual([planned, around]);
});

test('a new plan may have the subnet that was made before', () => {
  const all = subnets();
  all.around(ip('192.168.77.10'));
  const wider = { ...planned, id: 'wide', network: ip('192.168.76.0') };
  all.plan({ subnets: [wider] });
  expect(all.around(ip('192.168.77.10')).id).toBe('wide');
});
