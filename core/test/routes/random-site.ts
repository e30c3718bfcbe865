import { seeded } from '@ipsonomo/practice';
import { must, parseIpv4, parsePrefix, toIpv4, toPrefixLength } from '../../src/net';
import { toRouteHost, type RouteHost, type RoutePort, type Translation } from '../../src/routes';

// Small sites with the mistakes of real ones, each made from a number: the same number, the same site.

class Dice {
  constructor(private readonly next: () => number) {}

  whole = (first: number, last: number): number =>
    first + Math.floor(this.next() * (last - first + 1));
  chance = (of: number): boolean => this.next() < of;
  one = <T>(all: readonly T[]): T => {
    const found = all[this.whole(0, all.length - 1)];
    if (found === undefined) throw new Error('nothing to choose from');
    return found;
  };
}

interface Router {
  readonly id: string;
  readonly links: readonly number[];
}

/** Numbers that are no network's and no broadcast address under any mask used here. */
const NUMBERS = [9, 10, 21, 38, 52, 67, 83, 100, 117, 130, 149, 170, 186, 201, 217, 233] as const;
const PRIVATE = 'private';

const addressIn = (link: number, number: number) => toIpv4(0x0a000000 + link * 0x10000 + number);
const networkOf = (link: number) => must(parsePrefix(`10.${link}.0.0/24`));
const linkName = (link: number) => `l${link}`;

const portOf = (link: string, address: RoutePort['address'], length: number): RoutePort => ({
  ...{ id: `${link}-${address}`, link, address, length: toPrefixLength(length) },
  gateway: undefined,
});

/** 2 to 5 subnets, 1 to 4 routers, up to three hosts a subnet; sometimes a translated network behind one. */
export function randomSite(seed: number): readonly RouteHost[] {
  const dice = new Dice(seeded(seed));
  const count = dice.whole(2, 5);
  const routers = routersOf(dice, count);
  const hosts = routers.map((router) => routerHost(dice, router, routers, count));
  for (let link = 1; link <= count; link += 1) {
    const numbers = new Set<number>();
    for (let each = dice.whole(1, count > 3 ? 2 : 3); each > 0; each -= 1)
      numbers.add(dice.one(NUMBERS));
    for (const number of numbers) hosts.push(endHost(dice, link, number, routers));
  }
  return dice.chance(0.3) ? withTranslation(dice, hosts) : hosts;
}

/** Each joins two or three subnets, in a chain so that all are joined, and sometimes a ring. */
function routersOf(dice: Dice, count: number): readonly Router[] {
  const wanted = Math.max(1, Math.min(4, count - 1 + (dice.chance(0.3) ? 1 : 0)));
  return Array.from({ length: wanted }, (_, at) => {
    const first = at < count - 1 ? at + 1 : dice.whole(1, count);
    const second = at < count - 1 ? at + 2 : (first % count) + 1;
    const links = new Set([first, second]);
    if (dice.chance(0.3)) links.add(dice.whole(1, count));
    return { id: `r${at + 1}`, links: [...links] };
  });
}

const routerNumber = ({ id }: Router): number => Number(id.slice(1));

/** The neighbour by which a router reaches a subnet on the shortest way; undefined where it has it itself. */
function shortest(from: Router, to: number, routers: readonly Router[]): Router | undefined {
  const queue: { at: Router; by: Router | undefined }[] = [{ at: from, by: undefined }];
  const seen = new Set([from]);
  for (let next = queue.shift(); next; next = queue.shift()) {
    if (next.at.links.includes(to)) return next.by;
    for (const other of routers) {
      if (seen.has(other) || !other.links.some((link) => next.at.links.includes(link))) continue;
      seen.add(other);
      queue.push({ at: other, by: next.by ?? other });
    }
  }
  return undefined;
}

function routerHost(
  dice: Dice,
  router: Router,
  routers: readonly Router[],
  count: number,
): RouteHost {
  const ports = router.links.map((link) =>
    portOf(linkName(link), addressIn(link, routerNumber(router)), 24),
  );
  const routes: { to: RouteHost['routes'][number]['to']; via: RoutePort['address'] }[] = [];
  for (let link = 1; link <= count; link += 1) {
    if (router.links.includes(link) || dice.chance(0.08)) continue;
    const others = routers.filter((one) => one !== router && shared(one, router) !== undefined);
    const right = shortest(router, link, routers);
    const next = others.length > 0 && dice.chance(0.15) ? dice.one(others) : right;
    const meet = next && shared(next, router);
    if (next && meet !== undefined)
      routes.push({ to: networkOf(link), via: addressIn(meet, routerNumber(next)) });
  }
  if (dice.chance(0.15)) {
    // A part of a subnet by way of somebody else: the longer prefix wins.
    const link = dice.whole(1, count);
    const to = must(parsePrefix(`10.${link}.0.${dice.one([0, 64, 128])}/26`));
    const meet = dice.one(router.links);
    routes.push({ to, via: addressIn(meet, dice.one(NUMBERS)) });
  }
  const more = { forwards: true, answersForOthers: dice.chance(0.2), routes };
  return toRouteHost({ id: router.id, title: router.id, ports, ...more });
}

const shared = (one: Router, other: Router): number | undefined =>
  one.links.find((link) => other.links.includes(link));

function endHost(dice: Dice, link: number, number: number, routers: readonly Router[]): RouteHost {
  const near = routers.filter(({ links }) => links.includes(link));
  const length = dice.chance(0.65) ? 24 : dice.one([8, 8, 16, 25, 26, 28]);
  const gateway = dice.chance(0.1)
    ? undefined
    : dice.chance(0.8) && near.length > 0
      ? addressIn(link, routerNumber(dice.one(near)))
      : dice.one([
          addressIn(link, 254),
          addressIn(link, dice.one(NUMBERS)),
          addressIn((link % 5) + 1, 1),
        ]);
  const port = { ...portOf(linkName(link), addressIn(link, number), length), gateway };
  const id = `h${link}x${number}`;
  return toRouteHost({ id, title: id, ports: [port], forwards: dice.chance(0.04) });
}

/** A private network behind one of the routers, as many machines have it. */
function withTranslation(dice: Dice, hosts: readonly RouteHost[]): readonly RouteHost[] {
  const at = hosts.findIndex((one) => one.id === 'r1');
  const router = hosts[at];
  const outside = router?.ports[0];
  if (!router || !outside) return hosts;
  const base = toIpv4(outside.address - 1);
  const inside = must(parsePrefix('192.168.5.0/28'));
  const translation: Translation = dice.chance(0.5)
    ? {
        kind: 'one-to-one',
        inside,
        outside: { network: toIpv4(base + 240), length: inside.length },
      }
    : { kind: 'many-to-one', inside, outside: outside.address };
  const port = portOf(PRIVATE, must(parseIpv4('192.168.5.1')), 24);
  const device = (number: number): RouteHost => {
    const own = portOf(PRIVATE, must(parseIpv4(`192.168.5.${number}`)), 24);
    const gateway = dice.chance(0.8) ? port.address : undefined;
    const id = `p${number}`;
    return toRouteHost({ id, title: id, ports: [{ ...own, gateway }] });
  };
  const changed = { ...router, ports: [...router.ports, port], translations: [translation] };
  return [...hosts.slice(0, at), changed, ...hosts.slice(at + 1), device(5), device(9)];
}
