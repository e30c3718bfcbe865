import { cureWords, rackPathView, verdictWords } from '@ipsonomo/language';
import {
  containsAddress,
  formatIpv4,
  parseIpv4,
  toIpv4,
  type Issue,
  type Ipv4,
  type Result,
  fail,
  ok,
} from '@ipsonomo/core/net';
import { planOf, type Plan } from '@ipsonomo/core/plan';
import {
  findCure,
  predict,
  PreparedNet,
  routeNetOf,
  type Hop,
  type PreparedHost,
  type RouteHost,
  type Walk,
} from '@ipsonomo/core/routes';
import { refuseInput, type Command, type Output } from './output';
import { readPlan } from './plan';

/** A host of the site, and which of its addresses is meant. */
interface Place {
  readonly host: RouteHost;
  readonly address: Ipv4 | undefined;
}

/** A device by its address, by one that it is translated to, by host name or title. */
function find(plan: Plan, hosts: readonly RouteHost[], text: string): Result<Place> {
  const address = parseIpv4(text);
  if (address.ok) {
    const host = hosts.find(({ ports }) => ports.some((port) => port.address === address.value));
    if (host) return ok({ host, address: address.value });
    const behind = translated(hosts, address.value);
    if (behind) return ok({ host: behind, address: address.value });
  }
  const device = plan.devices.find(({ name, title, id }) => [name, title, id].includes(text));
  const host = hosts.find(({ id }) => id === device?.id);
  if (host) return ok({ host, address: undefined });
  return fail({ code: 'route.unknown', where: text } satisfies Issue);
}

/** Who is asked for by an address that a router translates, host for host, into its own. */
function translated(hosts: readonly RouteHost[], address: Ipv4): RouteHost | undefined {
  for (const { translations } of hosts)
    for (const one of translations) {
      if (one.kind !== 'one-to-one' || !containsAddress(one.outside, address)) continue;
      const inside = toIpv4(one.inside.network + (address - one.outside.network));
      const host = hosts.find(({ ports }) => ports.some((port) => port.address === inside));
      if (host) return host;
    }
  return undefined;
}

/** There, back, and what it comes to: one line a hop, then the verdict. False where it does not work. */
export const route: Command = ([file = '', from = '', to = ''], output) => {
  const doc = readPlan(file, output);
  if (!doc) return false;
  const plan = planOf(doc);
  const net = routeNetOf(plan);
  const [start, end] = [find(plan, net.hosts, from), find(plan, net.hosts, to)];
  for (const one of [start, end]) if (!one.ok) refuseInput(output, one.error);
  if (!start.ok || !end.ok) return false;
  const prepared = new PreparedNet(net);
  const asker = prepared.host(start.value.host.id);
  const address = end.value.address ?? end.value.host.ports[0]?.address;
  if (!asker || address === undefined) return false;
  const meant = prepared.host(end.value.host.id);
  const told = predict(prepared, { from: asker, to: address, meant });
  printWalk(output, 'there', told.there);
  if (told.back) printWalk(output, 'back', told.back);
  const at = end.value.host.ports.find((port) => port.address === address)?.id;
  const path = at === undefined ? undefined : rackPathView(plan, asker.host.id, at);
  const { title, text } = verdictWords(told.verdict);
  const asked = { from: asker.host.id, to: address, meant: end.value.host.id };
  const found = findCure(net, asked);
  output.print({
    verdict: told.verdict.works ? 'works' : told.verdict.direction,
    ...(told.verdict.works ? {} : { reason: told.verdict.reason.code }),
    message: `${title}. ${text}`.trim(),
    ...(path ? { path } : {}),
    ...(found ? { cure: cureWords(plan, found.cure) } : {}),
  });
  return told.verdict.works;
};

function printWalk(output: Output, direction: 'there' | 'back', { hops }: Walk): void {
  for (const hop of hops) output.print({ direction, ...hopLine(hop) });
}

const hopLine = ({ host, in: came, out, asked, proxied, ends }: Hop) => ({
  host: titleOf(host),
  ...(came ? { in: formatIpv4(came.address) } : {}),
  ...(out ? { out: formatIpv4(out.address) } : {}),
  ...(asked === undefined ? {} : { next: formatIpv4(asked) }),
  ...(proxied ? { answeredForOthers: true } : {}),
  from: formatIpv4(ends.from),
  to: formatIpv4(ends.to),
});

const titleOf = ({ host }: PreparedHost): string => host.title;
