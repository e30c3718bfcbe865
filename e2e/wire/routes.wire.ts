import { expect, test } from '@playwright/test';
import { formatIpv4, toIpv4 } from '@ipsonomo/core/net';
import {
  predict,
  PreparedNet,
  type RouteHost,
  type ThereAndBack,
  type Walk,
} from '@ipsonomo/core/routes';
import { insideAddresses, KernelSite, type Pair, type Seen } from './kernel-site';
import { randomSite } from '../../core/test/routes/random-site';
import { cases } from '../../core/test/cases';

// R-THERE-AND-BACK, with the Linux kernel as judge: seeded random sites, built from namespaces. For every pair, each direction and where
// it ends is as predicted. A difference is a defect of ours.

/** Found by planting faults: each mistake is there by then, many times over. */
const SITES = cases(40);
const AT_ONCE = 4;

test('tables, masks, gateways, ARP and translations: as the kernel does it', async () => {
  const tally = { pairs: 0, works: 0, doubled: 0 };
  const reasons = new Map<string, number>();
  const seeds = Array.from({ length: SITES }, (_, at) => at + 1);
  // Asking is mostly waiting: several sites wait at once.
  await Promise.all(
    Array.from({ length: AT_ONCE }, async () => {
      for (let seed = seeds.shift(); seed !== undefined; seed = seeds.shift())
        await judge(seed, tally, reasons);
    }),
  );
  console.log(`${SITES} sites:`, tally, Object.fromEntries(reasons));
  expect(tally.works).toBeGreaterThan(500);
  expect(tally.doubled).toBeLessThan(tally.pairs / 50);
  for (const code of EXPECTED) expect([...reasons.keys()].join(), code).toContain(code);
});

interface Tally {
  pairs: number;
  works: number;
  doubled: number;
}

async function judge(seed: number, tally: Tally, reasons: Map<string, number>): Promise<void> {
  const hosts = randomSite(seed);
  const net = new PreparedNet({ hosts });
  const told = pairsOf(hosts).map((pair): Told => {
    const from = net.host(pair.from);
    if (!from) throw new Error(`no ${pair.from}`);
    return { pair, told: predict(net, { from, to: pair.to }) };
  });
  for (const { told: one } of told) {
    const reason = one.verdict.works
      ? 'works'
      : `${one.verdict.direction} ${one.verdict.reason.code}`;
    reasons.set(reason, (reasons.get(reason) ?? 0) + 1);
    if (one.verdict.works) tally.works += 1;
  }
  // Which of two that answer ARP is taken is luck.
  const judged = told.filter(
    ({ told: { verdict } }) => verdict.works || verdict.reason.code !== 'doubled',
  );
  tally.doubled += told.length - judged.length;
  tally.pairs += judged.length;
  const site = await KernelSite.build(`ipsr${seed}`, hosts);
  try {
    await site.listen();
    const hops = await site.nextHops(judged.map(({ pair }) => pair));
    const hopsDiffer = judged.flatMap((one, at) => nextHopDiffers(one, hops[at]));
    expect(hopsDiffer, `site ${seed}: ${describeSite(hosts)}`).toEqual([]);
    const differing = await differingOf(site, judged);
    // On a busy machine a ping may give up before its answer is there: who differs is asked once more.
    const still = await differingOf(
      site,
      differing.map(({ one }) => one),
    );
    const differences = still.flatMap(({ differences: all }) => all);
    expect(differences, `site ${seed}: ${describeSite(hosts)}`).toEqual([]);
  } finally {
    await site.takeDown();
  }
}

interface Told {
  readonly pair: Pair;
  readonly told: ThereAndBack;
}

async function differingOf(site: KernelSite, all: readonly Told[]) {
  const seen = await site.askAll(all.map(({ pair }) => pair));
  return all.flatMap((one, at) => {
    const truth = seen[at];
    if (!truth) throw new Error(`not asked: ${one.pair.from}`);
    const differences = differenceOf(one.pair, one.told, truth);
    return differences.length > 0 ? [{ one, differences }] : [];
  });
}

/** The mistakes have to have been made, or nothing was judged. */
const EXPECTED = [
  ...['gateway-missing', 'gateway-outside', 'gateway-nobody', 'mask-wide', 'nobody', 'no-route'],
  ...['not-router', 'loop', 'back mask-wide', 'back gateway'],
];

/** Everybody to everybody, and to the outside addresses of the translated. */
function pairsOf(hosts: readonly RouteHost[]): readonly Pair[] {
  const outside = hosts.flatMap(({ translations }) =>
    translations.flatMap((one) =>
      one.kind === 'one-to-one'
        ? insideAddresses(one, hosts)
            .filter((address) => !hosts.some((host) => host.forwards && has(host, address)))
            .map((address) => toIpv4(address - one.inside.network + one.outside.network))
        : [],
    ),
  );
  const all = [...hosts.flatMap(({ ports }) => ports.map(({ address }) => address)), ...outside];
  return hosts.flatMap((host) => {
    // The kernel answers ARP for them only as addresses of its own, so from inside it would answer itself.
    const isNear = host.translations.length > 0 || host.id.startsWith('p');
    return all
      .filter((to) => !has(host, to) && !(isNear && outside.includes(to)))
      .map((to) => ({ from: host.id, to }));
  });
}

const has = ({ ports }: RouteHost, address: number): boolean =>
  ports.some((port) => port.address === address);

/** Hosts at which a packet arrived, its beginning excepted. */
const arrivedAt = (walk: Walk | undefined): ReadonlySet<string> =>
  new Set(walk?.hops.slice(1).map(({ host }) => host.host.id));

function differenceOf(pair: Pair, told: ThereAndBack, seen: Seen): readonly string[] {
  const about = `${pair.from} to ${formatIpv4(pair.to)}`;
  const found: string[] = [];
  const compare = (what: string, one: ReadonlySet<string>, other: ReadonlySet<string>) => {
    const [predicted, captured] = [one, other].map((set) => [...set].sort().join(' '));
    if (predicted !== captured)
      found.push(`${about}: ${what} predicted at [${predicted}], captured at [${captured}]`);
  };
  compare('request', arrivedAt(told.there), seen.requests);
  compare('reply', arrivedAt(told.back), seen.replies);
  // Some pings are content with a reply from another address.
  const isOneWay = !told.verdict.works && told.verdict.reason.code === 'one-way';
  if (!isOneWay && told.verdict.works !== seen.answered)
    found.push(`${about}: predicted ${told.verdict.works}, answered ${seen.answered}`);
  return found;
}

function nextHopDiffers({ pair, told: { there } }: Told, kernel = ''): readonly string[] {
  const [first] = there.hops;
  const stop = there.hops.length === 1 ? there.stop : undefined;
  const asked = stop && 'asked' in stop ? stop.asked : first?.asked;
  const predicted =
    stop?.why === 'broadcast'
      ? 'broadcast'
      : asked === undefined
        ? 'unreachable'
        : formatIpv4(asked);
  return predicted === kernel
    ? []
    : [`${pair.from} to ${formatIpv4(pair.to)}: next hop ${predicted}, kernel ${kernel}`];
}

const describeSite = (hosts: readonly RouteHost[]): string =>
  hosts
    .map(({ id, ports, routes, forwards, answersForOthers, translations }) =>
      JSON.stringify({
        id,
        ports: ports.map(
          ({ link, address, length, gateway }) =>
            `${link} ${formatIpv4(address)}/${length} ${gateway === undefined ? '-' : formatIpv4(gateway)}`,
        ),
        routes: routes.map(
          ({ to, via }) => `${formatIpv4(to.network)}/${to.length} ${formatIpv4(via)}`,
        ),
        ...{ forwards, answersForOthers, translations: translations.map(({ kind }) => kind) },
      }),
    )
    .join('\n');
