import type { DescriptionView } from '@ipsonomo/core';
import { openWorker } from '../common/open-worker';
import { Turns } from '../common/turns';
import { Refusal } from '../store/refusal';
import type { DescriptionFile, DescriptionRead } from './protocol';

const PROGRAM = { bundle: 'describe.worker.js', source: 'descriptions/describe.worker.ts' };
const MEMORY = { maxOldGenerationSizeMb: 768 };
const PATIENCE = 60_000;

/** One at a time: a large file needs some hundred megabytes while it is read. */
const turns = new Turns();

/** Reads a description file in a thread, in its turn. Throws the refusal of a file that describes nothing. */
export const describe = (file: DescriptionFile): Promise<DescriptionView> =>
  turns.take(() => readInThread(file));

async function readInThread(file: DescriptionFile): Promise<DescriptionView> {
  const worker = openWorker(PROGRAM, file, { resourceLimits: MEMORY });
  const read = await new Promise<DescriptionRead>((resolve) => {
    const fell = (why: string) =>
      resolve({ ok: false, error: { code: 'file.fell', where: file.name, facts: { why } } });
    const timer = setTimeout(() => fell(`not read within ${PATIENCE / 1000} s`), PATIENCE);
    worker.once('message', (news: DescriptionRead) => resolve(news));
    worker.once('error', (error) => fell(error.message));
    worker.once('exit', () => clearTimeout(timer));
  }).finally(() => void worker.terminate());
  if (!read.ok) throw new Refusal([read.error]);
  return read.value;
}
