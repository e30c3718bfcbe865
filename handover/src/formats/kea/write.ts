import { formatIpv4, formatPrefix } from '@ipsonomo/core/net';
import { FILE_WORDS } from '@ipsonomo/language/hand-over-files';
import { fileName, type Format } from '../../format';
import { headOf, listLeft } from '../../parts/head';
import {
  KEYED_SECONDS,
  LEASE_SECONDS,
  reservationsOf,
  type Reservation,
  type SubnetReservations,
} from '../../parts/reservations';
import { hexOf } from '../../parts/text';

/** Kea answers BootP only with this; the path is that of Debian on amd64. */
const BOOTP_HOOK = '/usr/lib/x86_64-linux-gnu/kea/hooks/libdhcp_bootp.so';

/**
 * R-KEA-EXPORT: the configuration of Kea's DHCPv4 server, as JSON without comments. A MAC is a reservation of its
 * subnet; a name or a switch port is a client class that a pool of one address is open to, since what tells hosts apart
 * there by name is a hook that not every installation has. Option 61 is looked at with its type byte and without.
 */
export const kea: Format = {
  id: 'kea',
  write: (material) => {
    const { subnets, left } = reservationsOf(material);
    const tagged = subnets.map((one, at) => ({ one, id: at + 1 }));
    const hasBootp = subnets.some(({ reservations }) =>
      reservations.some(({ device }) => device.way === 'bootp'),
    );
    const config = {
      Dhcp4: {
        'user-context': {
          'written by': headOf(material, FILE_WORDS.dhcp, FILE_WORDS.nobodyElse),
          ...(left.length === 0 ? {} : { 'not in it': listLeft(left) }),
        },
        'interfaces-config': { interfaces: ['*'] },
        'valid-lifetime': LEASE_SECONDS,
        ...(hasBootp ? { 'hooks-libraries': [{ library: BOOTP_HOOK }] } : {}),
        'client-classes': tagged.flatMap(({ one, id }) => classesOf(one, id)),
        subnet4: tagged.map(({ one, id }) => subnetOf(one, id)),
      },
    };
    const content = `${JSON.stringify(config, null, 2)}\n`;
    return { files: [{ name: fileName(material, 'kea', '.json'), content }], left };
  },
};

const className = (subnet: number, at: number): string => `s${subnet}-${at + 1}`;

function subnetOf({ subnet, reservations }: SubnetReservations, id: number) {
  const routers =
    subnet.gateway === undefined ? [] : [{ name: 'routers', data: formatIpv4(subnet.gateway) }];
  return {
    id,
    subnet: formatPrefix(subnet.prefix),
    'user-context': { name: subnet.name },
    'option-data': routers,
    pools: reservations.flatMap(({ key, at }, index) => {
      const address = formatIpv4(at.address);
      return key.kind === 'mac'
        ? []
        : [{ pool: `${address} - ${address}`, 'client-class': className(id, index) }];
    }),
    reservations: reservations.flatMap(({ key, at, device }) =>
      key.kind === 'mac'
        ? [
            {
              'hw-address': key.mac,
              'ip-address': formatIpv4(at.address),
              'user-context': { device: device.title },
            },
          ]
        : [],
    ),
  };
}

const classesOf = ({ reservations }: SubnetReservations, subnet: number) =>
  reservations.flatMap((one, at) =>
    one.key.kind === 'mac'
      ? []
      : [
          {
            name: className(subnet, at),
            test: testOf(one),
            'valid-lifetime': KEYED_SECONDS,
            'user-context': { device: one.device.title },
          },
        ],
  );

function testOf({ key }: Reservation): string {
  if (key.kind === 'name') {
    const hex = hexOf(key.name);
    return `option[12].hex == 0x${hex} or option[61].hex == 0x${hex} or option[61].hex == 0x00${hex}`;
  }
  if (key.kind === 'mac') return '';
  return [
    ...(key.circuit === '' ? [] : [`relay4[1].hex == 0x${key.circuit}`]),
    ...(key.remote === '' ? [] : [`relay4[2].hex == 0x${key.remote}`]),
  ].join(' and ');
}
