import type { Query, QueryClient, QueryKey } from '@tanstack/react-query';
import type { JobNews, ProgressView } from '@ipsonomo/core/api';
import { watchOf } from './clashes';
import { keys } from '@ipsonomo/contract';
import { planAfter } from './plan-now';
import type { PlanNow } from './plan-state';

/** The plan moves on by what was told of it; what is not told, or does not follow on it, is read again. */
export function takeJobNews(client: QueryClient, rereader: Rereader, news: JobNews): void {
  const { jobId, revision, made } = news;
  const known = client.getQueryData<PlanNow>(keys.plan(jobId));
  if (made && revision !== null) {
    watchOf(jobId).noteRead([{ number: revision, ...made }]);
    const next =
      known?.revision === revision - 1
        ? planAfter(known, { revision, edits: made.edits })
        : undefined;
    if (next) client.setQueryData<PlanNow>(keys.plan(jobId), next);
  }
  rereader.ofJob(news);
}

type IsOld = (query: Pick<Query, 'queryKey'>) => boolean;

const PAUSE = 30;

/**
 * Reads again what has changed. What is being read at that moment was begun before the news and may
 * miss it, so its end is awaited first; news that come meanwhile are covered by the same reading.
 */
export class Rereader {
  private readonly waiting = new Set<string>();

  /** By job, what was told since it was read last. */
  private readonly told = new Map<string, JobNews[]>();

  constructor(private readonly client: QueryClient) {}

  /** @param olds asked when it comes to it: which of them are old by then; all, where nothing is said */
  async again(queryKey: QueryKey, olds: () => IsOld = () => () => true): Promise<void> {
    const name = JSON.stringify(queryKey);
    if (this.waiting.has(name)) return;
    this.waiting.add(name);
    while (this.client.isFetching({ queryKey }) > 0)
      await new Promise((resolve) => setTimeout(resolve, PAUSE));
    this.waiting.delete(name);
    await this.client.invalidateQueries({ queryKey, predicate: olds() });
  }

  /** All of a job but what is known to be as new as the news. */
  ofJob(news: JobNews): void {
    const { jobId } = news;
    this.told.set(jobId, [...(this.told.get(jobId) ?? []), news]);
    void this.again(keys.job(jobId), () => {
      const due = this.told.get(jobId) ?? [];
      this.told.delete(jobId);
      return ({ queryKey }) => {
        const [, , what] = queryKey;
        if (what === 'plan') return due.some((one) => !this.hasPlan(one));
        return what !== 'progress' || due.some((one) => !this.hasSeen(one));
      };
    });
  }

  private hasPlan({ jobId, revision, made }: JobNews): boolean {
    if (revision === null) return true;
    const known = this.client.getQueryData<PlanNow>(keys.plan(jobId));
    return made !== null && known !== undefined && known.revision >= revision;
  }

  private hasSeen({ jobId, mark }: JobNews): boolean {
    const known = this.client.getQueryData<ProgressView>(keys.progress(jobId));
    return mark !== null && known?.mark === mark;
  }
}
