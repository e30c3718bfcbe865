import { workerData } from 'node:worker_threads';
import { answerInTurn } from '../common/asked-thread';
import { openDatabase, type Database } from '../store/database';
import { Store } from '../store/store';
import { PlanChanger } from './change-plan';
import type { FileAnswer, FileQuestion, OutFile } from './files';
import { addressList, dhcpReservations } from './hand-over';
import { Papers } from './papers';
import { jobFromFile, planFile } from './plan-files';

// Writes and reads whole plans, one after the other, beside the thread that answers.

const { url, schema } = workerData as Database;
const store = new Store(openDatabase(url, schema));
const papers = new Papers(store, Date.now);
// Nobody listens for a job that is only being made.
const unheard = { changed: () => Promise.resolve(), otherwise: () => undefined };
const changer = new PlanChanger(store, Date.now, unheard);

function textOf(question: Exclude<FileQuestion, { kind: 'job-from-plan' }>) {
  switch (question.kind) {
    case 'addresses':
      return addressList(store, question.jobId);
    case 'dhcp':
      return dhcpReservations(store, question.jobId);
    case 'plan':
      return planFile(store, papers, question.jobId, question.withPapers);
  }
}

async function answer(question: FileQuestion): Promise<FileAnswer> {
  if (question.kind === 'job-from-plan')
    return { jobId: await jobFromFile(changer, papers, question.text, question.person) };
  const { name, text } = await textOf(question);
  // A copy of its own: what is handed over may not be a part of a pool of buffers.
  return { name, bytes: new Uint8Array(Buffer.from(text)) };
}

answerInTurn(answer, (made) =>
  'bytes' in made ? [(made as OutFile).bytes.buffer as ArrayBuffer] : [],
);
