import { formatIpv4, formatMac } from '@ipsonomo/core';
import { Present } from '../../src/field/present';
import { ip, mac, target } from './bench';
import { Site } from './site';

// Everybody is found whatever the address, by asking for each address of the subnets that count.

const CAMERA = target({
  ...{ interfaceId: 'camera', title: 'Inspection camera', mac: mac('02:4c:7a:90:3a:c4') },
  ...{ address: ip('172.22.40.151'), way: 'web-page', factory: ip('192.168.77.10') },
});

afterEach(() => jest.useRealTimers());

const seen = (site: Site) =>
  site.engine.seen.map(({ mac: who, address }) => `${formatMac(who)} ${formatIpv4(address)}`);

test('R-SWEEP: planned subnets and factory subnets are asked for, twice, with no address of ours', async () => {
  const site = new Site([CAMERA]);
  await site.advance(10);
  const before = site.engine.status().counters.sent;
  site.engine.acts.sweep();
  await site.advance(3);
  expect(seen(site)).toEqual(
    expect.arrayContaining([
      '02:4c:7a:90:3a:c4 192.168.77.10',
      '02:4c:7a:10:00:01 172.22.40.10',
      '02:4c:7a:10:00:77 172.22.40.101',
    ]),
  );
  const { counters, tasks, voices } = site.engine.status();
  expect([counters.sent - before, tasks, voices]).toEqual([2 * 2 * 254, [], []]);
});

test('falling silent in the middle ends it at once', async () => {
  const site = new Site([CAMERA]);
  site.engine.acts.sweep();
  await site.advance(0.2);
  site.engine.silence();
  const { sent } = site.engine.status().counters;
  await site.advance(2);
  expect(site.engine.status().counters.sent).toBe(sent);
  expect(sent).toBeLessThan(200);
});

test('a router that answers for others is seen with many addresses, and with no end of them', () => {
  const present = new Present();
  const router = mac('02:4c:7a:01:00:01');
  const news = Array.from({ length: 254 }, (_, at) => present.saw(router, ip(`10.0.0.${at}`), at));
  expect(news.filter(Boolean)).toHaveLength(16);
  expect(present.all).toHaveLength(16);
  expect(present.saw(router, ip('10.0.0.3'), 999)).toBe(false);
  expect(present.addressOf(router)).toBe(ip('10.0.0.3'));
});
