import fc from 'fast-check';
import {
  applyEdits,
  diffDocs,
  docOfPlan,
  inverseOf,
  planOf,
  toDevice,
  toInterface,
  toPlan,
  toSubnet,
  type Device,
  type Edit,
  type PlanDoc,
} from '../../src/plan';
import { openSnags, SnagBook, snagKey, snagsOf } from '../../src/snags';
import { siteOf } from './big-site';
import { connection, ip, net } from './world';
import { cases } from '../cases';

const WORDS = ['pump', 'pump-1', 'pump 2', 'drive', ''];
const KINDS = ['belloch-drive-d4', 'osterhew-controller-k', 'eskmere-router-4', 'nobody'];

const subnet = (index: number, network: string, gateway?: string) =>
  toSubnet({
    ...{ id: `s${index}`, name: `Hall ${index}`, prefix: net(network) },
    gateway: gateway === undefined ? undefined : ip(gateway),
    bands: [{ role: 'drives', first: ip('10.0.0.4'), last: ip('10.0.0.6') }],
  });

/** A small crowded plan, so that nearly every edit touches somebody else. */
const arbitraryPlan = fc
  .record({
    devices: fc.array(
      fc.record({
        name: fc.constantFrom(...WORDS),
        kind: fc.constantFrom(...KINDS),
        controller: fc.option(fc.nat(5)),
        interfaces: fc.array(fc.tuple(fc.nat(3), fc.nat(9)), { maxLength: 2 }),
        isConnected: fc.boolean(),
      }),
      { maxLength: 6 },
    ),
    gateway: fc.nat(9),
    isNested: fc.boolean(),
    vlan: fc.option(fc.nat({ max: 2 })),
  })
  .map(({ devices, gateway, isNested, vlan }) => {
    const subnets = [
      subnet(0, '10.0.0.0/28', `10.0.0.${gateway}`),
      {
        ...subnet(1, isNested ? '10.0.0.8/29' : '10.0.1.0/28'),
        vlan: vlan === null ? undefined : vlan + 1,
      },
      { ...subnet(2, '10.0.2.0/28'), vlan: 2 },
    ];
    const made = devices.map((one, index): Device => {
      const id = `d${index}`;
      return toDevice({
        ...{ id, title: one.name || id, name: one.name, kindId: one.kind, way: 'dhcp-name' },
        controllerId: one.controller === null ? undefined : `d${one.controller}`,
        connection: one.isConnected ? connection({ inSize: 7 }) : undefined,
        interfaces: one.interfaces.map(([at, host], nth) =>
          toInterface({
            ...{
              id: `${id}-${nth}`,
              deviceId: id,
              subnetId: `s${at}`,
              address: ip(`10.0.0.${host}`),
            },
          }),
        ),
      });
    });
    return docOfPlan(toPlan({ subnets, devices: made }));
  });

const told = (doc: PlanDoc, snags: ReturnType<typeof snagsOf>) =>
  snags
    .map((one) => [snagKey(one), one.severity, one.facts, one.also])
    .concat([[doc.device.size]] as never);

test('what a book keeps from edit to edit is what a fresh look finds', () => {
  fc.assert(
    fc.property(fc.array(arbitraryPlan, { minLength: 2, maxLength: 4 }), (plans) => {
      const book = new SnagBook();
      let doc = plans[0] as PlanDoc;
      for (const wanted of plans) {
        // By single edits, as a person would get there.
        for (const edit of diffDocs(doc, wanted)) {
          const outcome = applyEdits(doc, [edit]);
          if (!outcome.ok) throw new Error('an edit of a difference applies');
          doc = outcome.value.doc;
          const plan = planOf(doc);
          const fresh = snagsOf(planOf({ ...doc }));
          expect(told(doc, book.update(plan))).toEqual(told(doc, fresh));
        }
      }
    }),
    { numRuns: cases(60), seed: 45 },
  );
});

test('a difference applied is the other document, and taken back is the first', () => {
  fc.assert(
    fc.property(arbitraryPlan, arbitraryPlan, (before, after) => {
      const edits = diffDocs(before, after);
      const there = applyEdits(before, edits);
      if (!there.ok) throw new Error('the difference applies');
      expect(diffDocs(there.value.doc, after)).toEqual([]);
      const back = applyEdits(there.value.doc, inverseOf(edits));
      if (!back.ok) throw new Error('its inverse applies');
      expect(diffDocs(back.value.doc, before)).toEqual([]);
    }),
    { numRuns: cases(100), seed: 46 },
  );
});

test('an accepted snag is no longer open', () => {
  const [first, ...rest] = snagsOf(
    toPlan({ subnets: [{ ...subnet(0, '192.168.1.0/24'), bands: [] }] }),
  );
  if (!first) throw new Error('a home network is a snag');
  const acceptances = [{ id: 'a', key: snagKey(first), reason: 'meant', person: 'Mara' }];
  expect(openSnags(toPlan({ acceptances }), [first, ...rest])).toEqual(rest);
});

// A correct plan of 500 devices gives nothing wrong and at most 5 doubtful.
test('a good plan of 500 devices is left in peace', () => {
  const snags = snagsOf(siteOf(500));
  expect(snags.filter((one) => one.severity === 'wrong')).toEqual([]);
  expect(snags.filter((one) => one.severity === 'doubtful').length).toBeLessThanOrEqual(5);
});

test('edits of a difference name the field and both values', () => {
  const before = docOfPlan(siteOf(20));
  const [first] = before.interface.values();
  if (!first) throw new Error('the site has interfaces');
  const edit: Edit = {
    ...{ op: 'set', type: 'interface', id: first.id, field: 'mac' },
    ...{ from: null, to: '02:00:5e:00:53:07' },
  };
  const after = applyEdits(before, [edit]);
  expect(after.ok && diffDocs(before, after.value.doc)).toEqual([edit]);
});
