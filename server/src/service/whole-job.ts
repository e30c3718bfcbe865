import { Readable } from 'node:stream';
import archiver, { type Archiver } from 'archiver';
import { writePlanFile } from '@ipsonomo/core/formats';
import { hasCapture, readCapture, removeCapture } from '@ipsonomo/wire';
import { Refusal } from '../store/refusal';
import type { Store } from '../store/store';
import { JOB_TABLES, type JobMark } from '../store/whole-job-store';
import type { Papers } from './papers';

/** What a job is made of, and where its captures lie. */
export interface JobParts {
  readonly store: Store;
  readonly papers: Papers;
  readonly captures: string;
}

interface WholeFile {
  readonly name: string;
  readonly pieces: AsyncIterable<Uint8Array>;
}

/**
 * R-WHOLE-JOB: everything of a job in one file: its plan with its papers, every revision, every piece of evidence with
 * what seals it, its runs, proofs and hand-overs as lines of JSON, and the captures. Once it was read to its end, that is
 * kept: only then, and as long as nothing changes, the job may go for good.
 * @param counts whether whoever reads it may answer for it: a copy that somebody else has saves nobody's job
 */
export async function wholeJob(
  parts: JobParts,
  jobId: string,
  counts: boolean,
): Promise<WholeFile> {
  const { store } = parts;
  const [{ name }, mark] = await Promise.all([store.job(jobId), store.whole.mark(jobId)]);
  return {
    name: `${name} everything.zip`,
    pieces: pieces(parts, jobId, counts ? mark : undefined),
  };
}

async function* pieces(parts: JobParts, jobId: string, mark?: JobMark): AsyncGenerator<Uint8Array> {
  const zip = archiver('zip', { zlib: { level: 6 } });
  try {
    // What goes wrong while it is filled ends it, so that whoever reads is told.
    fill(zip, parts, jobId).catch((error: Error) => zip.destroy(error));
    for await (const piece of zip) yield piece as Uint8Array;
  } finally {
    zip.destroy();
  }
  if (mark) await parts.store.whole.written(jobId, mark);
}

async function fill(zip: Archiver, parts: JobParts, jobId: string): Promise<void> {
  const { store, papers, captures } = parts;
  const [{ name }, { doc }] = await Promise.all([store.job(jobId), store.planState(jobId)]);
  const plan = writePlanFile({ name, doc, papers: await papers.forFile(jobId) });
  zip.append(plan, { name: 'plan.json' });
  for (const table of JOB_TABLES)
    zip.append(Readable.from(lines(store.whole.rows(jobId, table))), {
      name: `${table[0]}.jsonl`,
    });
  for (const { id } of await store.runs(jobId))
    if (hasCapture(captures, id))
      zip.append(Readable.from(readCapture(captures, id)), { name: `captures/${id}.pcap` });
  await zip.finalize();
}

async function* lines(rows: AsyncIterable<string>): AsyncGenerator<string> {
  for await (const row of rows) yield `${row}\n`;
}

/**
 * Takes a job away for good.
 * @param name as somebody typed it, who means this job and no other
 * @param endWire asked once it goes, and not before
 * @returns refuses with `job.otherName`, `job.notArchived`, `job.notWritten`
 */
export async function deleteJob(
  { store, captures }: Pick<JobParts, 'store' | 'captures'>,
  jobId: string,
  name: string,
  endWire: () => Promise<void>,
): Promise<void> {
  const job = await store.job(jobId);
  if (job.name !== name.trim()) throw Refusal.of('job.otherName', job.name);
  if (!(await store.isArchived(jobId))) throw Refusal.of('job.notArchived', job.name);
  if (!(await store.whole.isWritten(jobId))) throw Refusal.of('job.notWritten', job.name);
  const runs = await store.runs(jobId);
  await endWire();
  await store.whole.delete(jobId);
  for (const { id } of runs) removeCapture(captures, id);
}
