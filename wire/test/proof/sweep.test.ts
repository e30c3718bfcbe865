import { formatIpv4, formatMac, toPrefixLength } from '@ipsonomo/core/net';
import { tryDissect } from '@ipsonomo/core/wire';
import { Sweep, type SweepEvents } from '../../src/engine/proof/sweep';
import { Present } from '../../src/engine/hearing/present';
import { ip, LAPTOP, mac, planOf, target } from '../bench';
import { Site } from '../site';

// Everybody is found whatever the address, by asking for each address of the subnets that count.

const CAMERA = target({
  ...{ interfaceId: 'camera', title: 'Inspection camera', mac: mac('02:4c:7a:90:3a:c4') },
  ...{ address: ip('172.22.40.151'), way: 'web-page', factory: ip('192.168.77.10') },
});

const seen = (site: Site) =>
  site.engine.seen.map(({ mac: who, address }) => `${formatMac(who)} ${formatIpv4(address)}`);

/** What the sweep sent: how many frames, and which of them were probes for an address that is not ours to claim. */
function said(site: Site) {
  const arps = site.captured().flatMap(({ frame }) => {
    const read = tryDissect(frame);
    return 'arp' in read && read.ethernet.from === LAPTOP ? [read.arp] : [];
  });
  const ours = new Set(arps.map(({ senderAddress }) => senderAddress));
  const probes = arps.filter(
    ({ senderAddress, targetAddress }) => senderAddress === 0 && !ours.has(targetAddress),
  );
  return {
    frames: arps.length,
    probes: probes.map(({ targetAddress }) => formatIpv4(targetAddress)),
  };
}

test('R-SWEEP: planned subnets and factory subnets are asked for, the silent twice', async () => {
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
  // Who has answered is not asked again.
  const inside = seen(site).filter((one) => / (172\.22\.40|192\.168\.77)\./.test(one));
  expect(inside.length).toBeGreaterThan(3);
  const claims = 2 * 3; // an address of ours in each subnet is probed for three times
  const questions = 2 * 2 * 254 - inside.length;
  expect([counters.sent - before, tasks, voices]).toEqual([questions + claims, [], []]);
});

test('R-SWEEP: a device that is just starting is not made to give its address up', async () => {
  const site = new Site([CAMERA]);
  // Its switches are read, it looks for a moment whether somebody has its address: and now it is asked for.
  await site.advance(0.1);
  site.engine.acts.sweep();
  await site.advance(3);
  const { frames, probes } = said(site);
  expect(frames).toBeGreaterThan(900);
  expect(probes).toEqual([]);
  expect(seen(site)).toContain('02:4c:7a:10:00:01 172.22.40.10');
});

test('where no address could be had, it is asked without one; the next time one is looked for again', async () => {
  const site = new Site([CAMERA]);
  await site.advance(10);
  site.site.act({ kind: 'fault', fault: 'proxy-arp', on: true }, site.now());
  site.engine.acts.sweep();
  await site.advance(6);
  expect(said(site).probes.length).toBeGreaterThan(200);
  site.site.act({ kind: 'fault', fault: 'proxy-arp', on: false }, site.now());
  const before = said(site).probes.length;
  site.engine.acts.sweep();
  await site.advance(4);
  // Only what is probed to be claimed.
  expect(said(site).probes.length - before).toBeLessThan(10);
});

test('falling silent in the middle ends it at once', async () => {
  const site = new Site([CAMERA]);
  site.engine.acts.sweep();
  await site.advance(0.2);
  site.engine.silence();
  const { sent } = site.engine.status().counters;
  await site.advance(2);
  expect(site.engine.status().counters.sent).toBe(sent);
  expect(sent).toBeLessThan(250);
});

test('R-SWEEP: a subnet of a whole class A is refused, with what is possible', () => {
  const site = new Site([CAMERA]);
  const wide = { length: toPrefixLength(8), name: 'Everything', network: ip('10.0.0.0') };
  const [hall] = planOf([]).subnets;
  if (!hall) throw new Error('no subnet');
  const plan = { ...planOf([]), subnets: [{ ...hall, ...wide }] };
  site.engine.plan(plan);
  expect(() => site.engine.acts.sweep()).toThrow('sweep.tooWide');
  // Beside one that can be asked it is left out, and told of.
  site.engine.plan({ ...plan, subnets: [...plan.subnets, { ...hall, id: 'other' }] });
  site.engine.acts.sweep();
  expect(site.engine.status().notices).toMatchObject([
    { code: 'sweep-too-wide', facts: { subnet: 'Everything', addresses: 16_777_214, most: 1022 } },
  ]);
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

test('R-SWEEP: on a machine that wakes up late it listens on, and ends all the same', () => {
  const [subnet] = planOf([CAMERA]).subnets;
  if (!subnet) throw new Error('no subnet');
  const sweep = new Sweep({
    ...{
      mac: LAPTOP,
      transmit: () => undefined,
      notice: () => undefined,
      changed: () => undefined,
    },
    ...{ needVoice: () => undefined, voice: () => ({ address: ip('172.22.40.250') }) as never },
  } as unknown as SweepEvents);
  const endOf = (late: (at: number) => number): number => {
    sweep.start([subnet], 0);
    let now = 0;
    for (let steps = 0; !sweep.isOver && steps < 10_000; steps += 1) {
      now = late(sweep.nextAt());
      sweep.run(now);
    }
    return now;
  };
  const inTime = endOf((at) => at);
  expect(sweep.isOver).toBe(true);
  let woke = 0;
  const lateOnce = endOf((at) => (at >= inTime && (woke += 1) === 1 ? at + 400 : at));
  expect(lateOnce).toBeGreaterThanOrEqual(inTime + 400 + 300);
  expect(endOf((at) => at + 400)).toBeLessThan(60_000);
  expect(sweep.isOver).toBe(true);
});
