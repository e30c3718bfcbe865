import { formatIpv4, formatPrefix, must } from '../../src/net';
import {
  applyEdits,
  docOfPlan,
  inverseOf,
  diffDocs,
  planOf,
  type Edit,
  type Plan,
} from '../../src/plan';
import { addressesOf, copyMachine, renumber, shiftInto, type CopyOrder } from '../../src/reshape';
import { snagsOf } from '../../src/snags';
import { siteOf } from '../snags/big-site';
import { HALL, ip, net, PLAN, ROUTER } from '../snags/world';

const doc = docOfPlan(PLAN);
const plan = planOf(doc);

const after = (start: Plan, edits: readonly Edit[]): Plan => {
  const outcome = applyEdits(docOfPlan(start), edits);
  if (!outcome.ok) throw new Error(JSON.stringify(outcome.error));
  return planOf(outcome.value.doc);
};

test.each([
  ['172.22.40.86', '172.22.40.0/24', '10.4.7.0/24', '10.4.7.86'],
  ['172.22.40.86', '172.22.40.0/24', '10.4.7.0/25', '10.4.7.86'],
  ['172.22.40.186', '172.22.40.0/24', '10.4.7.0/25', undefined],
  ['172.22.40.127', '172.22.40.0/24', '10.4.7.0/25', undefined],
  ['172.22.41.5', '172.22.40.0/23', '10.4.7.0/24', undefined],
  ['172.22.40.0', '172.22.40.0/24', '10.4.7.0/24', undefined],
  ['172.22.41.5', '172.22.40.0/24', '10.4.7.0/24', undefined],
  ['10.0.0.1', '10.0.0.0/31', '10.9.0.4/31', '10.9.0.5'],
])('%s of %s in %s is %s', (address, from, to, wanted) => {
  const moved = shiftInto(ip(address), net(from), net(to));
  expect(moved === undefined ? undefined : formatIpv4(moved)).toBe(wanted);
});

test('a renumbered subnet keeps host parts, takes along every place, and has no new snag', () => {
  const start: Plan = {
    ...PLAN,
    devices: PLAN.devices.map((device) =>
      device.id === 'drive'
        ? {
            ...device,
            references: [{ what: 'time server', deviceId: 'plc', address: at('plc') }],
            interfaces: device.interfaces.map((one) => ({ ...one, gateway: ip('172.22.40.1') })),
          }
        : device,
    ),
  };
  const made = renumber(start, docOfPlan(start), HALL, net('10.4.7.0/24'), 0);
  const grown = after(start, made.edits);
  for (const device of grown.devices)
    for (const one of device.interfaces)
      if (one.subnetId === 'hall') {
        const before = PLAN.devices.find(({ id }) => id === device.id)?.interfaces;
        const old = before?.find(({ id }) => id === one.id)?.address ?? 0;
        expect(formatIpv4(one.address)).toBe(`10.4.7.${old & 255}`);
      }
  expect(made.rows.map((row) => row.place)).toEqual(
    expect.arrayContaining(['gateway', 'reference']),
  );
  const wrong = (one: Plan) => snagsOf(one).filter((snag) => snag.severity === 'wrong').length;
  expect(wrong(grown)).toBe(wrong(start));
  expect(made.left).toEqual([]);
});

const at = (id: string) => PLAN.devices.find((one) => one.id === id)?.interfaces[0]?.address;

test('what does not fit in a smaller network gets a free address there, or is named', () => {
  const site = siteOf(60, 59);
  const [subnet] = site.subnets;
  if (!subnet) throw new Error('a site has subnets');
  const half = renumber(site, docOfPlan(site), subnet, net('10.99.0.0/25'), 0);
  expect(half.rows.some((row) => row.isNew)).toBe(true);
  const addresses = half.rows.map((row) => row.after);
  expect(new Set(addresses).size + half.left.length).toBe(60);
  // Their band is full; nobody is put into another's.
  expect(half.left.every((one) => /valves|station/.test(one.name))).toBe(true);
  const tiny = renumber(site, docOfPlan(site), subnet, net('10.99.0.0/27'), 0);
  expect(tiny.rows.length + tiny.left.length).toBe(60);
  expect(tiny.left.length).toBeGreaterThan(0);
});

const order = (fields: Partial<CopyOrder>): CopyOrder => ({
  deviceIds: new Set(PLAN.devices.map((one) => one.id)),
  subnetIds: new Set(['hall', 'feed']),
  count: 4,
  apart: { by: 'offset', offset: 512 },
  ...{ find: 'Hall', replace: 'Hall {n}', first: 2 },
  ...fields,
});
const ids = () => {
  let next = 0;
  return (type: string) => `${type}-copy-${(next += 1)}`;
};

test('four copies by offset: addresses apart, everything within, and nothing new is wrong', () => {
  const copying = must(copyMachine(plan, order({}), 0, ids()));
  const grown = after(PLAN, copying.edits);
  expect(grown.devices).toHaveLength(PLAN.devices.length * 5);
  expect(grown.subnets.map((one) => formatPrefix(one.prefix))).toEqual(
    expect.arrayContaining(['172.22.42.0/24', '172.22.48.0/24']),
  );
  const drives = copying.copies.filter(({ from }) => from.id === 'drive');
  expect(drives.map(({ device }) => addressesOf(device))).toEqual([
    '172.22.42.80',
    '172.22.44.80',
    '172.22.46.80',
    '172.22.48.80',
  ]);
  // What leant on a device of the machine leans on the copy.
  for (const { device, copy } of drives) {
    const controller = copying.copies.find((one) => one.copy === copy && one.from.id === 'plc');
    expect(device.controllerId).toBe(controller?.device.id);
  }
  const wrong = snagsOf(grown).filter((snag) => snag.severity === 'wrong');
  expect(wrong).toEqual([]);
  // One undo takes all of it back.
  const outcome = applyEdits(docOfPlan(grown), inverseOf(copying.edits));
  expect(outcome.ok && diffDocs(docOfPlan(PLAN), outcome.value.doc)).toEqual([]);
});

test('a copy in a realm of its own has the same addresses and no clash', () => {
  const copying = must(copyMachine(plan, order({ apart: { by: 'realm' }, count: 2 }), 0, ids()));
  const grown = after(PLAN, copying.edits);
  expect(grown.realms).toHaveLength(3);
  const drives = copying.copies.filter(({ from }) => from.id === 'drive');
  expect(drives.map(({ device }) => addressesOf(device))).toEqual(['172.22.40.80', '172.22.40.80']);
  expect(snagsOf(grown).filter((snag) => snag.severity === 'wrong')).toEqual([]);
});

test('an interface in a subnet that is not copied gets the next free address there', () => {
  const start = {
    ...PLAN,
    devices: [...PLAN.devices.filter((one) => one.id !== ROUTER.id), ROUTER],
  };
  const copying = must(
    copyMachine(
      start,
      order({
        deviceIds: new Set([ROUTER.id]),
        subnetIds: new Set(['hall']),
        apart: { by: 'realm' },
      }),
      0,
      ids(),
    ),
  );
  const feeds = copying.copies.map(({ device }) =>
    device.interfaces.filter((one) => one.subnetId === 'feed').map((one) => one.address),
  );
  expect(new Set(feeds.flat()).size).toBe(feeds.flat().length);
});

test.each<[string, Partial<CopyOrder>, string]>([
  ['nothing chosen', { deviceIds: new Set() }, 'copy.nothing'],
  ['no copies', { count: 0 }, 'copy.nothing'],
  ['an offset inside the subnet', { apart: { by: 'offset', offset: 100 } }, 'copy.offset'],
  ['no offset', { apart: { by: 'offset', offset: 0 } }, 'copy.offset'],
  ['beyond the last address', { apart: { by: 'offset', offset: 2 ** 30 } }, 'copy.range'],
])('%s is refused', (_name, fields, code) => {
  expect(copyMachine(plan, order(fields), 0, ids())).toMatchObject({ ok: false, error: { code } });
});
