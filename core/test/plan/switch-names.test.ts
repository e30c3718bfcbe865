import {
  findShelfKind,
  planOf,
  proposedSwitchName,
  applyEdits,
  docOfPlan,
  type Plan,
} from '../../src/plan';
import { newRowsOf } from '../../src/sheet';
import { mendOf, snagsOf } from '../../src/snags';
import { device, withDevices } from '../snags/world';

// A device that asks under a name of its switches is given one that they can make.

const KIND = findShelfKind('strathan-terminal-4');
const TERMINAL = { kindId: 'strathan-terminal-4', way: 'dhcp-name' } as const;

test.each<[taken: readonly string[], name: string | undefined]>([
  [[], 'terminal4-001'],
  [['terminal4-001', 'terminal4-002'], 'terminal4-003'],
  [
    Array.from({ length: 99 }, (_, at) => `terminal4-${String(at + 1).padStart(3, '0')}`),
    undefined,
  ],
])('%#', (taken, name) => {
  expect(KIND && proposedSwitchName(KIND, new Set(taken))).toBe(name);
});

const dhcpNames = (plan: Plan) => plan.devices.map((one) => one.dhcpName).filter(Boolean);

test('lines of a list get names of their own, whatever the plan has', () => {
  const plan = withDevices(
    device('a', '172.22.40.110', { ...TERMINAL, dhcpName: 'terminal4-001' }),
  );
  const row = { kind: 'Valve terminal 4', subnet: 'Filter hall' };
  let next = 0;
  const { edits } = newRowsOf(plan, [row, row], {}, 0, () => `new-${(next += 1)}`);
  const done = applyEdits(docOfPlan(plan), edits);
  const after = done.ok ? planOf(done.value.doc) : plan;
  expect(dhcpNames(after)).toEqual(['terminal4-001', 'terminal4-002', 'terminal4-003']);
  expect(snagsOf(after).filter(({ rule }) => rule === 'S-SWITCH-NAME')).toEqual([]);
});

test('a name that they cannot make is mended by one that they can', () => {
  const plan = withDevices(device('a', '172.22.40.110', TERMINAL));
  const snag = snagsOf(plan).find(({ rule }) => rule === 'S-SWITCH-NAME');
  expect(snag && mendOf(plan, snag, 0)?.edits).toMatchObject([
    { type: 'device', id: 'a', field: 'dhcpName', to: 'terminal4-001' },
  ]);
});
