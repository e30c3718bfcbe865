import {
  carriedFor,
  interfacesOf,
  roundCalls,
  STAGES,
  type Plan,
  type RoundCall,
  type RoundView,
} from '@ipsonomo/core';
import type { PlanReader } from './read-plan';
import type { SeenBook } from './seen-book';
import type { Ordered, Thinking } from './thinking';

/** Everything whose address does not stay yet has a call. */
const PINNED = STAGES.indexOf('pinned');

interface Known {
  readonly plan: Plan;
  readonly open: readonly string[];
  readonly calls: readonly RoundCall[];
  readonly ordered: Promise<Ordered>;
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
    const before = this.known.get(jobId);
    const isKnown = before?.plan === plan && isSameList(before.open, open, isSame);
    const { ordered, calls } = isKnown ? before : this.anew(jobId, plan, open, before);
    const { order, cost } = await ordered;
    const devices = new Set(calls.map(({ deviceId }) => deviceId));
    return { order, cost, carried: carriedFor(plan, devices) };
  }

  private anew(
    jobId: string,
    plan: Plan,
    open: readonly string[],
    before: Known | undefined,
  ): Known {
    const calls = roundCalls(plan, new Set(open));
    // Most changes of a plan change nothing of how it is walked.
    const isWalkedSo = before !== undefined && isSameList(before.calls, calls, isSameCall);
    const ordered = isWalkedSo ? before.ordered : this.inTurn(jobId, calls, before);
    const known = { plan, open, calls, ordered };
    this.known.set(jobId, known);
    // What went wrong is tried again by whoever asks next.
    ordered.catch(() => {
      if (this.known.get(jobId)?.ordered === ordered) this.known.delete(jobId);
    });
    return known;
  }

  /** Of one job one at a time: where it changes quicker than it can be ordered, what is older is left out. */
  private async inTurn(
    jobId: string,
    calls: readonly RoundCall[],
    before: Known | undefined,
  ): Promise<Ordered> {
    await before?.ordered.catch(() => undefined);
    const now = this.known.get(jobId);
    return now && now.calls !== calls && !isSameList(now.calls, calls, isSameCall)
      ? now.ordered
      : this.thinking.order(calls);
  }
}

const openIn = (plan: Plan, book: SeenBook): readonly string[] =>
  interfacesOf(plan)
    .filter(({ at }) => STAGES.indexOf(book.of(at.id).stage) < PINNED)
    .map(({ at }) => at.id);

const isSame = <T>(a: T, b: T): boolean => a === b;

const isSameList = <T>(
  a: readonly T[],
  b: readonly T[],
  isSameOne: (a: T, b: T) => boolean,
): boolean => a.length === b.length && a.every((one, index) => isSameOne(one, b[index] as T));

const isSameCall = (a: RoundCall, b: RoundCall): boolean =>
  a.id === b.id &&
  a.deviceId === b.deviceId &&
  a.area === b.area &&
  a.cabinet === b.cabinet &&
  a.laptop === b.laptop &&
  a.factory === b.factory &&
  a.behind.size === b.behind.size &&
  [...a.behind].every((one) => b.behind.has(one));
