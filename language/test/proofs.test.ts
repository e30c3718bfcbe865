import { foundWords, ownerTitle, strangerPlace, strangerWords } from '@ipsonomo/language';
import { must, parseIpv4, parseMac, parsePrefix } from '@ipsonomo/core/net';
import { toDevice, toInterface, toPlan, toSubnet } from '@ipsonomo/core/plan';
import type { Stranger } from '@ipsonomo/core/proof';

const ip = (text: string) => must(parseIpv4(text));
const MAC = '02:00:5e:00:53:11';
const plan = toPlan({
  subnets: [
    toSubnet({
      ...{ id: 's', name: 'Hall', prefix: must(parsePrefix('10.0.0.0/24')) },
      gateway: ip('10.0.0.1'),
    }),
  ],
  devices: [
    toDevice({
      ...{ id: 'd', title: 'Valves', name: 'ox1-valves', kindId: 'k', way: 'bootp' },
      interfaces: [
        toInterface({
          ...{ id: 'i', deviceId: 'd', subnetId: 's', address: ip('10.0.0.7') },
          mac: must(parseMac(MAC)),
        }),
      ],
    }),
  ],
});

const stranger = (fields: Partial<Stranger> = {}): Stranger => ({
  ...{ mac: '02:00:5e:00:53:77', addresses: [], names: [], services: [], said: null },
  ...{ page: null, asks: null, ...fields },
});

test.each<[Partial<Stranger>, place: string, words: string]>([
  [{}, '', 'nothing more is known of it'],
  [{ addresses: ['10.0.0.1'] }, 'has the gateway address of Hall', 'nothing more is known of it'],
  [
    { addresses: ['10.0.0.7', '10.0.0.9'], names: ['ox1-valves'] },
    'has the address of Valves; has the name of Valves',
    'called ox1-valves',
  ],
  [{ asks: { by: 'BootP', vendorClass: '' } }, '', 'asks for an address by BootP'],
  [
    {
      ...{ asks: { by: 'DHCP', vendorClass: 'hoist 7' }, page: 'Hoist' },
      services: [{ port: 80, name: 'web page', state: 'open' }],
      said: {
        ...{ by: 'Modbus/TCP', identity: undefined, product: 'H7', orderNumber: '', serial: '9' },
        ...{ revision: '1.2', hardware: '', connection: undefined },
      },
    },
    '',
    'asks for an address by DHCP as "hoist 7"; says it is H7, revision 1.2; serial number 9; ' +
      'its page is titled "Hoist"; open: web page (80)',
  ],
])('a stranger: %j', (fields, place, words) => {
  expect(strangerPlace(plan, stranger(fields))).toBe(place);
  expect(strangerWords(stranger(fields))).toBe(words);
});

test('whose MAC it is', () => {
  expect([MAC, '02:00:5e:00:53:12', 'none'].map((mac) => ownerTitle(plan, mac))).toEqual([
    ...['Valves', '', ''],
  ]);
});

test('all that was found, as one line', () => {
  const facts = { found: MAC, revision: '2.1', in: 4, passed: 'arp', connection: 'running' };
  expect(foundWords(facts)).toBe(`MAC ${MAC} · revision 2.1 · connection running · bytes in 4`);
});
