import { interfacesOf, type Plan } from '../../plan';
import { roundCalls, type RoundCall } from '../call';
import { orderRound } from '../order';
import { playRound, type Played, type PlayedStop, type WaitedFor } from './play';
import { workOf } from './work';

/** What would be quicker: everything bound at the desk, a person more, a laptop more, the best order. */
export type Saving = 'bound' | 'person' | 'laptop' | 'order';

export interface CabinetTime {
  readonly area: string;
  readonly cabinet: string;
  readonly calls: number;
  /** Seconds that people are there, together. */
  readonly seconds: number;
}

export interface RoundEstimate {
  readonly calls: number;
  readonly people: number;
  readonly seconds: number;
  readonly persons: Played['people'];
  /** In the order in which they are come to first. */
  readonly cabinets: readonly CabinetTime[];
  /** Seconds of all people together. */
  readonly waited: Readonly<Record<WaitedFor, number>>;
  /** Seconds that each would save by itself; what saves nothing is left out. */
  readonly savings: readonly (readonly [saving: Saving, seconds: number])[];
}

export interface EstimateWish {
  readonly people: number;
  /** Interfaces whose calls are played; all where not given. */
  readonly among?: readonly string[];
  /** The same in the order in which they are walked, where it is not the best. */
  readonly order?: readonly string[];
  readonly mistakes?: ReadonlySet<string>;
}

/** R-PLAY: how long the calls of a plan take, what holds them up, and what would save how much. */
export function estimateRound(plan: Plan, wish: EstimateWish): RoundEstimate {
  const { people, mistakes } = wish;
  const ids = wish.order ?? wish.among ?? interfacesOf(plan).map(({ at }) => at.id);
  const calls = roundCalls(plan, new Set(ids));
  const best = orderRound(calls);
  const walked = wish.order ? inOrder(calls, wish.order) : best;
  const works = { ...(mistakes ? { mistakes } : {}) };
  const work = workOf(plan, walked, works);
  const played = playRound(work, { people });
  const other = (saving: Saving, seconds: number) => [saving, played.seconds - seconds] as const;
  const savings = [
    other(
      'bound',
      playRound(workOf(plan, walked, { ...works, isBound: true }), { people }).seconds,
    ),
    other('person', playRound(work, { people: people + 1 }).seconds),
    other('laptop', playRound(work, { people, laptops: 2 }).seconds),
    ...(walked === best
      ? []
      : [other('order', playRound(workOf(plan, best, works), { people }).seconds)]),
  ];
  return {
    ...{ calls: work.length, people, seconds: played.seconds, persons: played.people },
    cabinets: cabinetsOf(plan, walked, played.stops),
    waited: {
      device: sum(played, 'device'),
      laptop: sum(played, 'laptop'),
      factory: sum(played, 'factory'),
    },
    savings: savings.filter(([, seconds]) => seconds > 0).sort((a, b) => b[1] - a[1]),
  };
}

const sum = ({ people }: Played, why: WaitedFor): number =>
  people.reduce((all, { waited }) => all + waited[why], 0);

function inOrder(calls: readonly RoundCall[], order: readonly string[]): readonly RoundCall[] {
  const byId = new Map(calls.map((call) => [call.id, call]));
  return order.flatMap((id) => byId.get(id) ?? []);
}

/** How long people are at each cabinet, however often they come there. */
function cabinetsOf(
  plan: Plan,
  calls: readonly RoundCall[],
  stops: readonly PlayedStop[],
): readonly CabinetTime[] {
  const devices = new Map(plan.devices.map((device) => [device.id, device]));
  const all = new Map<number, CabinetTime>();
  for (const { cabinet, deviceId } of calls) {
    const device = devices.get(deviceId);
    if (!all.has(cabinet))
      all.set(cabinet, {
        ...{ area: device?.area ?? '', cabinet: device?.cabinet ?? '', calls: 0, seconds: 0 },
      });
  }
  for (const { cabinet, calls: count, from, to } of stops) {
    const known = all.get(cabinet);
    if (known)
      all.set(cabinet, {
        ...{ ...known, calls: known.calls + count, seconds: known.seconds + to - from },
      });
  }
  return [...all.values()];
}
