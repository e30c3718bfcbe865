import { walkWords } from '@ipsonomo/language';
import { parseIpv4 } from '../../src/net';
import { toSubnet } from '../../src/plan';
import { compareWalk, laptopIn, predict, PreparedNet, type RouteHost } from '../../src/routes';
import { host, ip, port, prefix } from './site';

// R-WALK: predicted and walked, one beside the other.

const hall = toSubnet({
  ...{ id: 'hall', name: 'Hall', prefix: prefix('10.1.0.0/24'), gateway: ip('10.1.0.1') },
});
const laptop = laptopIn(hall, ip('10.1.0.253'));
const router = host('router', [port('hall', '10.1.0.1/24'), port('feed', '10.2.0.1/24')], {
  forwards: true,
});
const robot = (gateway: string | undefined) =>
  host('robot', [port('feed', '10.2.0.12/24', gateway)]);

function compared(hosts: readonly RouteHost[], path: string, reached: boolean) {
  const net = new PreparedNet({ hosts: [laptop, ...hosts] });
  const from = net.host('laptop');
  if (!from) throw new Error('no laptop');
  const told = predict(net, { from, to: ip('10.2.0.12'), meant: net.host('robot') });
  const steps = path.split(' ').map((text) => {
    const address = parseIpv4(text);
    return address.ok ? address.value : undefined;
  });
  return compareWalk(told, steps, reached);
}

const good = [router, robot('10.2.0.1')];
const mute = [router, robot(undefined)];

test.each<[string, readonly RouteHost[], string, boolean, number | undefined, RegExp]>([
  [
    'as planned',
    good,
    '10.1.0.1 10.2.0.12',
    true,
    undefined,
    /as the plan says, and the device answers/,
  ],
  [
    'as planned, and that is nothing',
    mute,
    '10.1.0.1 - - -',
    false,
    undefined,
    /by the plan it cannot/,
  ],
  [
    'the device does not answer',
    good,
    '10.1.0.1 - - -',
    false,
    1,
    /as far as router, but robot does not answer/,
  ],
  [
    'it answers against the plan',
    mute,
    '10.1.0.1 10.2.0.12',
    true,
    1,
    /robot answers, though by the plan/,
  ],
  ['the router is silent', good, '- - -', false, 0, /Nobody answers where router should/],
  [
    'another router',
    good,
    '10.1.0.2 10.2.0.12',
    true,
    0,
    /10\.1\.0\.2 answers instead of 10\.1\.0\.1 \(router\)/,
  ],
])('%s', (_what, hosts, path, reached, differsAt, words) => {
  const found = compared(hosts, path, reached);
  expect(found.differsAt).toBe(differsAt);
  expect(walkWords(found, 'robot')).toMatch(words);
});
