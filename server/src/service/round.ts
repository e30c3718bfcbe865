import {
  carriedFor,
  costOf,
  interfacesOf,
  orderRound,
  progressOf,
  roundCalls,
  STAGES,
  type RoundView,
} from '@ipsonomo/core';
import type { Store } from '../store/store';

/** Everything whose address does not stay yet has a call. */
const PINNED = STAGES.indexOf('pinned');

interface Known {
  readonly key: string;
  readonly view: RoundView;
}

/** The best order of the calls that are left. It is planned anew where what is left has changed. */
export class Rounds {
  private readonly known = new Map<string, Known>();

  constructor(private readonly store: Store) {}

  async of(jobId: string): Promise<RoundView> {
    const [{ revision }, plan, evidence] = await Promise.all([
      this.store.planState(jobId),
      this.store.plan(jobId),
      this.store.latestEvidence(jobId),
    ]);
    const open = interfacesOf(plan)
      .filter(({ device, at }) => {
        const { stage } = progressOf(device.way, at, evidence.get(at.id) ?? []);
        return STAGES.indexOf(stage) < PINNED;
      })
      .map(({ at }) => at.id);
    const key = `${revision} ${open.join(' ')}`;
    const known = this.known.get(jobId);
    if (known?.key === key) return known.view;
    const order = orderRound(roundCalls(plan, new Set(open)));
    const view = {
      order: order.map(({ id }) => id),
      cost: costOf(order),
      carried: carriedFor(plan, new Set(order.map(({ deviceId }) => deviceId))),
    };
    this.known.set(jobId, { key, view });
    return view;
  }
}
