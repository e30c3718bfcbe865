import type { JobCounts, JobSummary } from '@ipsonomo/core/api';
import type { JobHead, Store } from '../store/store';

/** The list waits so long for what has to be counted anew; the rest comes with a later one. */
const PATIENCE = 1000;
/** Jobs that are counted at once: each is a question that waits in one thread. */
const AT_ONCE = 4;

type Head = JobHead<JobCounts>;

/**
 * The list of jobs with what is left in each. Counts are kept beside what they were made from: the revision, the last piece
 * of evidence and the last hand-over. Where one of them is newer they are made anew, some jobs at a time.
 */
export class JobSummaries {
  /** Jobs that are being counted, and those that wait for it. */
  private readonly making = new Map<string, Promise<void>>();
  private readonly made = new Map<string, { readonly of: string; readonly counts: JobCounts }>();
  private readonly waiting: (() => void)[] = [];
  private underWay = 0;

  /** @param madeBy this program: another one may have other rules */
  constructor(
    private readonly store: Pick<Store, 'jobHeads' | 'keepSummary'>,
    private readonly count: (jobId: string) => Promise<JobCounts>,
    private readonly madeBy: string,
    private readonly patience = PATIENCE,
  ) {}

  async list(): Promise<readonly JobSummary[]> {
    const heads = await this.store.jobHeads<JobCounts>(this.madeBy);
    const missing = heads.filter((head) => this.known(head) === null);
    if (missing.length > 0) {
      let timer: NodeJS.Timeout | undefined;
      const tired = new Promise<void>((resolve) => (timer = setTimeout(resolve, this.patience)));
      await Promise.race([tired, Promise.all(missing.map((head) => this.make(head)))]);
      clearTimeout(timer);
    }
    return heads.map((head) => {
      const { id, name, rehearses, archived, hasPracticeSite } = head;
      return { id, name, rehearses, archived, hasPracticeSite, counts: this.known(head) };
    });
  }

  private known(head: Head): JobCounts | null {
    const made = this.made.get(head.id);
    return head.summary ?? (made?.of === stateOf(head) ? made.counts : null);
  }

  private make(head: Head): Promise<void> {
    const going = this.making.get(head.id);
    if (going) return going;
    const one = this.anew(head).finally(() => this.making.delete(head.id));
    this.making.set(head.id, one);
    // Who asked may have gone; whoever asks next is told what went wrong.
    one.catch(() => undefined);
    return one;
  }

  private async anew(head: Head): Promise<void> {
    if (this.underWay >= AT_ONCE) await new Promise<void>((resolve) => this.waiting.push(resolve));
    this.underWay += 1;
    try {
      const counts = await this.count(head.id);
      // What was read is at least as new as its head: kept beside that, it is at worst made anew once more.
      await this.store.keepSummary(head, this.madeBy, counts);
      this.made.set(head.id, { of: stateOf(head), counts });
    } finally {
      this.underWay -= 1;
      this.waiting.shift()?.();
    }
  }
}

const stateOf = ({ revision, place, handedOver }: Head): string =>
  [revision, place, handedOver].join(' ');
