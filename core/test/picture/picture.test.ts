import { must, parseIpv4, parsePrefix } from '../../src/net';
import { drawnRoute, pictureOf } from '../../src/picture';
import { toDevice, toInterface, toPlan, toSubnet, type Device } from '../../src/plan';
import { predict, PreparedNet, routeNetOf } from '../../src/routes';

const ip = (text: string) => must(parseIpv4(text));

const subnet = (id: string, net: number, gateway = true) =>
  toSubnet({
    ...{ id, name: id, prefix: must(parsePrefix(`10.0.${net}.0/24`)) },
    gateway: gateway ? ip(`10.0.${net}.1`) : undefined,
  });

const device = (
  id: string,
  kindId: string,
  ports: readonly (readonly [subnet: string, address: string])[],
  more: Partial<Device> = {},
): Device =>
  toDevice({
    ...{ id, title: id, name: id, kindId, way: 'web-page', ...more },
    interfaces: ports.map(([subnetId, address], at) =>
      toInterface({ id: `${id}-${at}`, deviceId: id, subnetId, address: ip(address) }),
    ),
  });

const plan = toPlan({
  subnets: [subnet('a', 1), subnet('b', 2), subnet('far', 3, false)],
  devices: [
    device('one', 'tarnwick-valves-16', [['a', '10.0.1.10']]),
    device('two', 'tarnwick-valves-16', [['b', '10.0.2.10']]),
    device('router', 'eskmere-router-4', [
      ['a', '10.0.1.1'],
      ['b', '10.0.2.1'],
    ]),
    device('rack', 'osterhew-controller-r', [
      ['b', '10.0.2.20'],
      ['far', '10.0.3.20'],
    ]),
    device('deep', 'tarnwick-valves-16', [['far', '10.0.3.10']]),
  ],
});

test('subnets are lanes; what has ports in several joins them and stands in none', () => {
  const picture = pictureOf(plan);
  expect(
    picture.lanes.map(({ name, devices }) => [name, ...devices.map(({ title }) => title)]),
  ).toEqual([
    ['a', 'one'],
    ['b', 'two'],
    ['far', 'deep'],
  ]);
  expect(picture.joiners).toEqual([
    { id: 'router', title: 'router', kind: 'router', lanes: ['a', 'b'] },
    { id: 'rack', title: 'rack', kind: 'rack', lanes: ['b', 'far'] },
  ]);
});

test('a router that the plan names by its gateways alone joins them', () => {
  const without = { ...plan, devices: plan.devices.filter(({ id }) => id !== 'router') };
  const [assumed] = pictureOf(without).joiners.filter(({ kind }) => kind === 'router');
  expect(assumed?.lanes).toEqual(['a', 'b']);
});

test.each([
  ['one', '10.0.2.10', ['one', 'router', 'two'], ['two', 'router', 'one'], undefined],
  // No IP goes through a rack: the router knows no way there.
  ['one', '10.0.3.10', ['one', 'router'], [], 'router'],
])('drawn from %s to %s', (from, to, there, back, end) => {
  const net = new PreparedNet(routeNetOf(plan));
  const host = net.host(from);
  if (!host) throw new Error(from);
  expect(drawnRoute(predict(net, { from: host, to: ip(to) }))).toEqual({ there, back, end });
});

test('one that translates is told from one that only forwards', () => {
  const translations: Device['translations'] = [
    {
      kind: 'one-to-one',
      inside: must(parsePrefix('10.0.2.0/24')),
      outside: must(parsePrefix('10.9.2.0/24')),
    },
  ];
  const devices = plan.devices.map((one) => (one.id === 'router' ? { ...one, translations } : one));
  expect(pictureOf({ ...plan, devices }).joiners[0]?.kind).toBe('translator');
});
