import { formatIpv4 } from '../../src/net';
import {
  applyEdits,
  docOfPlan,
  editsOfTakingOut,
  planOf,
  type Device,
  type Edit,
  type PlanDoc,
} from '../../src/plan';
import { mendAll, snagsOf } from '../../src/snags';
import { CONTROLLER, device, DRIVE, withDevices } from './world';

const NOW = 1_700_000_000_000;

function applied(doc: PlanDoc, edits: readonly Edit[]) {
  const done = applyEdits(doc, edits);
  if (!done.ok) throw new Error(JSON.stringify(done.error));
  return planOf(done.value.doc);
}

function mended(...devices: readonly Device[]) {
  const doc = docOfPlan(withDevices(...devices));
  const snags = snagsOf(planOf(doc));
  const { mends, edits } = mendAll(doc, snags, NOW);
  return { mends, after: applied(doc, edits) };
}

const wrong = (plan: ReturnType<typeof planOf>) =>
  snagsOf(plan).filter(({ severity }) => severity === 'wrong');

test('three devices of one address: two are given another, not the same one', () => {
  const { mends, after } = mended(
    device('a', '172.22.40.85'),
    device('b', '172.22.40.85'),
    device('c', '172.22.40.85'),
  );
  expect(mends.map(([{ rule }]) => rule)).toEqual(['S-ADDRESS-TWICE', 'S-ADDRESS-TWICE']);
  expect(wrong(after)).toEqual([]);
  const given = after.devices.flatMap(({ interfaces }) => interfaces.map((at) => at.address));
  expect(new Set(given).size).toBe(given.length);
});

test('many of one kind of mistake, and the proposals of one do not take those of another', () => {
  const many = Array.from({ length: 8 }, (_, at) => device(`d${at}`, `172.22.40.${180 + at}`));
  const { mends, after } = mended(...many);
  expect(mends.length).toBe(8);
  expect(wrong(after)).toEqual([]);
});

test('a snag that went with the one before is left alone', () => {
  // In a pool and twice: moving one off the pool ends both for it.
  const { after, mends } = mended(device('a', '172.22.40.201'), device('b', '172.22.40.201'));
  expect(wrong(after)).toEqual([]);
  expect(mends.length).toBeLessThanOrEqual(3);
});

test('what only a person can know is left', () => {
  const lost = device('a', '172.22.40.85', { kindId: 'nobody' });
  const { mends, after } = mended(lost);
  expect(mends).toEqual([]);
  expect(wrong(after).map(({ rule }) => rule)).toEqual(['S-KIND-GONE']);
});

test('devices are taken out with their interfaces and cables, and who named them is told', () => {
  const cable = {
    id: 'c',
    from: { deviceId: 'plc', port: '1' },
    to: { deviceId: 'drive', port: '1' },
    note: '',
  };
  const doc = docOfPlan({ ...withDevices(), devices: [CONTROLLER, DRIVE], cables: [cable] });
  const after = applied(doc, editsOfTakingOut(doc, new Set(['plc'])));
  expect([after.devices.map(({ id }) => id), after.cables]).toEqual([['drive'], []]);
  expect(after.devices[0]?.interfaces.map((at) => formatIpv4(at.address))).toEqual([
    '172.22.40.80',
  ]);
  expect(snagsOf(after).map(({ rule }) => rule)).toContain('S-CONTROLLER-GONE');
});
