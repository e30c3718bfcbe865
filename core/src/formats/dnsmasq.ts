import { formatIpv4, formatMac, maskOf, type Ipv4 } from '../net';
import {
  dhcpNameOf,
  interfacesOf,
  isAsking,
  type Plan,
  type PlannedInterface,
  type Subnet,
} from '../plan';

// The reservations of a plan for whoever answers DHCP in the plant: the configuration of dnsmasq, checked in a
// test with dnsmasq itself.

/** How long an address is lent before it has to be asked for again. */
const LEASE = '12h';

const HEAD = `# DHCP reservations of a plan, for dnsmasq. Written by Ipsonomo; change the plan, not this file.
# Nobody gets an address who is not named here.
`;

/** What dnsmasq takes as a host's name, and compares regardless of capitals. */
const isPlain = (name: string): boolean => /^[A-Za-z0-9][A-Za-z0-9.-]*$/.test(name);

const hexOf = (name: string): string =>
  [...name].map((letter) => letter.charCodeAt(0).toString(16).padStart(2, '0')).join(':');

const colons = (hex: string): string => (hex.match(/../g) ?? []).join(':');

/**
 * R-DHCP-EXPORT: one range a subnet that gives nothing by itself, and a line for each interface that asks: by
 * MAC, by name (option 12; the line for option 61 stands beside it), by switch port (option 82). An interface
 * of which the key is not known is named in a comment.
 */
export function dnsmasqConfig(plan: Plan): string {
  const asking = new Map(plan.subnets.map(({ id }): [string, PlannedInterface[]] => [id, []]));
  for (const one of interfacesOf(plan))
    if (isAsking(one.device.way)) asking.get(one.at.subnetId)?.push(one);
  const parts = plan.subnets.map((subnet, at) =>
    subnetPart(subnet, asking.get(subnet.id) ?? [], `subnet${at + 1}`),
  );
  return [HEAD, ...parts].join('\n');
}

function subnetPart(subnet: Subnet, asking: readonly PlannedInterface[], tag: string): string {
  const { network, length } = subnet.prefix;
  const mask = formatIpv4(maskOf(length));
  const router = subnet.gateway === undefined ? '' : `,${formatIpv4(subnet.gateway)}`;
  return [
    `# ${plainText(subnet.name)}`,
    `dhcp-range=set:${tag},${formatIpv4(network)},static,${mask},${LEASE}`,
    // Without a value dnsmasq would name itself as the router.
    `dhcp-option=tag:${tag},option:router${router}`,
    ...asking.flatMap((one, at) => hostLines(one, mask, `${tag}port${at + 1}`)),
    '',
  ].join('\n');
}

function hostLines({ device, at }: PlannedInterface, mask: string, tag: string): string[] {
  const address: Ipv4 = at.address;
  const gives = formatIpv4(address);
  const title = `# ${plainText(device.title)}`;
  if (device.way === 'dhcp-name') {
    const name = dhcpNameOf(device);
    const byId = `dhcp-host=id:${hexOf(name)},${gives}`;
    return isPlain(name)
      ? [title, `dhcp-host=${name},${gives}`, `# if it sends option 61 instead: ${byId}`]
      : [title, byId];
  }
  if (device.way === 'dhcp-port') {
    if (!at.port) return [`${title}: its switch port is not known yet, ${gives} is not given`];
    const { circuit, remote } = at.port;
    const sides = [
      ...(circuit === '' ? [] : [`dhcp-circuitid=set:${tag}c,${colons(circuit)}`]),
      ...(remote === '' ? [] : [`dhcp-remoteid=set:${tag}r,${colons(remote)}`]),
    ];
    const tags = [
      ...(circuit === '' ? [] : [`tag:${tag}c`]),
      ...(remote === '' ? [] : [`tag:${tag}r`]),
    ];
    return [title, ...sides, `dhcp-range=${tags.join(',')},${gives},${gives},${mask},${LEASE}`];
  }
  return at.mac === undefined
    ? [`${title}: no MAC is bound yet, ${gives} is not given`]
    : [
        title,
        `dhcp-host=${formatMac(at.mac)},${gives}${isPlain(device.name) ? `,${device.name}` : ''}`,
      ];
}

/** One line whatever was typed. */
const plainText = (text: string): string => text.replace(/[\r\n]+/g, ' ');
