import { evidenceWords } from '@ipsonomo/language';
import { readEvidence } from '@ipsonomo/core/plan';
import { LOST, NOT_ASKED, summaryOf } from '@ipsonomo/core/vigil';
import { VigilRing } from '../src/protocol';
import { PingMonitor } from '../src/engine/ping-monitor/ping-monitor';
import { ip, mac, target } from './bench';
import { Site } from './site';

// R-VIGIL: devices asked in a steady beat.

const drum = target({
  ...{ interfaceId: 'drum', title: 'Drum filter drive 1', mac: mac('02:4c:7a:1d:80:11') },
  address: ip('172.22.40.85'),
});
const valves = target({
  ...{ interfaceId: 'valves', title: 'Oxygen valve block', mac: mac('02:4c:7a:40:51:62') },
  address: ip('172.22.40.104'),
});

test('the one that drops out every forty seconds is found, and the steady one beside it is not', async () => {
  const site = new Site([drum, valves]);
  site.engine.arm(600_000, 'Mara');
  await site.advance(30);
  site.engine.silence();
  site.site.act({ kind: 'fault', fault: 'drops-out', on: true }, site.now());
  const interfaceIds = ['drum', 'valves'];
  const times = { everyMillis: 1000, millis: 300_000 };
  site.engine.acts.vigil({ interfaceIds, person: 'Mara', ...times });
  await site.advance(304);
  expect(site.engine.status().vigil).toMatchObject({ beats: 300, begun: 300, how: 'done' });
  const facts = (id: string) =>
    site.events.find((one) => one.kind === 'watched-over' && one.interfaceId === id)?.facts ?? {};
  expect(facts('drum')).toMatchObject({ asked: 300, periodSeconds: 40 });
  expect(evidenceWords(readEvidence('watched-over', facts('drum')))).toMatch(
    /^watched: 2[0-4] of 300 lost, every 40 s, the longest for [34] s/,
  );
  expect(facts('valves')).toMatchObject({ asked: 300, lost: 0 });
  // Nothing is sent any more.
  const { sent } = site.engine.status().counters;
  await site.advance(10);
  expect(site.engine.status().counters.sent).toBe(sent);
});

/** A unit on a wire that is a list, under a clock that the test moves. */
function unit(devices: number) {
  const targets = Array.from({ length: devices }, (_, at) =>
    target({ interfaceId: `d${at}`, address: ip(`10.77.${at >> 8}.${at & 255}`) }),
  );
  const pings: { readonly to: number; readonly sequence: number; readonly at: number }[] = [];
  const box: { ring?: VigilRing; now: number } = { now: 1_000_000 };
  const vigil = new PingMonitor({
    isReady: () => true,
    needVoice: () => undefined,
    ping: (_subnet, to, _id, sequence) => void pings.push({ to, sequence, at: box.now }),
    record: () => undefined,
    vigilBegins: (ring) => (box.ring = ring),
    changed: () => undefined,
  });
  const advanceTo = (until: number) => {
    for (let next = vigil.nextAt(); next <= until; next = vigil.nextAt()) {
      box.now = Math.max(box.now, next);
      vigil.run(box.now);
    }
    box.now = until;
  };
  return { vigil, targets, pings, box, advanceTo };
}

test('200 devices each second for ten minutes: no beat is missed, and the memory is what it was', () => {
  const { vigil, targets, pings, box, advanceTo } = unit(200);
  vigil.start({ targets, person: '', everyMillis: 1000, millis: 600_000 }, box.now);
  const bytes = box.ring?.shared.values.byteLength;
  advanceTo(box.now + 603_000);
  expect(pings).toHaveLength(200 * 600);
  expect([bytes, box.ring?.shared.values.byteLength]).toEqual([240_000, 240_000]);
  // Spread over the second: never a burst.
  const second = pings.filter(({ sequence }) => sequence === 300).map(({ at }) => at);
  expect(new Set(second).size).toBe(200);
  // Nobody answered here.
  expect(summaryOf(box.ring?.of(7) ?? [])).toMatchObject({ asked: 600, lost: 600 });
});

test('a beat that could not be kept counts as not asked, and is not made up for', () => {
  const { vigil, targets, pings, box, advanceTo } = unit(2);
  vigil.start({ targets, person: '', everyMillis: 1000, millis: 20_000 }, box.now);
  advanceTo(box.now + 5000);
  const before = pings.length;
  // The laptop slept.
  box.now += 6000;
  vigil.run(box.now);
  expect(pings.length - before).toBeLessThanOrEqual(4);
  const values = [...(box.ring?.of(0) ?? [])];
  expect(values.filter((value) => value === NOT_ASKED).length).toBeGreaterThanOrEqual(4);
  expect(values.slice(4, 9)).not.toContain(LOST);
});

test('a late answer counts for its own beat, a second one and a stranger’s for none', () => {
  const { vigil, targets, box, advanceTo } = unit(1);
  vigil.start({ targets, person: '', everyMillis: 1000, millis: 10_000 }, box.now);
  const start = box.now + 1500;
  advanceTo(start + 2100);
  const from = targets[0]?.address ?? ip('0.0.0.0');
  vigil.pong(from, 0x5649, 1, start + 2200);
  vigil.pong(from, 0x5649, 1, start + 2300);
  vigil.pong(ip('10.0.0.9'), 0x5649, 2, start + 2300);
  vigil.pong(from, 0x4950, 2, start + 2300);
  const [, second, third] = box.ring?.of(0) ?? [];
  expect(second).toBe(12_000);
  expect(third).toBeGreaterThan(0xfff0);
});
