import type { EvidenceKind } from '@ipsonomo/core/plan';
import type { FieldTarget } from '../src/protocol';
import { ip, mac, target } from './bench';
import { Site } from './site';

// In the middle of every way somebody falls silent, the cable is pulled, or the device loses its power. Nothing
// that was half done is told as done, nothing more leaves, and what was begun can be begun again.

const valves = target({
  ...{ interfaceId: 'one', title: 'Oxygen valve block', mac: mac('02:4c:7a:40:51:62') },
  ...{
    address: ip('172.22.40.104'),
    gateway: ip('172.22.40.1'),
    hasIdentity: true,
    bootSeconds: 3,
  },
});
const block = target({
  ...{
    interfaceId: 'one',
    title: 'Sorting block 1',
    mac: mac('02:4c:7a:71:00:21'),
    bootSeconds: 2,
  },
  ...{ address: ip('172.22.40.105'), way: 'layer2-name', heardBy: 'discovered' },
  stationName: 'sl1-block-1',
});
const camera = target({
  ...{ interfaceId: 'one', title: 'Inspection camera', mac: mac('02:4c:7a:90:3a:c4'), page: 80 },
  ...{ address: ip('172.22.40.151'), way: 'web-page', heardBy: 'seen' },
  ...{ factory: ip('192.168.77.10'), bootSeconds: 6 },
});

interface Way {
  readonly target: FieldTarget;
  readonly device: string;
  /** Up to where it can be interrupted. */
  readonly before: (site: Site) => Promise<void>;
  readonly begin: (site: Site) => Promise<unknown> | undefined | void;
  /** How long until the interruption, in seconds. */
  readonly middle: number;
  /** What would say that it is done. */
  readonly done: EvidenceKind;
}

const listening = (site: Site) => site.advance(10);
const given = async (site: Site) => {
  site.engine.arm(600_000, 'Mara');
  await site.advance(15);
  expect(site.kinds()).toContain('has-address');
};

const WAYS: Readonly<Record<string, Way>> = {
  'giving by BootP': {
    ...{ target: valves, device: 'oxygen-valve-block', before: async () => undefined },
    ...{ begin: (site) => site.engine.arm(600_000, 'Mara'), middle: 2, done: 'has-address' },
  },
  'telling it to keep its address': {
    ...{ target: valves, device: 'oxygen-valve-block', before: given },
    ...{
      begin: (site) => site.engine.acts.pin({ interfaceId: 'one', person: 'Mara' }),
      middle: 0.2,
      done: 'told-to-keep',
    },
  },
  'watching its power': {
    ...{ target: valves, device: 'oxygen-valve-block', before: given },
    ...{
      begin: (site) => site.engine.acts.watchPower({ interfaceId: 'one', person: 'Mara' }),
      middle: 1,
      done: 'kept',
    },
  },
  'naming over layer 2': {
    ...{ target: block, device: 'sorting-block-1', before: listening },
    begin: (site) => site.engine.acts.giveStation({ interfaceId: 'one', person: 'Mara' }, 'stored'),
    ...{ middle: 0.5, done: 'told-to-keep' },
  },
  'following by hand': {
    ...{ target: camera, device: 'inspection-camera', before: listening },
    ...{ begin: (site) => site.engine.acts.follow('one', 'Mara'), middle: 3, done: 'has-address' },
  },
  'opening its page': {
    ...{ target: camera, device: 'inspection-camera', before: listening },
    ...{
      begin: (site) => site.engine.acts.openPage('one', 'Mara'),
      middle: 0.5,
      done: 'page-opened',
    },
  },
};

const INTERRUPTIONS: Readonly<Record<string, (site: Site, device: string) => void>> = {
  'somebody falls silent': (site) => site.engine.silence(),
  'the cable is pulled': (site) => {
    site.engine.linkChanged('down');
    site.engine.linkChanged('up');
  },
  'the device loses its power': (site, device) =>
    site.site.act({ kind: 'power', device, on: false }, site.now()),
};

describe.each(Object.entries(WAYS))('%s', (_name, way) => {
  test.each(Object.entries(INTERRUPTIONS))('%s', async (what, interrupt) => {
    const site = new Site([way.target]);
    await way.before(site);
    const before = site.kinds().filter((kind) => kind === way.done).length;
    const doing = Promise.resolve(way.begin(site)).catch(() => undefined);
    await site.advance(way.middle);
    interrupt(site, way.device);
    await site.advance(0.1);
    const { sent } = site.engine.status().counters;
    await site.advance(15);
    await doing;
    expect(site.kinds().filter((kind) => kind === way.done)).toHaveLength(before);
    if (what === 'the device loses its power') return;
    const { counters, tasks, answeringUntil } = site.engine.status();
    expect([counters.sent, tasks, answeringUntil]).toEqual([sent, [], undefined]);
    // And again from the beginning.
    await site
      .through(Promise.resolve(way.begin(site)).then(() => undefined))
      .catch(() => undefined);
    expect(site.engine.status().counters.sent).toBeGreaterThan(sent);
  });
});
