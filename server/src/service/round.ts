import { randomUUID } from 'node:crypto';
import type { RoundView } from '@ipsonomo/core/api';
import { interfacesOf, STAGES, type Plan } from '@ipsonomo/core/plan';
import { roundCalls, type RoundCall } from '@ipsonomo/core/round';
import { LRUCache } from 'lru-cache';
import { MOST_KEPT } from '../common/most-kept';
import type { PlanReader } from './read-plan';
import type { SeenBook } from './seen-book';
import type { Thinking } from './thinking';

/** Everything whose address does not stay yet has a call. */
const PINNED = STAGES.indexOf('pinned');

interface Known {
  readonly plan: Plan;
  /** What was seen, when it was made. */
  readonly seen: string;
  readonly calls: readonly RoundCall[];
  readonly view: Promise<RoundView>;
}

/** The best order of the calls that are left. It is planned anew where the plan or what is left has changed. */
export class Rounds {
  private readonly era = randomUUID().slice(0, 8);
  private readonly known = new LRUCache<string, Known>({ max: MOST_KEPT });
  private count = 0;

  constructor(
    private readonly reader: PlanReader,
    private readonly thinking: Thinking,
  ) {}

  /** @param mark of the round that the caller has; where that is still the one, no more than it is told */
  async of(jobId: string, mark?: string): Promise<RoundView | Pick<RoundView, 'mark'>> {
    const view = await this.now(jobId);
    return view.mark === mark ? { mark } : view;
  }

  /** The interfaces whose calls are left, in the best order. */
  async orderOf(jobId: string): Promise<readonly string[]> {
    return (await this.now(jobId)).order;
  }

  private async now(jobId: string): Promise<RoundView> {
    const { plan, book } = await this.reader.now(jobId);
    const before = this.known.get(jobId);
    const isKnown = before?.plan === plan && before.seen === book.mark;
    return (isKnown ? before : this.anew(jobId, plan, book, before)).view;
  }

  private anew(jobId: string, plan: Plan, book: SeenBook, before: Known | undefined): Known {
    const calls = roundCalls(plan, new Set(openIn(plan, book)));
    // Most changes of a plan change nothing of how it is walked.
    const isWalkedSo = before !== undefined && isSameList(before.calls, calls, isSameCall);
    const view = isWalkedSo ? before.view : this.inTurn(jobId, calls, before);
    const known = { plan, seen: book.mark, calls, view };
    this.known.set(jobId, known);
    // What went wrong is tried again by whoever asks next.
    view.catch(() => {
      if (this.known.get(jobId)?.view === view) this.known.delete(jobId);
    });
    return known;
  }

  /** Of one job one at a time: where it changes quicker than it can be ordered, what is older is left out. */
  private async inTurn(
    jobId: string,
    calls: readonly RoundCall[],
    before: Known | undefined,
  ): Promise<RoundView> {
    await before?.view.catch(() => undefined);
    const now = this.known.get(jobId);
    if (now && !isSameList(now.calls, calls, isSameCall)) return now.view;
    const ordered = await this.thinking.order(calls);
    this.count += 1;
    return { ...ordered, mark: `${this.era}-${this.count}` };
  }
}

const openIn = (plan: Plan, book: SeenBook): readonly string[] =>
  interfacesOf(plan)
    .filter(({ at }) => STAGES.indexOf(book.of(at.id).stage) < PINNED)
    .map(({ at }) => at.id);

const isSameList = <T>(
  a: readonly T[],
  b: readonly T[],
  isSameOne: (a: T, b: T) => boolean,
): boolean => a.length === b.length && a.every((one, index) => isSameOne(one, b[index] as T));

const isSameCall = (a: RoundCall, b: RoundCall): boolean =>
  a === b ||
  (a.id === b.id &&
    a.deviceId === b.deviceId &&
    a.area === b.area &&
    a.cabinet === b.cabinet &&
    a.laptop === b.laptop &&
    a.factory === b.factory &&
    (a.behind === b.behind || isSameSet(a.behind, b.behind)));

const isSameSet = (a: ReadonlySet<string>, b: ReadonlySet<string>): boolean =>
  a.size === b.size && [...a].every((one) => b.has(one));
