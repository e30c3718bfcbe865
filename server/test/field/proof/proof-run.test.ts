import { readFileSync } from 'node:fs';
import {
  differencesIn,
  findShelfKind,
  formatIpv4,
  readPcap,
  requiredChecks,
  toPrefixLength,
  tryDissect,
  type Kind,
} from '@ipsonomo/core';
import { Checks } from '../../../src/field/proof/checks';
import { Interviews } from '../../../src/field/proof/interviews';
import type { FieldTarget } from '../../../src/field/protocol';
import { ip, mac, target } from '../bench';
import { Site } from '../site';

// R-PROVEN: a run over devices of the practice site, in virtual time.

const kindOf = (id: string): Kind => {
  const kind = findShelfKind(id);
  if (!kind) throw new Error(id);
  return kind;
};

const proofOf = (id: string, fields: Partial<FieldTarget['proof']> = {}): FieldTarget['proof'] => {
  const kind = kindOf(id);
  return {
    checks: requiredChecks(kind, kind.ways[0]?.way ?? 'bootp').map(({ check }) => check),
    ...{ identity: kind.identity, orderNumber: kind.orderNumber, revision: kind.revision },
    ...{ serial: '', services: kind.services, ...fields },
  };
};

const controller = target({
  ...{ interfaceId: 'controller', title: 'Controller', mac: mac('02:4c:7a:10:00:01') },
  ...{ address: ip('172.22.40.10'), way: 'makers-tool', gateway: ip('172.22.40.1') },
  proof: proofOf('osterhew-controller-k'),
});
const valves = (fields: Partial<FieldTarget> = {}) =>
  target({
    ...{ interfaceId: 'valves', title: 'Oxygen valve block', mac: mac('02:4c:7a:40:51:62') },
    ...{ address: ip('172.22.40.104'), proof: proofOf('tarnwick-valves-16'), ...fields },
  });
const sludge = target({
  ...{ interfaceId: 'sludge', title: 'Sludge valve block', mac: mac('02:4c:7a:40:51:7b') },
  ...{ address: ip('172.22.40.101'), proof: proofOf('tarnwick-valves-16') },
});
const away = target({
  ...{ interfaceId: 'away', title: 'Backwash drive', mac: mac('02:4c:7a:1d:80:2e') },
  ...{ address: ip('172.22.40.88'), proof: proofOf('dunvarrick-drive-m') },
});

async function given(targets: readonly FieldTarget[]): Promise<Site> {
  const site = new Site(targets);
  site.engine.arm(600_000, 'Mara');
  await site.advance(25);
  site.engine.silence();
  await site.advance(2);
  return site;
}

async function prove(site: Site, interfaceIds: readonly string[], perSecond = 1000) {
  const from = site.now();
  site.engine.acts.prove({ proofId: 'p1', person: 'Mara', interfaceIds, perSecond });
  for (let looks = 0; looks < 400 && site.engine.status().proof?.phase !== 'ended'; looks += 1)
    await site.advance(0.1);
  return { from, state: site.engine.status().proof };
}

const of = (site: Site, interfaceId: string) =>
  site.events.findLast(
    (event) => event.interfaceId === interfaceId && event.facts['proof'] === 'p1',
  );

afterEach(() => jest.useRealTimers());

test('proven, contradicted, silent, and who else is there', async () => {
  const site = await given([controller, valves(), sludge, away]);
  const { state } = await prove(site, ['controller', 'valves', 'sludge', 'away']);
  expect(state).toMatchObject({ phase: 'ended', how: 'done', total: 4, left: 0 });
  expect(of(site, 'controller')).toMatchObject({
    kind: 'found-as-planned',
    person: 'Mara',
    facts: { product: 'Machine controller K', services: '44818 open, 4840 open' },
  });
  expect(of(site, 'valves')?.facts).toMatchObject({
    ...{ passed: 'arp ping identity services', says: 'EtherNet/IP', revision: '2.1' },
    serial: '7a405162',
  });
  // The old lift controller has its address.
  expect(differencesIn(of(site, 'sludge')?.facts ?? {})).toEqual([
    { what: 'mac', expected: '02:4c:7a:40:51:7b', found: '02:4c:7a:10:00:77' },
  ]);
  expect(of(site, 'away')?.kind).toBe('no-answer');
  const lift = state?.strangers.find((one) => one.mac === '02:4c:7a:10:00:77');
  expect(lift).toMatchObject({
    addresses: ['172.22.40.101'],
    said: { product: 'Machine controller K', serial: '7a100077' },
  });
  expect(lift?.services.map(({ port }) => port)).toEqual([44_818]);
  // A name that was only heard in a request, or told over layer 2, is known too.
  expect(state?.strangers.flatMap(({ names }) => names)).toContain('crowder-block-2');
});

test('another revision and another serial number are contradictions of their own', async () => {
  const noted = valves({ proof: proofOf('tarnwick-valves-16', { serial: '00001234' }) });
  const site = await given([noted]);
  site.site.act({ kind: 'fault', fault: 'other-revision', on: true }, site.now());
  await prove(site, ['valves']);
  expect(differencesIn(of(site, 'valves')?.facts ?? {})).toEqual([
    { what: 'revision', expected: '2.1', found: '3.1' },
    { what: 'serial', expected: '00001234', found: '7a405162' },
  ]);
});

test('a mask and a gateway that show only from another subnet are asked of the device itself', async () => {
  const wrong = { ...controller, gateway: ip('172.22.40.254'), length: toPrefixLength(23) };
  const site = await given([wrong]);
  await prove(site, ['controller']);
  expect(differencesIn(of(site, 'controller')?.facts ?? {})).toEqual([
    { what: 'mask', expected: '255.255.254.0', found: '255.255.255.0' },
    { what: 'gateway', expected: '172.22.40.254', found: '172.22.40.1' },
  ]);
});

test('R-LIMITS: ten packets a second to any one device, a thousand in all, and the addresses shuffled', async () => {
  const site = await given([controller, valves(), sludge, away]);
  const { from } = await prove(site, ['controller', 'valves', 'sludge', 'away']);
  const sent = [...readPcap(new Uint8Array(readFileSync(site.capture)))]
    .map(({ at, frame }) => ({ at: at / 1000, frame: tryDissect(frame) }))
    .filter(({ at }) => at >= from)
    .flatMap(({ at, frame }) => {
      if (!('ethernet' in frame) || frame.ethernet.from !== mac('02:00:5e:00:53:f0')) return [];
      const to =
        frame.kind === 'arp'
          ? formatIpv4(frame.arp.targetAddress)
          : 'ip' in frame
            ? formatIpv4(frame.ip.to)
            : 'all';
      return [{ at, to, isProbe: frame.kind === 'arp' && frame.arp.senderAddress === 0 }];
    });
  const most = (times: readonly number[]) =>
    Math.max(...times.map((at) => times.filter((one) => one >= at && one < at + 1000).length));
  expect(sent.length).toBeGreaterThan(500);
  expect(most(sent.map(({ at }) => at))).toBeLessThanOrEqual(1000);
  const devices = new Map<string, number[]>();
  for (const { at, to } of sent) devices.set(to, [...(devices.get(to) ?? []), at]);
  for (const [to, times] of devices)
    if (to !== 'all') expect([to, most(times) <= 10]).toEqual([to, true]);
  const order = sent.filter(({ isProbe }) => isProbe).map(({ to }) => Number(to.split('.')[3]));
  const neighbours = order.filter((last, at) => order[at + 1] === last + 1).length;
  expect(neighbours).toBeLessThan(order.length / 10);
});

test('R-LIMITS: of many devices as many begin in a second as their packets allow', () => {
  let now = 0;
  const asked = new Set<number>();
  const wire = {
    ...{ mac: mac('02:00:5e:00:53:f0'), isReady: () => true, needVoice: () => undefined },
    ...{ ping: () => undefined, stationName: () => undefined, record: () => undefined },
    ...{ changed: () => undefined },
    askArp: (_subnet: string, address: number) => void asked.add(address),
  };
  const silent = { needVoice: () => undefined, voice: () => undefined };
  const interviews = new Interviews({ ...silent, open: () => Promise.resolve('silent') });
  const checks = new Checks(wire, interviews);
  const targets = Array.from({ length: 300 }, (_, at) =>
    valves({ interfaceId: `v${at}`, address: ip(`10.77.${at >> 8}.${at & 255}`) }),
  );
  checks.start(targets, { person: '', proofId: 'p' }, now, 1000);
  for (now = 0; now < 1000; now += 1) checks.run(now);
  // ARP, ping, and six to nine packets in each of two conversations.
  const begun = asked.size;
  expect(begun * 18).toBeLessThanOrEqual(1000 + 18);
  expect(begun).toBeGreaterThan(20);
});

test('stopped in the middle it says how many were not asked, and nothing more is sent', async () => {
  const site = await given([controller, valves()]);
  site.engine.acts.prove({
    ...{ proofId: 'p1', person: 'Mara', perSecond: 100 },
    interfaceIds: ['controller', 'valves'],
  });
  await site.advance(1);
  site.engine.acts.stopProof();
  expect(site.engine.status().proof).toMatchObject({ phase: 'ended', how: 'stopped', left: 2 });
  const { sent } = site.engine.status().counters;
  await site.advance(5);
  expect(site.engine.status().counters.sent).toBe(sent);
  expect(of(site, 'valves')).toBeUndefined();
});

test('the cable is pulled in the middle: that is said, and what was asked is kept', async () => {
  const site = await given([controller, away]);
  site.engine.acts.prove({
    ...{ proofId: 'p1', person: 'Mara', perSecond: 1000 },
    interfaceIds: ['away', 'controller'],
  });
  while (!of(site, 'away')) await site.advance(0.1);
  site.engine.linkChanged('down');
  expect(site.engine.status().proof).toMatchObject({ phase: 'ended', how: 'no-link', left: 1 });
  expect(of(site, 'away')?.kind).toBe('no-answer');
});
