import { FALL_WORDS } from '@ipsonomo/language/kept';
import type { DescriptionView } from '@ipsonomo/core/api';
import { openWorker } from '@ipsonomo/threads';
import { READING_MEMORY, type Readings } from '../common/readings';
import { Refusal } from '../store/refusal';
import type { DescriptionFile, DescriptionRead } from './protocol';

const PROGRAM = {
  bundle: 'describe.worker.js',
  source: 'server/src/descriptions/describe.worker.ts',
};
const PATIENCE = 60_000;

/** Reads description files in their turn. Throws the refusal of a file that describes nothing. */
export const describeIn =
  (readings: Readings) =>
  (file: DescriptionFile): Promise<DescriptionView> =>
    readings.take(() => readInThread(file)).done;

async function readInThread(file: DescriptionFile): Promise<DescriptionView> {
  const worker = openWorker(PROGRAM, file, { resourceLimits: READING_MEMORY });
  const read = await new Promise<DescriptionRead>((resolve) => {
    const fell = (why: string) =>
      resolve({ ok: false, error: { code: 'file.fell', where: file.name, facts: { why } } });
    const timer = setTimeout(
      () => fell(FALL_WORDS.notWithin({ seconds: PATIENCE / 1000 })),
      PATIENCE,
    );
    worker.once('message', (news: DescriptionRead) => resolve(news));
    worker.once('error', (error) => fell(error.message));
    worker.once('exit', () => clearTimeout(timer));
  }).finally(() => void worker.terminate());
  if (!read.ok) throw new Refusal([read.error]);
  return read.value;
}
