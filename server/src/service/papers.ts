import type { StoredPaper } from '@ipsonomo/core/api';
import type { PlanPapers } from '@ipsonomo/core/formats';
import { MOST_PAPER, planOf } from '@ipsonomo/core/plan';
import { Refusal } from '../store/refusal';
import type { Store } from '../store/store';
import { sha256Of } from '../common/sha256';

const MEGA = 1_000_000;
/** All papers of a job together, so that its plan file can be read again. */
const MOST_TOGETHER = 100 * MEGA;
const KEPT_DAYS = 30;
const DAY = 24 * 3600 * 1000;

/** The papers of kinds: what they hold, by the SHA-256 of their bytes. */
export class Papers {
  constructor(
    private readonly store: Store,
    private readonly clock: () => number,
  ) {}

  /** Keeps what a paper holds. A kind of the plan is to name it; one that none names goes in time. */
  async add(jobId: string, name: string, bytes: Buffer): Promise<StoredPaper> {
    await this.store.job(jobId);
    if (bytes.length === 0) throw Refusal.of('paper.empty', name);
    if (bytes.length > MOST_PAPER)
      throw Refusal.of('paper.large', name, { most: MOST_PAPER / MEGA });
    const old = new Date(this.clock() - KEPT_DAYS * DAY);
    await this.store.dropPapers(jobId, await this.named(jobId), old);
    const id = sha256Of(bytes);
    const sizes = await this.store.paperSizes(jobId);
    const together = [...sizes.values()].reduce((sum, size) => sum + size, 0);
    if (!sizes.has(id) && together + bytes.length > MOST_TOGETHER)
      throw Refusal.of('paper.full', name, { most: MOST_TOGETHER / MEGA });
    await this.store.addPaper(jobId, id, bytes);
    return { id, bytes: bytes.length };
  }

  async read(jobId: string, id: string): Promise<Buffer> {
    const bytes = await this.store.paper(jobId, id);
    if (!bytes) throw Refusal.of('paper.missing', id);
    return bytes;
  }

  /** What the plan's papers hold, for its file. */
  forFile(jobId: string): Promise<PlanPapers> {
    return this.store.papersOfPlan(jobId);
  }

  async takeFromFile(jobId: string, papers: ReadonlyMap<string, Buffer>): Promise<void> {
    for (const [id, bytes] of papers) await this.store.addPaper(jobId, id, bytes);
  }

  private async named(jobId: string): Promise<readonly string[]> {
    const { kinds } = planOf((await this.store.planState(jobId)).doc);
    return [...new Set(kinds.flatMap((kind) => kind.papers.map((paper) => paper.id)))];
  }
}

/** What a plan file's papers hold. Throws `paper.changed` where one is not what its SHA-256 says. */
export function papersOf(papers: PlanPapers): ReadonlyMap<string, Buffer> {
  const read = [...papers].map(([id, text]) => [id, Buffer.from(text, 'base64')] as const);
  const changed = read.filter(([id, bytes]) => sha256Of(bytes) !== id);
  if (changed.length > 0)
    throw new Refusal(changed.map(([id]) => ({ code: 'paper.changed', where: id })));
  return new Map(read);
}

/** The content type by what a paper begins with; what a browser would run is none of them. */
export function mediaTypeOf(bytes: Buffer): string {
  const head = bytes.subarray(0, 8).toString('latin1');
  if (head.startsWith('%PDF-')) return 'application/pdf';
  if (head.startsWith('\u0089PNG')) return 'image/png';
  if (head.startsWith('\u00ff\u00d8\u00ff')) return 'image/jpeg';
  return 'application/octet-stream';
}
