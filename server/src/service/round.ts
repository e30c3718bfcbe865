import {
  carriedFor,
  interfacesOf,
  roundCalls,
  STAGES,
  type Plan,
  type RoundView,
} from '@ipsonomo/core';
import type { PlanReader } from './read-plan';
import type { SeenBook } from './seen-book';
import type { Thinking } from './thinking';

/** Everything whose address does not stay yet has a call. */
const PINNED = STAGES.indexOf('pinned');

interface Known {
  readonly plan: Plan;
  readonly open: readonly string[];
  readonly view: Promise<RoundView>;
}

/** The best order of the calls that are left. It is planned anew where the plan or what is left has changed. */
export class Rounds {
  private readonly known = new Map<string, Known>();

  constructor(
    private readonly reader: PlanReader,
    private readonly thinking: Thinking,
  ) {}

  async of(jobId: string): Promise<RoundView> {
    const { plan, book } = await this.reader.now(jobId);
    const open = openIn(plan, book);
    const known = this.known.get(jobId);
    if (known?.plan === plan && isSame(known.open, open)) return known.view;
    const view = this.planned(plan, open);
    const one = { plan, open, view };
    this.known.set(jobId, one);
    // What went wrong is tried again by whoever asks next.
    view.catch(() => {
      if (this.known.get(jobId) === one) this.known.delete(jobId);
    });
    return view;
  }

  private async planned(plan: Plan, open: readonly string[]): Promise<RoundView> {
    const calls = roundCalls(plan, new Set(open));
    const { order, cost } = await this.thinking.order(calls);
    const devices = new Set(calls.map(({ deviceId }) => deviceId));
    return { order, cost, carried: carriedFor(plan, devices) };
  }
}

const openIn = (plan: Plan, book: SeenBook): readonly string[] =>
  interfacesOf(plan)
    .filter(({ at }) => STAGES.indexOf(book.of(at.id).stage) < PINNED)
    .map(({ at }) => at.id);

const isSame = (a: readonly string[], b: readonly string[]): boolean =>
  a.length === b.length && a.every((one, index) => one === b[index]);
