import { must, parseIpv4, parsePrefix } from '../../src/net';
import { toDevice, toInterface, toPlan, toSubnet } from '../../src/plan';
import {
  otherwiseSet,
  planAsFound,
  predict,
  PreparedNet,
  routeNetOf,
  settingsIn,
  type SettingsFound,
} from '../../src/routes';

// R-AS-FOUND: what the devices say of their masks and gateways, instead of what is planned.

const ip = (text: string) => must(parseIpv4(text));
const subnet = (id: string, last: number) =>
  toSubnet({
    ...{ id, name: id, prefix: must(parsePrefix(`10.0.${last}.0/24`)) },
    gateway: ip(`10.0.${last}.1`),
  });
const device = (id: string, subnetId: string, address: string) =>
  toDevice({
    ...{ id, title: id, name: id, kindId: 'tarnwick-valves-16', way: 'bootp' },
    interfaces: [toInterface({ id: `${id}-1`, deviceId: id, subnetId, address: ip(address) })],
  });
const plan = toPlan({
  subnets: [subnet('hall', 1), subnet('feed', 2)],
  devices: [device('controller', 'hall', '10.0.1.10'), device('valves', 'feed', '10.0.2.20')],
});

function worksWith(found: ReadonlyMap<string, SettingsFound>): boolean {
  const net = new PreparedNet(routeNetOf(planAsFound(plan, found)));
  const [from, meant] = [net.host('controller'), net.host('valves')];
  if (!from) throw new Error('no controller');
  return predict(net, { from, to: ip('10.0.2.20'), meant }).verdict.works;
}

const ANY: SettingsFound = { mask: ip('255.0.0.0'), gateway: undefined };
const set = (mask: string, gateway: string | undefined): ReadonlyMap<string, SettingsFound> =>
  new Map([
    ['valves-1', { mask: ip(mask), gateway: gateway === undefined ? undefined : ip(gateway) }],
  ]);

test.each([
  ['as planned', set('255.255.255.0', '10.0.2.1'), true, []],
  ['without its gateway', set('255.255.255.0', undefined), false, ['valves-1']],
  ['at another gateway', set('255.255.255.0', '10.0.2.254'), false, ['valves-1']],
  // The controller is a neighbour to it then, and it asks for it in vain.
  ['with a mask that is too wide', set('255.255.0.0', '10.0.2.1'), false, ['valves-1']],
  ['somebody who is not in the plan', new Map([['gone', ANY]]), true, []],
])('%s', (_name, found, works, otherwise) => {
  expect(worksWith(found)).toBe(works);
  expect(otherwiseSet(plan, found)).toEqual(otherwise);
});

test.each([
  [
    { mask: '255.255.0.0', gateway: '10.0.0.1' },
    { mask: '255.255.0.0', gateway: '10.0.0.1' },
  ],
  [
    { mask: '255.255.0.0', gateway: '0.0.0.0' },
    { mask: '255.255.0.0', gateway: undefined },
  ],
  [{ mask: '255.255.0.0' }, undefined],
  [{}, undefined],
])('what the facts of a check tell: %j', (facts, wanted) => {
  expect(settingsIn(facts as never)).toEqual(
    wanted && {
      mask: ip(wanted.mask),
      gateway: wanted.gateway === undefined ? undefined : ip(wanted.gateway),
    },
  );
});
