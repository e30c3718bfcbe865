import { timerClock } from '@ipsonomo/core/clock';
import { formatIpv4, toPrefixLength } from '@ipsonomo/core/net';
import type { CheckFacts } from '@ipsonomo/core/plan';
import { differencesIn, requiredChecks } from '@ipsonomo/core/proof';
import { tryDissect } from '@ipsonomo/core/wire';
import { PLATFORM } from '../../../threads/src/time';
import { Checks } from '../../src/engine/proof/checks';
import { Interviews } from '../../src/engine/proof/interviews';
import type { FieldTarget } from '../../src/protocol';
import { ip, kindOf, mac, target, wanted } from '../bench';
import { Site } from '../site';

// R-PROVEN: a run over devices of the practice site, in virtual time.

const proofOf = (id: string, fields: Partial<FieldTarget['proof']> = {}): FieldTarget['proof'] => {
  const kind = kindOf(id);
  return wanted({
    checks: requiredChecks(kind, kind.ways[0]?.way ?? 'bootp').map(({ check }) => check),
    ...{ identity: kind.identity, orderNumber: kind.orderNumber, revision: kind.revision },
    ...{ services: kind.services, station: kind.station, offers: kind.modules, ...fields },
  });
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
const factsOf = (site: Site, interfaceId: string) =>
  (of(site, interfaceId)?.facts ?? {}) as CheckFacts;

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
  expect(differencesIn(factsOf(site, 'sludge'))).toEqual([
    { what: 'mac', expected: '02:4c:7a:40:51:7b', found: '02:4c:7a:10:00:77' },
  ]);
  expect(of(site, 'away')?.kind).toBe('no-answer');
  const lift = state?.strangers.find((one) => one.mac === '02:4c:7a:10:00:77');
  expect(lift).toMatchObject({
    addresses: ['172.22.40.101'],
    said: { product: 'Machine controller K', serial: '7a100077' },
  });
  // A visitor that has no address yet, and asks for one.
  expect(state?.strangers.find((one) => one.mac === '02:4c:7a:22:05:b0')).toMatchObject({
    ...{ addresses: [], names: ['winch-b'], asks: { by: 'DHCP', vendorClass: 'hoist 7' } },
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
  expect(differencesIn(factsOf(site, 'valves'))).toEqual([
    { what: 'revision', expected: '2.1', found: '3.1' },
    { what: 'serial', expected: '00001234', found: '7a405162' },
  ]);
});

test('a mask and a gateway that show only from another subnet are asked of the device itself', async () => {
  const wrong = { ...controller, gateway: ip('172.22.40.254'), length: toPrefixLength(23) };
  const site = await given([wrong]);
  await prove(site, ['controller']);
  expect(differencesIn(factsOf(site, 'controller'))).toEqual([
    { what: 'mask', expected: '255.255.254.0', found: '255.255.255.0' },
    { what: 'gateway', expected: '172.22.40.254', found: '172.22.40.1' },
  ]);
});

/** A station with the name and the address the plan has for it. */
const block = (modules: FieldTarget['proof']['modules']) =>
  target({
    ...{ interfaceId: 'block', title: 'Sorting block 2', mac: mac('02:4c:7a:71:00:22') },
    ...{ address: ip('172.22.40.106'), way: 'layer2-name', stationName: 'sl1-block-2' },
    ...{ heardBy: 'discovered', gateway: ip('172.22.40.1') },
    proof: {
      ...proofOf('eldrup-block-8'),
      ...{ modules, checks: ['arp', 'ping', 'name', 'identity'] },
    },
  });

async function named(one: FieldTarget): Promise<Site> {
  const site = new Site([one]);
  await site.advance(12);
  await site.through(site.engine.acts.stations.search().then(() => undefined));
  const giving = site.engine.acts.giveStation({ interfaceId: 'block', person: 'Mara' }, 'stored');
  await site.through(giving);
  return site;
}

const PLUGGED = [
  { slot: 1, title: '8 channels' },
  { slot: 2, title: 'channel state' },
];

test('R-MODULES: a station tells slot by slot what is plugged in, its order number and its serial number', async () => {
  const site = await named(block(PLUGGED));
  await prove(site, ['block']);
  expect(of(site, 'block')).toMatchObject({
    kind: 'found-as-planned',
    facts: {
      ...{
        passed: 'arp ping name identity',
        says: 'PROFINET',
        serial: 'S710022',
        revision: '3.0.0',
      },
      modules: 'slot 1: 8 channels; slot 2: channel state',
    },
  });
  site.site.act({ kind: 'fault', fault: 'other-module', on: true }, site.now());
  await prove(site, ['block']);
  expect(differencesIn(factsOf(site, 'block'))).toEqual([
    { what: 'module', expected: 'slot 2: channel state', found: 'slot 2: 8 channels' },
  ]);
});

test('R-MODULES: the modules of a rack are asked through its backplane; an empty slot is empty', async () => {
  const rack = target({
    ...{ interfaceId: 'rack', title: 'Grader rack', mac: mac('02:4c:7a:10:0a:01') },
    ...{ address: ip('172.22.40.14'), way: 'keypad', gateway: ip('172.22.40.1') },
    proof: proofOf('osterhew-controller-r', {
      modules: [1, 2, 4].map((slot) => ({
        slot,
        title: slot === 2 ? '32 outputs' : 'network module',
      })),
    }),
  });
  const site = await given([rack]);
  site.site.act({ kind: 'cable', device: 'grader-rack', on: true }, site.now());
  await site.advance(2);
  await prove(site, ['rack']);
  const facts = factsOf(site, 'rack');
  expect(differencesIn(facts).find(({ what }) => what === 'module')).toEqual({
    what: 'module',
    expected: 'slot 2: 32 outputs; slot 4: network module',
    found: 'slot 2: 32 inputs; slot 4: empty',
  });
});

test('R-SIZES: sizes and instances of a connection, and its state, as the device has them', async () => {
  const assemblies = [
    { role: 'in', instance: 101, bytes: 2 },
    { role: 'out', instance: 102, bytes: 2 },
    { role: 'config', instance: 113, bytes: undefined },
  ] as const;
  const site = await given([valves({ proof: proofOf('tarnwick-valves-16', { assemblies }) })]);
  site.site.act({ kind: 'fault', fault: 'other-size', on: true }, site.now());
  site.site.act({ kind: 'fault', fault: 'in-use', on: true }, site.now());
  await prove(site, ['valves']);
  const facts = factsOf(site, 'valves');
  expect(differencesIn(facts)).toEqual([
    // The second has no attribute for its size: its data tell it.
    { what: 'size', expected: 'in 2, out 2', found: 'in 4, out 4' },
    { what: 'instance', expected: 'config 113', found: 'none' },
  ]);
  expect(facts).toMatchObject({ connection: 'running', in: 4, 'in-instance': 101 });
});

test('R-LIMITS: ten packets a second to any one device, a thousand in all, and the addresses shuffled', async () => {
  const assemblies = [101, 102].map((instance, at) => ({
    ...{ role: at === 0 ? ('in' as const) : ('out' as const), instance, bytes: 2 },
  }));
  const talkative = valves({ proof: proofOf('tarnwick-valves-16', { assemblies }) });
  const site = await given([controller, talkative, sludge, away]);
  const { from } = await prove(site, ['controller', 'valves', 'sludge', 'away']);
  const sent = site
    .captured()
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
  const clock = timerClock({ ...PLATFORM, now: () => now });
  const asked = new Set<number>();
  const wire = {
    ...{ mac: mac('02:00:5e:00:53:f0'), isReady: () => true, needVoice: () => undefined },
    ...{ ping: () => undefined, station: () => undefined, record: () => undefined },
    ...{ changed: () => undefined, clock },
    askArp: (_subnet: string, address: number) => void asked.add(address),
  };
  const silent = { clock, needVoice: () => undefined, voice: () => undefined };
  const interviews = new Interviews({
    ...silent,
    open: () => Promise.resolve('silent'),
    ask: () => Promise.resolve('silent'),
  });
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

test('a device that is talked to just now is asked for the run once that is over', async () => {
  const site = await given([controller, valves()]);
  site.engine.acts.check(['valves'], 'Ole');
  const talks = () => site.engine.status().tasks.some(({ phase }) => phase === 'talking');
  while (!talks()) await site.advance(0.1);
  await prove(site, ['controller', 'valves']);
  const checks = site.events.filter(({ kind }) => kind === 'found-as-planned');
  const ofValves = checks.filter(({ interfaceId }) => interfaceId === 'valves');
  expect(ofValves.map(({ person, facts }) => [person, facts['proof']])).toEqual([
    ['Ole', undefined],
    ['Mara', 'p1'],
  ]);
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
