import type { JobNews } from '@ipsonomo/core/api';
import type { Edit } from '@ipsonomo/core/plan';
import { Turns } from '@ipsonomo/threads';
import type { PlanReader } from './read-plan';

/** A revision as it was made. */
export interface Made {
  readonly revision: number;
  readonly edits: readonly Edit[];
  readonly person: string;
}

/** Who is told of what changed. */
export interface Told {
  changed(jobId: string, made?: Made): Promise<void>;
  otherwise(jobId: string, revision?: number): void;
}

/** Edits of an import or a renumbering are read by whoever needs them, and not sent to everybody. */
const MOST_EDITS = 50;
const MOST_TEXT = 20_000;

/**
 * Tells pages what changed in a job, one after the other. A small change goes along: fifty pages that ask for the same
 * three lines again keep a server busy.
 */
export class JobTeller {
  private readonly turns = new Turns();

  constructor(
    private readonly reader: Pick<PlanReader, 'now'>,
    private readonly send: (news: JobNews) => void,
  ) {}

  /** @param made undefined where the plan is as it was */
  changed(jobId: string, made?: Made): void {
    void this.turns.take(async () => {
      this.send({ ...newsOf(jobId, made), mark: await this.markOf(jobId) });
    });
  }

  /** Something of it that no mark stands for. */
  otherwise(jobId: string, revision: number | null = null): void {
    void this.turns.take(() =>
      Promise.resolve(this.send({ jobId, revision, made: null, mark: null })),
    );
  }

  /** Where the database is away a page finds out by asking. */
  private async markOf(jobId: string): Promise<string | null> {
    return this.reader.now(jobId).then(
      ({ book }) => book.mark,
      () => null,
    );
  }
}

function newsOf(jobId: string, made: Made | undefined): Omit<JobNews, 'mark'> {
  if (!made) return { jobId, revision: null, made: null };
  const { revision, edits, person } = made;
  const isShort = edits.length <= MOST_EDITS && JSON.stringify(edits).length <= MOST_TEXT;
  return { jobId, revision, made: isShort ? { person, edits } : null };
}
