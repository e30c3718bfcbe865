import { formatIpv4, maskOf } from '@ipsonomo/core/net';
import { FILE_WORDS } from '@ipsonomo/language/hand-over-files';
import { headOf, listLeft } from '../../parts/head';
import { fileName, type Format } from '../../format';
import {
  KEYED_SECONDS,
  LEASE_SECONDS,
  reservationsOf,
  type Reservation,
  type SubnetReservations,
} from '../../parts/reservations';
import { colons, hexOf, oneLine } from '../../parts/text';

const LEASE = `${LEASE_SECONDS}`;
const KEYED = `${KEYED_SECONDS}`;

/** What dnsmasq takes as a host's name, and compares regardless of capitals. */
const isPlain = (name: string): boolean => /^[A-Za-z0-9][A-Za-z0-9.-]*$/.test(name);

/**
 * R-DHCP-EXPORT: the configuration of dnsmasq: one range a subnet that gives nothing by itself, and a line for each
 * reservation: by MAC, by name (options 12 and 61), by switch port (option 82).
 */
export const dnsmasq: Format = {
  id: 'dnsmasq',
  write: (material) => {
    const { subnets, left } = reservationsOf(material);
    const parts = subnets.map((one, at) => subnetPart(one, `subnet${at + 1}`));
    const head = [...headOf(material, FILE_WORDS.dhcp, FILE_WORDS.nobodyElse), ...listLeft(left)];
    const content = [...head.map((line) => `# ${line}`), '', ...parts].join('\n');
    return { files: [{ name: fileName(material, 'dnsmasq', '.conf'), content }], left };
  },
};

function subnetPart({ subnet, reservations }: SubnetReservations, tag: string): string {
  const { network, length } = subnet.prefix;
  const mask = formatIpv4(maskOf(length));
  const router = subnet.gateway === undefined ? '' : `,${formatIpv4(subnet.gateway)}`;
  return [
    `# ${oneLine(subnet.name)}`,
    `dhcp-range=set:${tag},${formatIpv4(network)},static,${mask},${LEASE}`,
    // Without a value dnsmasq would name itself as the router.
    `dhcp-option=tag:${tag},option:router${router}`,
    ...reservations.flatMap((one, at) => hostLines(one, mask, `${tag}port${at + 1}`)),
    '',
  ].join('\n');
}

function hostLines({ device, at, key }: Reservation, mask: string, tag: string): readonly string[] {
  const gives = formatIpv4(at.address);
  const title = `# ${oneLine(device.title)}`;
  switch (key.kind) {
    case 'mac':
      return [
        title,
        `dhcp-host=${key.mac},${gives}${isPlain(device.name) ? `,${device.name}` : ''}`,
      ];
    case 'name': {
      // A host has one key here, and an address one host: so either option sets a mark, and the mark has the address.
      const name = colons(hexOf(key.name));
      const range = `dhcp-range=tag:${tag},${gives},${gives},${mask},${KEYED}`;
      const marks = [
        ...(isPlain(key.name) ? [`dhcp-name-match=set:${tag},${key.name}`] : []),
        `dhcp-match=set:${tag},61,${name}`,
      ];
      return [title, ...marks, range];
    }
    case 'port': {
      const { circuit, remote } = key;
      const sides = [
        ...(circuit === '' ? [] : [`dhcp-circuitid=set:${tag}c,${colons(circuit)}`]),
        ...(remote === '' ? [] : [`dhcp-remoteid=set:${tag}r,${colons(remote)}`]),
      ];
      const tags = [
        ...(circuit === '' ? [] : [`tag:${tag}c`]),
        ...(remote === '' ? [] : [`tag:${tag}r`]),
      ];
      return [title, ...sides, `dhcp-range=${tags.join(',')},${gives},${gives},${mask},${KEYED}`];
    }
  }
}
