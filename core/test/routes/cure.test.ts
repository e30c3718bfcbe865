import { cureEdits, verdictWords } from '@ipsonomo/language';
import { formatIpv4 } from '../../src/net';
import {
  applyEdits,
  docOfPlan,
  planOf,
  toDevice,
  toInterface,
  toPlan,
  toSubnet,
  type Device,
  type Edit,
  type Interface,
  type Plan,
  type PlanDoc,
} from '../../src/plan';
import {
  findCure,
  neededPairs,
  predict,
  PreparedNet,
  routeNetOf,
  type Cure,
} from '../../src/routes';
import { randomSite } from './random-site';
import { ip, prefix, verdictOf } from './site';
import { cases } from '../cases';

const subnet = (id: string, network: string, gateway: string) =>
  toSubnet({ id, name: id, prefix: prefix(network), gateway: ip(gateway) });
const hall = subnet('hall', '172.22.40.0/24', '172.22.40.1');
const feed = subnet('feed', '172.22.41.0/24', '172.22.41.1');

function device(id: string, at: Partial<Interface>, more: Partial<Device> = {}): Device {
  const fields = { id: `${id}-at`, deviceId: id, subnetId: 'feed', address: ip('172.22.41.12') };
  const names = { id, title: id, name: id, kindId: 'belloch-drive-d4', way: 'keypad' } as const;
  return { ...toDevice(names), interfaces: [toInterface({ ...fields, ...at })], ...more };
}

const controller = device(
  'controller',
  { subnetId: 'hall', address: ip('172.22.40.10') },
  { kindId: 'osterhew-controller-k' },
);
const robot = (at: Partial<Interface> = {}): Device =>
  device('robot', at, { controllerId: 'controller' });

const planWith = (...devices: readonly Device[]): Plan =>
  toPlan({ subnets: [hall, feed], devices: [controller, ...devices] });

function told(plan: Plan, from = 'controller', to = '172.22.41.12') {
  const net = new PreparedNet(routeNetOf(plan));
  const host = net.host(from);
  if (!host) throw new Error(from);
  return predict(net, { from: host, to: ip(to) });
}

function applied(doc: PlanDoc, edits: readonly Edit[]): Plan {
  const done = applyEdits(doc, edits);
  if (!done.ok) throw new Error('a conflict');
  return planOf(done.value.doc);
}

const textOf = (cure: Cure | undefined): string => {
  if (!cure) return 'none';
  if (cure.kind === 'route') return `route ${cure.host} ${formatIpv4(cure.via)}`;
  return cure.kind === 'mask' ? `mask /${cure.to}` : `gateway ${formatIpv4(cure.to)}`;
};

test('a gateway that no device of the plan has is a router of the site', () => {
  const answer = told(planWith(robot()));
  expect(verdictOf(answer)).toBe('works');
  expect(answer.there.hops.map(({ host }) => host.host.title)).toEqual([
    ...['controller', 'Router of the site', 'robot'],
  ]);
});

test.each<[string, Partial<Interface>, string, string]>([
  ['no gateway', { gateway: 'none' }, 'back robot gateway-missing', 'gateway 172.22.41.1'],
  [
    'a gateway of the other subnet',
    { gateway: ip('172.22.40.1') },
    'back robot gateway-outside',
    'gateway 172.22.41.1',
  ],
  [
    'a gateway that nobody has',
    { gateway: ip('172.22.41.254') },
    'back robot gateway-nobody',
    'gateway 172.22.41.1',
  ],
  ['the mask of the old site', { mask: ip('255.255.0.0') }, 'back robot mask-wide', 'mask /24'],
])('R-CURE: %s', (_what, at, verdict, cure) => {
  // Somebody else on its subnet has the usual mask.
  const plan = planWith(robot(at), device('neighbour', { address: ip('172.22.41.30') }));
  expect(verdictOf(told(plan))).toBe(verdict);
  const asked = { from: 'controller', to: ip('172.22.41.12') };
  const found = findCure(routeNetOf(plan), asked);
  expect(textOf(found?.cure)).toBe(cure);
  // As a change of the plan it does what was promised.
  const doc = docOfPlan(plan);
  const edits = found && cureEdits(plan, doc, found.cure);
  const after = applied(doc, edits ?? []);
  expect(verdictOf(told(after))).toBe('works');
  // What the subnet has is not written again.
  expect(after.devices[1]?.interfaces[0]).toMatchObject({ mask: undefined, gateway: 'subnet' });
});

test('a router of the plan that knows no way back is given a route', () => {
  const far = subnet('far', '172.22.42.0/24', '172.22.42.1');
  const router = (
    id: string,
    a: readonly [string, string],
    b: readonly [string, string],
  ): Device => ({
    ...device(id, {}, { kindId: 'eskmere-router-4' }),
    interfaces: [a, b].map(([subnetId, address], at) =>
      toInterface({
        ...{ id: `${id}-${at}`, deviceId: id, subnetId, address: ip(address), gateway: 'none' },
      }),
    ),
  });
  const plan = toPlan({
    subnets: [hall, feed, far],
    devices: [
      controller,
      robot({ subnetId: 'far', address: ip('172.22.42.12') }),
      { ...router('one', ['hall', '172.22.40.1'], ['feed', '172.22.41.1']) },
      { ...router('two', ['feed', '172.22.41.2'], ['far', '172.22.42.1']) },
    ],
  });
  const to = ip('172.22.42.12');
  expect(verdictOf(told(plan, 'controller', '172.22.42.12'))).toBe('there one no-route');
  const first = findCure(routeNetOf(plan), { from: 'controller', to });
  expect([textOf(first?.cure), first && verdictOf(first.after)]).toEqual([
    ...['route one 172.22.41.2', 'back two no-route'],
  ]);
  const doc = docOfPlan(plan);
  const better = applied(doc, (first && cureEdits(plan, doc, first.cure)) ?? []);
  const second = findCure(routeNetOf(better), { from: 'controller', to });
  expect([textOf(second?.cure), second && verdictOf(second.after)]).toEqual([
    ...['route two 172.22.41.1', 'works'],
  ]);
});

test('R-CURE: on random sites what is proposed helps, whatever was wrong', () => {
  let [failed, cured] = [0, 0];
  for (let seed = 1; seed <= cases(25); seed += 1) {
    const hosts = randomSite(seed);
    const net = new PreparedNet({ hosts });
    for (const from of net.hosts)
      for (const to of hosts.flatMap(({ ports }) => ports)) {
        if (from.has(to.address)) continue;
        const before = predict(net, { from, to: to.address });
        if (before.verdict.works) continue;
        failed += 1;
        const found = findCure({ hosts }, { from: from.host.id, to: to.address });
        if (!found) continue;
        const { verdict } = found.after;
        expect(verdict.works || verdict.direction === 'back').toBe(true);
        if (verdict.works) cured += 1;
      }
  }
  expect(cured / failed).toBeGreaterThan(0.5);
});

test('R-NEEDED: a controller to its devices, a device to those it names', () => {
  const panel = device(
    'panel',
    { subnetId: 'hall', address: ip('172.22.40.30') },
    { references: [{ what: 'time server', deviceId: 'controller', address: undefined }] },
  );
  expect(
    neededPairs(planWith(robot(), panel)).map(({ from, to, why }) => [from, to.device, why]),
  ).toEqual([
    ['controller', 'robot', 'controls'],
    ['panel', 'controller', 'named-in-it'],
  ]);
});

test('R-NEEDED: a panel opens its connection; who is named by its address; what a laptop works with', () => {
  const at = (address: string) => ({ subnetId: 'hall', address: ip(address) });
  const names = { what: 'alarms', deviceId: undefined, address: ip('172.22.40.31') };
  const panel = device('panel', at('172.22.40.30'), {
    ...{ kindId: 'kilvane-panel-12', controllerId: 'controller', references: [names, names] },
  });
  const other = device('other', at('172.22.40.31'), {
    // Nobody of the plan has that one.
    references: [{ ...names, address: ip('10.0.0.1') }],
  });
  const laptop = device('laptop', at('172.22.40.245'), { kindId: 'service-laptop' });
  expect(
    neededPairs(planWith(robot(), panel, other, laptop)).map(({ from, to, why }) => [
      ...[from, to.device, why],
    ]),
  ).toEqual([
    ['controller', 'robot', 'controls'],
    ['panel', 'controller', 'controls'],
    ['panel', 'other', 'named-in-it'],
    ['laptop', 'controller', 'services'],
    ['laptop', 'panel', 'services'],
  ]);
});

test('a verdict in words says who, what and what that means', () => {
  const { verdict } = told(planWith(robot({ gateway: ip('172.22.40.1') })));
  expect(verdictWords(verdict)).toEqual({
    title: 'It arrives, but cannot answer',
    text: 'The gateway of robot is 172.22.40.1, outside its own network 172.22.41.0/24, so it has nowhere to send the reply.',
  });
});
