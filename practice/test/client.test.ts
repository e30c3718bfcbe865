import { mac } from './helpers';
import { runClient, startClient, type ClientTraits } from '../src/client';

const traits = (longestPause: number): ClientTraits => ({
  ...{ mac: mac('02:00:5e:00:53:10'), by: 'dhcp', hostName: undefined, vendorClass: undefined },
  ...{ longestPause, wantsBroadcast: true },
});

/** The pauses between so many requests that nobody answers. */
function pausesOf(longestPause: number, count: number): readonly number[] {
  let [state, now] = [startClient(1, 0), 0];
  return Array.from({ length: count }, () => {
    ({ state } = runClient(state, traits(longestPause), now));
    const pause = state.nextAt - now;
    now = state.nextAt;
    return pause;
  });
}

test.each([
  ['doubled up to what its kind says', 16_000, [2000, 4000, 8000, 16_000, 16_000]],
  ['of a kind that says nothing, as RFC 2131 §4.1 has it', 0, [2000, 4000, 8000, 16_000, 32_000]],
  ['never no time at all', 0.01, [500, 500, 500, 500, 500]],
])('the pause between requests: %s', (_, longest, pauses) => {
  expect(pausesOf(longest, 5)).toEqual(pauses);
});

test('nor more than 64 s where nothing is said', () => {
  expect(Math.max(...pausesOf(0, 12))).toBe(64_000);
});
