import { findShelfKind, notHeardCauses, patienceFor, type Silence } from '../../src/plan';

const QUIET: Silence = {
  ...{ link: 'up', isWireAlive: true, heardSubnets: ['hall'], subnetId: 'hall' },
};

const codes = (silence: Partial<Silence>, kindId: string) =>
  notHeardCauses({ ...QUIET, ...silence }, { way: 'bootp' }, findShelfKind(kindId)).map(
    ({ code }) => code,
  );

const OWN = ['its-cable', 'not-restarted', 'keeps-address'];

test.each([
  ['no link silences everything', { link: 'down' }, ['no-link']],
  ['an adapter that is gone', { link: 'gone' }, ['no-link']],
  ['a link without a frame', { isWireAlive: false }, ['dead-wire', 'its-cable']],
  ['another subnet is heard', { heardSubnets: ['feeding'] }, ['other-subnet', ...OWN]],
  ['its own subnet among others', { heardSubnets: ['feeding', 'hall'] }, OWN],
  ['nobody with an address yet', { heardSubnets: [] }, OWN],
] as const)('R-NOT-HEARD: %s', (_what, silence, expected) => {
  expect(codes(silence, 'tarnwick-valves-16')).toEqual(expected);
});

test('R-NOT-HEARD: what has switches may have them otherwise', () => {
  expect(codes({}, 'wendle-station-20')).toEqual(['its-cable', 'switches', ...OWN.slice(1)]);
});

test('how long a kind is waited for: its start and two full pauses', () => {
  expect(patienceFor({ bootSeconds: 3, longestPauseSeconds: 16 })).toBe(35);
});
