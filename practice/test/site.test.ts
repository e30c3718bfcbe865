import { SHELF } from '@ipsonomo/core/plan';
import { PracticeSite, TERN_COVE } from '../src';
import { Bench } from './helpers';

test('at least 14 devices of at least 6 kinds on two segments', () => {
  expect(TERN_COVE.devices.length).toBeGreaterThanOrEqual(14);
  expect(new Set(TERN_COVE.devices.map((one) => one.kind.id)).size).toBeGreaterThanOrEqual(6);
  expect(TERN_COVE.segments.length).toBeGreaterThanOrEqual(2);
  expect(TERN_COVE.devices.every((one) => SHELF.includes(one.kind))).toBe(true);
});

test('a site that is up when somebody comes has nothing left to start', () => {
  const fresh = new Bench().site.view(0).devices;
  expect(fresh.map(({ lamp }) => lamp)).toContain('starting');
  const site = PracticeSite.thatIsUp(
    TERN_COVE,
    () => 0.5,
    () => undefined,
    1_000_000,
  );
  expect(site.view(1_000_000).devices.map(({ lamp }) => lamp)).not.toContain('starting');
  expect(site.nextAt()).toBeGreaterThan(1_000_000);
});

test('a device asks within seconds and then with growing pauses', () => {
  const bench = new Bench();
  const at: number[] = [];
  for (let second = 0; second < 60; second += 1) {
    const before = bench.requestsOf('02:4c:7a:1d:80:11').length;
    bench.advance(1000);
    if (bench.requestsOf('02:4c:7a:1d:80:11').length > before) at.push(second);
  }
  const pauses = at.slice(1).map((one, i) => one - (at[i] ?? 0));
  expect(at[0]).toBeLessThanOrEqual(4);
  expect(pauses.slice(0, 4)).toEqual([2, 4, 8, 16]);
});

test.each([
  ['BootP', 'oxygen-valve-block', '02:4c:7a:40:51:62', '172.22.40.104'],
  ['DHCP', 'intake-flow-meter', '02:4c:7a:61:7f:08', '172.22.40.110'],
])('%s: a given address is used, and gone after a power cut', (_way, id, mac, address) => {
  const bench = new Bench();
  bench.bind(mac, address);
  bench.advance(20_000);
  expect(bench.device(id)).toMatchObject({ lamp: 'steady', display: address });
  expect(bench.askArp(address)).toEqual([mac]);
  bench.site.act({ kind: 'power', device: id, on: false }, bench.now);
  expect(bench.askArp(address)).toEqual([]);
  const before = bench.requestsOf(mac).length;
  bench.site.act({ kind: 'power', device: id, on: true }, bench.now);
  bench.advance(10_000);
  expect(bench.requestsOf(mac).length).toBeGreaterThan(before);
});

test('after its own step a station keeps the address without asking', () => {
  const bench = new Bench();
  bench.bind('02:4c:7a:33:0c:15', '172.22.40.102');
  bench.advance(10_000);
  bench.site.act({ kind: 'own-step', device: 'filter-hall-station' }, bench.now);
  bench.site.act({ kind: 'power', device: 'filter-hall-station', on: false }, bench.now);
  const before = bench.requestsOf('02:4c:7a:33:0c:15').length;
  bench.site.act({ kind: 'power', device: 'filter-hall-station', on: true }, bench.now);
  bench.advance(10_000);
  expect(bench.requestsOf('02:4c:7a:33:0c:15')).toHaveLength(before);
  expect(bench.askArp('172.22.40.102')).toEqual(['02:4c:7a:33:0c:15']);
});

test('a DHCP device declines an address that somebody has', () => {
  const bench = new Bench();
  bench.bind('02:4c:7a:22:05:9e', '172.22.40.101');
  bench.advance(8_000);
  const types = bench
    .requestsOf('02:4c:7a:22:05:9e')
    .map((one) => (one.kind === 'dhcp' ? one.dhcp.options?.[0]?.data[0] : 0));
  expect(types).toContain(4);
  expect(bench.device('intake-pump-drive').display).toBe('');
});

test('the unplugged drive is silent until its cable is in', () => {
  const bench = new Bench();
  bench.advance(60_000);
  expect(bench.requestsOf('02:4c:7a:1d:80:2e')).toHaveLength(0);
  bench.site.act({ kind: 'cable', device: 'backwash-drive', on: true }, bench.now);
  bench.advance(20_000);
  expect(bench.requestsOf('02:4c:7a:1d:80:2e').length).toBeGreaterThan(0);
});

test('the feeding switch is heard only with the cable in its socket', () => {
  const bench = new Bench();
  bench.advance(30_000);
  expect(bench.requestsOf('02:4c:7a:22:06:11')).toHaveLength(0);
  bench.site.act({ kind: 'socket', segment: 'feeding' }, bench.now);
  bench.advance(30_000);
  expect(bench.requestsOf('02:4c:7a:22:06:11').length).toBeGreaterThan(0);
});

test('the controller of the hall answers for its address, the stranger for its own', () => {
  const bench = new Bench();
  bench.advance(20_000);
  expect(bench.askArp('172.22.40.10')).toEqual(['02:4c:7a:10:00:01']);
  expect(bench.askArp('172.22.40.101')).toEqual(['02:4c:7a:10:00:77']);
});
