import { containsAddress, prefixOf, toIpv4, toPrefixLength, type Ipv4 } from '@ipsonomo/core/net';
import {
  predict,
  PreparedNet,
  PrefixTable,
  routeMatrix,
  toRouteHost,
  type RouteHost,
} from '@ipsonomo/core/routes';
import { median } from './figures';

// Routes there and back, bundled as the server is. Prints one JSON object.

const networkOf = (subnet: number): number => 0x0a000000 + (subnet + 1) * 256;
const prefix24 = (subnet: number) => prefixOf(toIpv4(networkOf(subnet)), toPrefixLength(24));
const backbone = (router: number) => toIpv4(0x0b000001 + router);

/** Routers on one backbone, each with its share of the subnets and a route to every other; hosts in all of them. */
function siteOf(subnets: number, routers: number, hosts: number): readonly RouteHost[] {
  const all = Array.from({ length: subnets }, (_, subnet) => subnet);
  const port = (id: string, link: string, address: number, length = 24, gateway?: Ipv4) => ({
    ...{ id, link, address: toIpv4(address), length: toPrefixLength(length), gateway },
  });
  const router = (number: number) => {
    const own = all.filter((subnet) => subnet % routers === number);
    return toRouteHost({
      ...{ id: `r${number}`, title: `r${number}`, forwards: true },
      ports: [
        port(`b${number}`, 'backbone', backbone(number), 16),
        ...own.map((subnet) => port(`r${subnet}`, `s${subnet}`, networkOf(subnet) + 1)),
      ],
      routes: all
        .filter((subnet) => subnet % routers !== number)
        .map((subnet) => ({ to: prefix24(subnet), via: backbone(subnet % routers) })),
    });
  };
  const ends = Array.from({ length: hosts }, (_, at) => {
    const subnet = at % subnets;
    const address = networkOf(subnet) + 10 + Math.floor(at / subnets);
    // Some have the wide mask of another site.
    const length = at % 9 === 0 ? 16 : 24;
    const own = port(`p${at}`, `s${subnet}`, address, length, toIpv4(networkOf(subnet) + 1));
    return toRouteHost({ id: `h${at}`, title: `h${at}`, ports: [own] });
  });
  return [...Array.from({ length: routers }, (_, number) => router(number)), ...ends];
}

function oneMillis(): number {
  const net = new PreparedNet({ hosts: siteOf(400, 200, 4400) });
  const ends = net.hosts.filter(({ host }) => !host.forwards);
  const times: number[] = [];
  for (let run = 0; run < 9; run += 1) {
    const start = performance.now();
    for (let at = 0; at < 2000; at += 1) {
      const from = ends[(at * 7919 + run) % ends.length];
      const to = ends[(at * 104_729 + 13) % ends.length]?.host.ports[0];
      if (from && to && !from.has(to.address)) predict(net, { from, to: to.address });
    }
    times.push((performance.now() - start) / 2000);
  }
  return median(times.slice(1));
}

function matrixOnce() {
  const hosts = siteOf(100, 40, 1860);
  const before = process.memoryUsage().rss;
  const start = performance.now();
  const { groups, pairs } = routeMatrix({ hosts });
  const millis = performance.now() - start;
  const bytes = process.memoryUsage().rss - before;
  const interfaces = hosts.reduce((sum, { ports }) => sum + ports.length, 0);
  return { millis, bytes, groups: groups.length, pairs: pairs.all, interfaces };
}

/** Million look-ups a second on 10,000 routes, and by looking at every line. */
function lookups() {
  const entries = Array.from({ length: 10_000 }, (_, at) => ({
    prefix: prefixOf(toIpv4(Math.imul(at, 2_654_435_761) >>> 0), toPrefixLength(8 + (at % 21))),
    value: at,
  }));
  const table = new PrefixTable(entries);
  const asked = Uint32Array.from(
    { length: 1 << 16 },
    (_, at) => Math.imul(at, 2_246_822_519) >>> 0,
  );
  const rates: number[] = [];
  for (let run = 0; run < 9; run += 1) {
    const start = performance.now();
    for (let round = 0; round < 16; round += 1) for (const one of asked) table.find(toIpv4(one));
    rates.push((16 * asked.length) / (performance.now() - start) / 1000);
  }
  const start = performance.now();
  let scanned = 0;
  for (const one of asked.subarray(0, 400)) {
    let best = -1;
    for (const { prefix } of entries)
      if (containsAddress(prefix, toIpv4(one)) && prefix.length > best) best = prefix.length;
    scanned += 1;
  }
  const scan = scanned / (performance.now() - start) / 1000;
  return { ours: median(rates.slice(1)), scan };
}

const matrices = Array.from({ length: 5 }, matrixOnce);
process.stdout.write(
  JSON.stringify({
    one: oneMillis(),
    matrix: { ...matrices[0], millis: median(matrices.map(({ millis }) => millis)) },
    lookups: lookups(),
  }),
);
