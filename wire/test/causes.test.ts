import {
  knownSince,
  likelyCauses,
  signsOf,
  type CauseAct,
  type Countersign,
  type Known,
  type Sign,
} from '@ipsonomo/core/causes';
import { readEvidence } from '@ipsonomo/core/plan';
import { FAULTS } from '@ipsonomo/practice';
import type { FieldTarget } from '../src/protocol';
import { ip, kindOf, mac, target, wanted } from './bench';
import { Site } from './site';
import { armed, block, camera, give, openPage, pinned, Told, valves } from './told';

// R-CAUSES: in every fault of the practice site the true cause is among the first two that are named.

const drive = target({
  ...{ interfaceId: 'one', title: 'Intake pump drive', mac: mac('02:4c:7a:22:05:9e') },
  ...{ address: ip('172.22.40.91'), way: 'dhcp-mac' },
});
const drum = target({
  ...{ interfaceId: 'one', title: 'Drum filter drive 1', mac: mac('02:4c:7a:1d:80:11') },
  address: ip('172.22.40.85'),
});
const modular = {
  ...block('02:4c:7a:71:00:22', 'sl1-block-2'),
  proof: wanted({
    ...{ checks: ['arp', 'ping', 'name', 'identity'], offers: kindOf('eldrup-block-8').modules },
    station: kindOf('eldrup-block-8').station,
    modules: [
      { slot: 1, title: '8 channels' },
      { slot: 2, title: 'channel state' },
    ],
  }),
};
const sized = {
  ...valves,
  proof: wanted({
    ...{ checks: ['arp', 'ping'], services: kindOf('tarnwick-valves-16').services },
    assemblies: [{ role: 'in', instance: 101, bytes: 2 }],
  }),
};
const boundCamera = { ...camera, mac: mac('02:4c:7a:90:3a:c4') };
const seconds = (count: number) => (told: Told) => told.site.advance(count);
const swept = async ({ site }: Told) => {
  site.engine.acts.sweep();
  await site.advance(4);
};
const searched = (told: Told) => told.tries(() => told.site.engine.acts.stations.search());
const checked = async ({ site }: Told) => {
  site.engine.acts.check(['one'], 'Mara');
  await site.advance(8);
};
const watched = async (told: Told) => {
  const times = { everyMillis: 1000, millis: 300_000 };
  told.site.engine.acts.vigil({ interfaceIds: ['one'], person: 'Mara', ...times });
  await told.site.advance(305);
};
const after =
  (...acts: readonly ((told: Told) => Promise<void>)[]) =>
  async (told: Told) => {
    for (const act of acts) await act(told);
  };

/** What the engine and its evidence know of the device. */
function knownOf(site: Site, one: FieldTarget, said: readonly (Sign | Countersign)[]): Known {
  const { socket, notices, link } = site.engine.status();
  return {
    ...{ way: one.way, mac: one.mac, address: one.address, factory: one.factory },
    ...{ stationName: one.stationName, hasLink: link === 'up', tags: socket.tags },
    vlans: { socket: socket.neighbour?.vlan, planned: 40 },
    ...{ hasHeard: socket.heardAt !== undefined, notices, present: site.engine.seen },
    clients: site.engine.heardClients().map((client) => ({
      ...{ mac: client.mac, lastAt: client.lastAt, hasTwin: client.twins !== undefined },
      changesNumber: client.changesNumber,
    })),
    stations: site.engine.foundStations().map(({ station, lastAt }) => ({
      ...{ mac: station.mac, name: station.name, address: station.address?.address, lastAt },
    })),
    evidence: site.events
      .filter(({ interfaceId }) => interfaceId === 'one')
      .map(({ kind, facts, at }) => ({ ...readEvidence(kind, facts), at }))
      .toReversed(),
    ...{ farFails: false, said },
  };
}

type Case = readonly [
  fault: string,
  one: FieldTarget,
  act: (told: Told) => Promise<void>,
  cause: string,
  said?: readonly (Sign | Countersign)[],
];

const CASES: readonly Case[] = [
  ['two-fresh', camera, after(swept, openPage), 'fresh-brothers'],
  ['lending-router', valves, armed, 'other-server'],
  ['voice-taken', valves, armed, 'voice-taken'],
  ['in-use', valves, pinned, 'in-use'],
  ['page-locked', boundCamera, swept, 'page-locked', ['page-read-only']],
  // Without a look at the page the cheaper cause stands first.
  ['page-locked', boundCamera, swept, 'page-locked'],
  ['other-revision', valves, pinned, 'other-revision'],
  [
    'other-module',
    modular,
    async (told) => {
      await give('stored')(told);
      await checked(told);
    },
    'other-modules',
  ],
  ['other-size', sized, after(armed, checked, seconds(6)), 'other-sizes'],
  [
    'project-name',
    block('02:4c:7a:71:00:31', 'sl1-block-5'),
    after(give('name'), seconds(20)),
    'project-name',
  ],
  ['name-doubled', block('02:4c:7a:71:00:31', 'sl1-block-5'), give('name'), 'name-doubled'],
  ['name-slip', block('02:4c:7a:71:00:27', 'sl1-block-3'), searched, 'name-slip'],
  ['cut-answer', block('02:4c:7a:71:00:21', 'sl1-block-1'), give('stored'), 'cut-frames'],
  [
    'other-transaction',
    block('02:4c:7a:71:00:22', 'sl1-block-2'),
    give('stored'),
    'other-question',
  ],
  [
    'cut-request',
    valves,
    async (told) => {
      await armed(told);
      await told.site.powerCycle('oxygen-valve-block');
      await checked(told);
    },
    'cut-frames',
  ],
  ['other-number', drive, armed, 'changes-number'],
  ['kept-address', drive, after(armed, checked), 'kept-old'],
  ['trunk-port', valves, seconds(120), 'trunk-port'],
  ['proxy-arp', valves, swept, 'proxy-arp'],
  ['drops-out', drum, after(armed, watched), 'restarts-in-beat'],
];

async function lookedAt([fault, one, act, , said]: Case) {
  const site = new Site([one], ['172.22.40.253', '172.22.40.252']);
  await site.advance(12);
  site.site.act({ kind: 'fault', fault, on: true }, site.now());
  await site.advance(1);
  await act(new Told(site));
  const since = (at: number) =>
    likelyCauses(signsOf(knownSince(knownOf(site, one, said ?? []), at)));
  return { site, since, causes: since(0) };
}

/** What else a person does at the device or the cable. */
const PUT_RIGHT: Readonly<Record<string, (site: Site) => Promise<void>>> = {
  'kept-address': async (site) => {
    await site.powerCycle('intake-pump-drive');
    await armed(new Told(site));
  },
  // The cable goes into another port.
  'trunk-port': async (site) => {
    site.engine.linkChanged('down');
    await site.advance(1);
    site.engine.linkChanged('up');
  },
};

/** What shows afterwards whether it was this cause, as far as it is asked here. */
const ACTS: Readonly<Partial<Record<CauseAct, (told: Told) => Promise<void>>>> = {
  ...{ check: checked, sweep: swept, search: searched, vigil: watched },
};

test.each(CASES.map((one) => [one[0], one] as const))('%s: %#', async (_fault, one) => {
  const { causes } = await lookedAt(one);
  const firstTwo = causes.slice(0, 2).map(({ rule }) => rule.id);
  expect(firstTwo).toContain(one[3]);
});

test.each(CASES.map((one) => [one[0], one] as const))(
  'put right, %s is gone: %#',
  async (fault, one) => {
    const { site, since, causes } = await lookedAt(one);
    const found = causes.find(({ rule }) => rule.id === one[3])?.rule;
    const act = found && ACTS[found.act];
    if (!act) return;
    site.site.act({ kind: 'fault', fault, on: false }, site.now());
    await PUT_RIGHT[fault]?.(site);
    await site.advance(20);
    const done = site.now();
    await act(new Told(site));
    await site.advance(5);
    expect(since(done).map(({ rule }) => rule.id)).not.toContain(one[3]);
  },
);

test('every fault of the site has its cause', () => {
  const met = new Set(CASES.map(([fault]) => fault));
  expect(FAULTS.map(({ id }) => id).filter((id) => !met.has(id))).toEqual([]);
});

describe('a device that is silent', () => {
  test.each<[string, 'power' | 'cable', readonly (Sign | Countersign)[], string]>([
    ['dark: no power', 'power', ['lamp-off'], 'no-power'],
    ['lit: the cable', 'cable', ['lamp-on'], 'no-cable'],
    ['nobody looked: the cheapest look first', 'power', [], 'no-power'],
  ])('%s', async (_name, kind, said, cause) => {
    const site = new Site([valves]);
    site.site.act({ kind, device: 'oxygen-valve-block', on: false }, site.now());
    await site.advance(12);
    await checked(new Told(site));
    const [first] = likelyCauses(signsOf(knownOf(site, valves, said)));
    expect([first?.rule.id, first?.unexplained]).toEqual([cause, []]);
  });
});

test('the laptop is in another network: its switch tells the VLAN of the socket', async () => {
  const site = new Site([valves]);
  site.site.act({ kind: 'socket', segment: 'feeding' }, site.now());
  await site.advance(40);
  await checked(new Told(site));
  const [first] = likelyCauses(signsOf(knownOf(site, valves, [])));
  expect([first?.rule.id, first?.unexplained]).toEqual(['other-network', []]);
});

test('a device that is as planned wants no explanation', async () => {
  const site = new Site([valves]);
  const told = new Told(site);
  await armed(told);
  await checked(told);
  expect(likelyCauses(signsOf(knownOf(site, valves, [])))).toEqual([]);
});
