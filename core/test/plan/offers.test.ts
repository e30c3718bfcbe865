import { formatMac, must, parseIpv4, parseMac } from '../../src/net';
import { findShelfKind, offersFor, toDevice, toInterface, type OfferClient } from '../../src/plan';

const mac = (text: string) => must(parseMac(text));
const KIND = findShelfKind('belloch-drive-d4');

const device = toDevice({
  id: 'one',
  title: 'Intake pump drive',
  name: 'in1-drive-1',
  kindId: 'belloch-drive-d4',
  way: 'dhcp-mac',
});
const at = toInterface({
  ...{ id: 'at', deviceId: 'one', subnetId: 's' },
  address: must(parseIpv4('10.0.0.80')),
});

const client = (last: string, fields: Partial<OfferClient> = {}): OfferClient => ({
  mac: mac(`02:00:5e:00:53:${last}`),
  protocol: 'DHCP',
  hostName: undefined,
  vendorClass: undefined,
  address: undefined,
  ...fields,
});

const offered = (clients: readonly OfferClient[], bound?: string) =>
  offersFor(device, { ...at, mac: bound ? mac(bound) : undefined }, KIND, clients).map(
    (offer) => `${formatMac(offer.mac).slice(-2)} ${offer.reasons.join('+')}`,
  );

test('best first: its name, its vendor class, its address, its way of asking', () => {
  const clients = [
    client('01'),
    client('02', { address: at.address }),
    client('03', { vendorClass: 'belloch-d4' }),
    client('04', { hostName: 'IN1-DRIVE-1' }),
    client('05', { protocol: 'BootP' }),
    client('06', { vendorClass: 'hoist 7', hostName: 'in1-drive-1' }),
  ];
  expect(offered(clients)).toEqual([
    '04 name+protocol',
    '03 vendor-class+protocol',
    '02 address+protocol',
    '01 protocol',
  ]);
});

test('once bound, only its own MAC', () => {
  const clients = [client('01', { hostName: 'in1-drive-1' }), client('02')];
  expect(offered(clients, '02:00:5e:00:53:02')).toEqual(['02 mac']);
  expect(offered(clients, '02:00:5e:00:53:09')).toEqual([]);
});
