import { formatIpv4, must, parseIpv4, parsePrefix, parsePrefixLength } from '../../src/net';
import {
  predict,
  PreparedNet,
  toRouteHost,
  type RouteHost,
  type RoutePort,
  type ThereAndBack,
  type Walk,
} from '../../src/routes';

export const ip = (text: string) => must(parseIpv4(text));
export const prefix = (text: string) => must(parsePrefix(text));

/** `port('hall', '10.1.0.5/24', '10.1.0.1')`: link, address with mask, gateway. */
export function port(link: string, cidr: string, gateway?: string): RoutePort {
  const [address = '', length = ''] = cidr.split('/');
  return {
    id: `${link}:${address}`,
    link,
    address: ip(address),
    length: must(parsePrefixLength(length)),
    gateway: gateway === undefined ? undefined : ip(gateway),
  };
}

export const host = (
  id: string,
  ports: readonly RoutePort[],
  more: Partial<RouteHost> = {},
): RouteHost => toRouteHost({ id, title: id, ports, ...more });

export const route = (to: string, via: string) => ({ to: prefix(to), via: ip(via) });

export function ask(
  hosts: readonly RouteHost[],
  from: string,
  to: string,
  meant?: string,
): ThereAndBack {
  const net = new PreparedNet({ hosts });
  const start = net.host(from);
  if (!start) throw new Error(`no host ${from}`);
  return predict(net, {
    from: start,
    to: ip(to),
    meant: meant === undefined ? undefined : net.host(meant),
  });
}

/** `a > r1 > b`, as it was walked. */
export const pathOf = ({ hops }: Walk): string => hops.map((hop) => hop.host.host.id).join(' > ');

/** What it comes to, in one line. */
export function verdictOf({ verdict }: ThereAndBack): string {
  if (verdict.works) return ['works', ...verdict.remarks.map(({ code }) => code)].join(' ');
  return `${verdict.direction} ${verdict.at.host.id} ${verdict.reason.code}`;
}

export const addressesOf = ({ hops }: Walk): string =>
  hops.map(({ ends }) => `${formatIpv4(ends.from)} ${formatIpv4(ends.to)}`).join(', ');
