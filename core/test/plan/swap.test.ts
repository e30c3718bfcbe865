import { must, parsePrefix } from '../../src/net';
import {
  swapOf,
  toDevice,
  toInterface,
  toPlan,
  toSubnet,
  type Device,
  type SwapStep,
  type Way,
} from '../../src/plan';
import { ip } from '../wire/samples';

const HALL = toSubnet({ id: 'hall', name: 'Hall', prefix: must(parsePrefix('172.22.40.0/24')) });

function swap(kindId: string, way: Way, fields: Partial<Device> = {}) {
  const at = toInterface({
    ...{ id: 'at', deviceId: 'dead', subnetId: 'hall', address: ip('172.22.40.110') },
  });
  const device = toDevice({
    ...{ id: 'dead', title: 'Dead one', name: 'dead-1', kindId, way, interfaces: [at] },
    ...fields,
  });
  const plan = toPlan({ subnets: [HALL], devices: [device] });
  const found = swapOf(plan, device, at);
  if (!found) throw new Error('no swap');
  return found;
}

const kinds = (steps: readonly SwapStep[]) => steps.map(({ kind }) => kind);
const BEGIN: readonly SwapStep['kind'][] = ['same-kind', 'power-off', 'cable'];
const END: readonly SwapStep['kind'][] = ['parameters', 'look'];

test.each<[string, Way, boolean, readonly SwapStep['kind'][]]>([
  ['wendle-station-20', 'switches', false, [...BEGIN, 'switches', 'power-on', ...END]],
  ['eskmere-switch-8', 'card', false, [...BEGIN, 'card', 'power-on', ...END]],
  ['kilvane-panel-12', 'keypad', false, [...BEGIN, 'power-on', 'keypad', 'restart', ...END]],
  ['tarnwick-valves-16', 'bootp', true, [...BEGIN, 'power-on', 'laptop', ...END]],
  ['belloch-drive-d4', 'dhcp-port', false, [...BEGIN, 'power-on', 'answered', ...END]],
  ['eldrup-block-8', 'layer2-name', true, [...BEGIN, 'power-on', 'laptop', ...END]],
])('R-SWAP: %s by %s: laptop %s', (kindId, way, needsLaptop, expected) => {
  const { steps, needsLaptop: laptop } = swap(kindId, way);
  expect([laptop, kinds(steps)]).toEqual([needsLaptop, expected]);
});

test('R-SWAP: switches that make the name need no laptop, by DHCP or by the controller', () => {
  const named = { dhcpName: 'terminal4-007', stationName: 'terminal4-007' };
  const byDhcp = swap('strathan-terminal-4', 'dhcp-name', named);
  expect(byDhcp.needsLaptop).toBe(false);
  expect(byDhcp.steps).toContainEqual({ kind: 'answered', by: 'service', name: 'terminal4-007' });
  const byController = swap('strathan-terminal-4', 'controller', named);
  expect(byController.needsLaptop).toBe(false);
  expect(byController.steps).toContainEqual(
    expect.objectContaining({ kind: 'answered', by: 'controller' }),
  );
  const otherName = swap('strathan-terminal-4', 'controller', { stationName: 'hall-terminal' });
  expect(otherName.needsLaptop).toBe(true);
});

test('R-SWAP: what must be left first, what restores it, and where its password is', () => {
  const { steps } = swap('osterhew-controller-r', 'card', {
    ...{ restores: 'card', passwordAt: 'sealed envelope, shift office' },
  });
  expect(steps[1]).toEqual({ kind: 'first', words: 'Key switch to STOP' });
  expect(steps).toContainEqual({ kind: 'parameters', from: 'card' });
  expect(steps).toContainEqual({ kind: 'password', at: 'sealed envelope, shift office' });
  expect(steps.at(-1)).toEqual({ kind: 'look', address: ip('172.22.40.110') });
});
