import { linkCells, predict, PreparedNet, routeMatrix, type RouteHost } from '../../src/routes';
import { randomSite } from './random-site';
import { host, port, route } from './site';
import { cases } from '../cases';

// R-MATRIX: what is worked out once for many is what each pair comes to by itself.

const textOf = (verdict: ReturnType<typeof predict>['verdict']): string =>
  verdict.works
    ? `works ${verdict.remarks.map(({ code }) => code).join(' ')}`
    : `${verdict.direction} ${verdict.reason.code}`;

test('on random sites every pair is as if it were asked alone', () => {
  let [pairs, alike] = [0, 0];
  for (let seed = 1; seed <= cases(30); seed += 1) {
    const hosts = randomSite(seed);
    const net = new PreparedNet({ hosts });
    const { groups, verdicts } = routeMatrix({ hosts });
    const members = new Map(
      net.hosts.flatMap((one) =>
        one.host.ports.map((at) => [at.id, { host: one, port: at }] as const),
      ),
    );
    groups.forEach((a, x) =>
      groups.forEach((b, y) => {
        const verdict = verdicts[x * groups.length + y];
        for (const from of a.ports)
          for (const to of b.ports) {
            const [one, other] = [members.get(from), members.get(to)];
            if (!one || !other || one.host === other.host || !verdict) continue;
            const asked = { from: one.host, as: one.port.address, to: other.port.address };
            const alone = predict(net, { ...asked, meant: other.host });
            expect([seed, from, to, textOf(verdict)]).toEqual([
              seed,
              from,
              to,
              textOf(alone.verdict),
            ]);
            pairs += 1;
            if (a.ports.length > 1 || b.ports.length > 1) alike += 1;
          }
      }),
    );
  }
  expect(pairs).toBeGreaterThan(4000);
  expect(alike).toBeGreaterThan(200);
});

test('fifty alike on each of two subnets are two groups, and every pair is counted', () => {
  const many = (link: string, network: string, gateway: string): readonly RouteHost[] =>
    Array.from({ length: 50 }, (_, at) =>
      host(`${link}${at}`, [port(link, `${network}.${at + 10}/24`, gateway)]),
    );
  const router = host('r', [port('a', '10.1.0.1/24'), port('b', '10.2.0.1/24')], {
    ...{ forwards: true, routes: [route('10.9.0.0/16', '10.1.0.2')] },
  });
  const hosts = [router, ...many('a', '10.1.0', '10.1.0.1'), ...many('b', '10.2.0', '10.2.0.9')];
  const { groups, pairs } = routeMatrix({ hosts });
  expect(groups).toHaveLength(4);
  expect(pairs.all).toBe(100 * 99 + 2 * 2 * 100);
  // What b sends out of its subnet goes to nobody: 50 × 50 pairs each way, and those with the router's far port.
  expect(pairs.all - pairs.works).toBe(2 * 50 * 50 + 2 * 50);
});

test('by links: the cells add up to all pairs, and to all that work', () => {
  for (let seed = 1; seed <= cases(15); seed += 1) {
    const hosts = randomSite(seed);
    const matrix = routeMatrix({ hosts });
    const cells = linkCells({ hosts }, matrix);
    const sum = (of: 'all' | 'works') => cells.reduce((total, cell) => total + cell[of], 0);
    expect([seed, sum('all'), sum('works')]).toEqual([seed, matrix.pairs.all, matrix.pairs.works]);
    expect(new Set(cells.map(({ from, to }) => `${from} ${to}`)).size).toBe(cells.length);
  }
});
