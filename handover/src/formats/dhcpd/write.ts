import { formatIpv4, maskOf } from '@ipsonomo/core/net';
import { FILE_WORDS } from '@ipsonomo/language/hand-over-files';
import { fileName, type Format } from '../../format';
import { comments, headOf, listLeft } from '../../parts/head';
import {
  KEYED_SECONDS,
  LEASE_SECONDS,
  reservationsOf,
  type Reservation,
  type SubnetReservations,
} from '../../parts/reservations';
import { colons, hexOf, oneLine } from '../../parts/text';

/**
 * R-DHCPD-EXPORT: the configuration of ISC dhcpd. A MAC is a host (answered over BootP and DHCP alike); a name or a
 * switch port is a class that a pool of one address is open to, since its hosts are told apart by MAC and option 61
 * alone (dhcpd.conf(5), "The Host Statement", "Client Classing"). A name is looked for in option 12, and in option 61
 * with its type byte and without.
 */
export const dhcpd: Format = {
  id: 'dhcpd',
  write: (material) => {
    const { subnets, left } = reservationsOf(material);
    const head = [...headOf(material, FILE_WORDS.dhcp, FILE_WORDS.nobodyElse), ...listLeft(left)];
    const content = [
      ...comments(head, '#'),
      `default-lease-time ${LEASE_SECONDS};`,
      `max-lease-time ${LEASE_SECONDS};`,
      '',
      ...subnets.map((one, at) => subnetPart(one, `s${at + 1}`)),
    ].join('\n');
    return { files: [{ name: fileName(material, 'dhcpd', '.conf'), content }], left };
  },
};

function subnetPart({ subnet, reservations }: SubnetReservations, tag: string): string {
  const { network, length } = subnet.prefix;
  const named = reservations.map((one, at) => ({ one, id: `${tag}-${at + 1}` }));
  const classes = named.flatMap(({ one, id }) => classOf(one, id));
  return [
    ...comments([oneLine(subnet.name)], '#'),
    ...classes,
    `subnet ${formatIpv4(network)} netmask ${formatIpv4(maskOf(length))} {`,
    ...(subnet.gateway === undefined ? [] : [`  option routers ${formatIpv4(subnet.gateway)};`]),
    ...named.flatMap(({ one, id }) => poolOf(one, id)),
    '}',
    ...named.flatMap(({ one, id }) => hostOf(one, id)),
    '',
  ].join('\n');
}

const hostOf = ({ device, at, key }: Reservation, id: string): readonly string[] =>
  key.kind === 'mac'
    ? [
        `# ${oneLine(device.title)}`,
        `host ${id} { hardware ethernet ${key.mac}; fixed-address ${formatIpv4(at.address)}; }`,
      ]
    : [];

function classOf({ device, key }: Reservation, id: string): readonly string[] {
  if (key.kind === 'mac') return [];
  const match =
    key.kind === 'name'
      ? [
          `option host-name = ${colons(hexOf(key.name))}`,
          `option dhcp-client-identifier = ${colons(hexOf(key.name))}`,
          `option dhcp-client-identifier = 00:${colons(hexOf(key.name))}`,
        ].join(' or ')
      : [
          ...(key.circuit === '' ? [] : [`option agent.circuit-id = ${colons(key.circuit)}`]),
          ...(key.remote === '' ? [] : [`option agent.remote-id = ${colons(key.remote)}`]),
        ].join(' and ');
  return [`# ${oneLine(device.title)}`, `class "${id}" { match if ${match}; }`];
}

function poolOf({ at, key }: Reservation, id: string): readonly string[] {
  if (key.kind === 'mac') return [];
  const lease = `default-lease-time ${KEYED_SECONDS}; max-lease-time ${KEYED_SECONDS};`;
  return [`  pool { allow members of "${id}"; ${lease} range ${formatIpv4(at.address)}; }`];
}
