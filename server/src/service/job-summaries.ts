import type { JobSummary } from '@ipsonomo/core';
import { Turns } from '../common/turns';
import type { JobHead, Store } from '../store/store';
import type { PlanReader } from './read-plan';

/**
 * The list of jobs with what is left in each. A summary is kept beside what it was made from: the revision, the last piece
 * of evidence and the last hand-over. Where one of them is newer it is made anew, one job after the other.
 */
export class JobSummaries {
  private readonly turns = new Turns();

  /** @param madeBy this program: another one may have other rules */
  constructor(
    private readonly store: Store,
    private readonly reader: PlanReader,
    private readonly madeBy: string,
  ) {}

  async list(): Promise<readonly JobSummary[]> {
    const heads = await this.store.jobHeads<JobSummary>(this.madeBy);
    return Promise.all(
      heads.map(({ summary, ...head }) =>
        summary
          ? { ...summary, id: head.id, name: head.name }
          : this.turns.take(() => this.anew(head)),
      ),
    );
  }

  private async anew(head: Omit<JobHead<JobSummary>, 'summary'>): Promise<JobSummary> {
    const { subnets, devices, left, name } = await this.reader.job(head.id);
    const summary = {
      ...{ id: head.id, name, subnets: subnets.length, devices: devices.length, left },
    };
    // What was read is at least as new as its head: kept beside that, it is at worst made anew once more.
    await this.store.keepSummary(head, this.madeBy, summary);
    return summary;
  }
}
