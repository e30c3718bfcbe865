import { formatMac } from '@ipsonomo/core/net';
import { answerToSet, discoveryFrame, orderOf } from '@ipsonomo/core/wire';
import type { FieldTarget } from '../src/protocol';
import { ip, LAPTOP, mac, target } from './bench';
import { Site } from './site';

// Stations of the practice site, found and named over layer 2 by the whole engine.

const BLOCK_1 = '02:4c:7a:71:00:21';
const BLOCK_2 = '02:4c:7a:71:00:22';
const USED = '02:4c:7a:71:00:27';
const RUNNING = '02:4c:7a:71:00:2a';

const block = (macText: string, fields: Partial<FieldTarget> = {}): FieldTarget =>
  target({
    ...{ interfaceId: 'block', title: 'Sorting block 1', mac: mac(macText), bootSeconds: 2 },
    ...{ address: ip('172.22.40.105'), gateway: ip('172.22.40.1') },
    ...{ way: 'layer2-name', heardBy: 'discovered', stationName: 'sl1-block-1' },
    ...fields,
  });

/** Two rounds of the search, who else has the name, then the set itself. */
const LAST_TRANSACTION = 0x4950_0004;

async function searched(...targets: readonly FieldTarget[]): Promise<Site> {
  const site = new Site(targets);
  await site.advance(5);
  await site.through(site.engine.acts.stations.search());
  return site;
}

const found = (site: Site, macText: string) =>
  site.engine.foundStations().find((one) => formatMac(one.station.mac) === macText)?.station;

test('a search lists every station whatever its address, and says which are planned', async () => {
  const site = await searched(block(BLOCK_1));
  const list = site.engine.foundStations().map(({ station }) => formatMac(station.mac));
  expect(list.sort()).toEqual([
    ...['02:4c:7a:66:14:02', '02:4c:7a:66:14:0b'],
    ...[BLOCK_1, BLOCK_2, USED, RUNNING],
    ...['02:4c:7a:71:00:31', '02:4c:7a:71:00:36'],
  ]);
  expect(found(site, USED)).toMatchObject({
    ...{ name: 'press-block-4', vendor: 1022, device: 8 },
    address: { address: ip('10.20.0.15'), state: 'set' },
  });
  expect(found(site, BLOCK_1)).toMatchObject({ name: '', address: { state: 'none' } });
  expect(site.events.map(({ kind, facts }) => [kind, facts])).toEqual([
    ['discovered', { name: '' }],
  ]);
});

test('given to stay: name and address are read back, and outlive a power cut', async () => {
  const site = await searched(block(BLOCK_1));
  await site.through(
    site.engine.acts.giveStation({ interfaceId: 'block', person: 'Mara Quist' }, 'stored'),
  );
  expect(new Set(site.kinds())).toEqual(
    new Set(['discovered', 'told-to-keep', 'named', 'has-address']),
  );
  expect(found(site, BLOCK_1)).toMatchObject({ name: 'sl1-block-1' });
  site.engine.acts.watchPower({ interfaceId: 'block', person: 'Mara Quist' });
  await site.advance(1);
  await site.powerCycle('sorting-block-1');
  expect(site.kinds().slice(-3)).toEqual(['gone', 'kept', 'has-address']);
});

test('given for now: the name stays, the address is gone after a power cut', async () => {
  const site = await searched(block(BLOCK_1));
  await site.through(
    site.engine.acts.giveStation({ interfaceId: 'block', person: '' }, 'temporary'),
  );
  expect(site.last('given-for-now')?.facts).toMatchObject({ gave: '172.22.40.105' });
  expect(site.last('has-address')).toBeDefined();
  await site.powerCycle('sorting-block-1');
  await site.through(site.engine.acts.stations.search());
  expect(found(site, BLOCK_1)).toMatchObject({ name: 'sl1-block-1', address: { state: 'none' } });
});

test('the name alone: its address is left to its controller', async () => {
  const site = await searched(block(BLOCK_1));
  await site.through(site.engine.acts.giveStation({ interfaceId: 'block', person: '' }, 'name'));
  expect(found(site, BLOCK_1)).toMatchObject({ name: 'sl1-block-1', address: { state: 'none' } });
  expect(site.last('named')).toBeDefined();
  expect(site.last('has-address')).toBeUndefined();
});

test.each([
  ['its controller runs it', block(RUNNING), 'stored', { what: 'name', why: 'in-operation' }],
  [
    'the name has a capital',
    block(BLOCK_1, { stationName: 'SL1-block' }),
    'stored',
    { what: 'name', why: 'local' },
  ],
  [
    'another has the name',
    block(BLOCK_1, { stationName: 'press-block-4' }),
    'name',
    { what: 'name', why: 'taken', by: USED },
  ],
  [
    'another has the address',
    block(BLOCK_1, { address: ip('172.22.40.101') }),
    'stored',
    { what: 'address', why: 'taken', by: '02:4c:7a:10:00:77' },
  ],
  ['nobody is there', block('02:4c:7a:71:00:99'), 'name', { what: 'name', why: 'silent' }],
] as const)('R-LAYER2: refused, and told why: %s', async (_why, one, giving, facts) => {
  const site = await searched(one);
  const before = found(site, BLOCK_1);
  await site.through(site.engine.acts.giveStation({ interfaceId: 'block', person: '' }, giving));
  expect(site.last('set-refused')?.facts).toEqual(facts);
  await site.through(site.engine.acts.stations.search());
  // Nothing of it was done by halves.
  expect(found(site, BLOCK_1)).toEqual(before);
});

test('nothing is set in what is not bound, and not twice at once', async () => {
  const site = await searched(
    block(BLOCK_1),
    block(BLOCK_2, { interfaceId: 'two', mac: undefined }),
  );
  await expect(
    site.engine.acts.giveStation({ interfaceId: 'two', person: '' }, 'name'),
  ).rejects.toThrow('field.unbound');
  const first = site.engine.acts.giveStation({ interfaceId: 'block', person: '' }, 'name');
  await expect(
    site.engine.acts.giveStation({ interfaceId: 'block', person: '' }, 'name'),
  ).rejects.toThrow('field.busy');
  await site.through(first);
});

test('a lamp is flashed for three seconds; who does not answer is told as silent', async () => {
  const site = await searched();
  const lamp = () =>
    site.site.view(site.now()).devices.find((one) => one.id === 'sorting-block-2')?.lamp;
  await site.through(site.engine.acts.stations.flash(mac(BLOCK_2)));
  expect(lamp()).toBe('flashing');
  await site.advance(4);
  expect(lamp()).toBe('waiting');
  const nobody = site.engine.acts.stations.flash(mac('02:4c:7a:71:00:99'));
  await expect(site.through(nobody)).rejects.toThrow('station.silent');
});

test('a used station is set back to how it left its maker, with a reason', async () => {
  const site = await searched(block(USED));
  await site.through(
    site.engine.acts.resetStation(
      { interfaceId: 'block', person: 'Mara Quist' },
      'came from the press line',
    ),
  );
  expect(site.last('reset')).toMatchObject({
    ...{ person: 'Mara Quist', facts: { reason: 'came from the press line' } },
  });
  expect(found(site, USED)).toMatchObject({ name: '', address: { state: 'none' } });
});

test('fall silent in the middle: not a frame more, and nothing half done is said to be done', async () => {
  const site = await searched(block(BLOCK_1));
  const giving = site.engine.acts.giveStation({ interfaceId: 'block', person: '' }, 'stored');
  await site.advance(0.2);
  site.engine.silence();
  const { sent } = site.engine.status().counters;
  await site.through(giving);
  await site.advance(5);
  expect(site.engine.status().counters.sent).toBe(sent);
  expect(site.last('set-refused')?.facts).toMatchObject({ why: 'stopped' });
  expect(site.kinds()).not.toContain('told-to-keep');
  expect(site.kinds()).not.toContain('has-address');
});

test('an answer with another transaction, or from another device, is not the one awaited', async () => {
  const site = await searched(block(BLOCK_1));
  site.site.act({ kind: 'cable', device: 'sorting-block-1', on: false }, site.now());
  const name = { kind: 'name', name: 'sl1-block-1', stay: 'stored' } as const;
  const giving = site.engine.acts.giveStation({ interfaceId: 'block', person: '' }, 'name');
  await site.advance(1);
  for (const [from, transaction] of [
    [BLOCK_1, 7],
    [BLOCK_2, LAST_TRANSACTION],
  ] as const) {
    const answer = answerToSet(orderOf(transaction, name), [0]);
    site.engine.frame(discoveryFrame(mac(from), LAPTOP, answer));
  }
  await site.through(giving);
  expect(site.last('set-refused')?.facts).toEqual({ what: 'name', why: 'silent' });
});
