import { workerData } from 'node:worker_threads';
import type { JobCounts } from '@ipsonomo/core';
import { answerInTurn } from '../common/asked-thread';
import { openDatabase, type Database } from '../store/database';
import { Refusal } from '../store/refusal';
import { Store } from '../store/store';
import { PlanChanger } from './change-plan';
import { addressList, dhcpReservations } from './hand-over';
import { Papers } from './papers';
import { jobFromFile, planFile } from './plan-files';
import type { FileQuestion, PlanAnswer, PlanQuestion } from './plan-work';
import { PlanReader } from './read-plan';

// Works on whole plans, one question after the other, beside the thread that answers.

const { url, schema } = workerData as Database;
const store = new Store(openDatabase(url, schema));
const reader = new PlanReader(store);
const papers = new Papers(store, Date.now);
// Nobody listens for a job that is only being made.
const unheard = { changed: () => Promise.resolve(), otherwise: () => undefined };
const changer = new PlanChanger(store, Date.now, unheard);

function textOf(question: FileQuestion) {
  switch (question.kind) {
    case 'addresses':
      return addressList(store, question.jobId);
    case 'dhcp':
      return dhcpReservations(store, question.jobId);
    case 'plan':
      return planFile(store, papers, question.jobId, question.withPapers);
  }
}

/** A plan file is UTF-8, as JSON is (RFC 8259 §8.1). */
function textOfFile(bytes: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw Refusal.of('file.json', 'The file', { why: 'it has bytes that are no UTF-8' });
  }
}

async function countsOf(jobId: string): Promise<JobCounts> {
  const { subnets, devices, left } = await reader.job(jobId);
  return { subnets: subnets.length, devices: devices.length, left };
}

async function answer(question: PlanQuestion): Promise<PlanAnswer> {
  if (question.kind === 'job-from-plan')
    return {
      jobId: await jobFromFile(changer, papers, textOfFile(question.bytes), question.person),
    };
  if (question.kind === 'counts') return { counts: await countsOf(question.jobId) };
  const { name, text } = await textOf(question);
  // A copy of its own: what is handed over may not be a part of a pool of buffers.
  return { file: { name, bytes: new Uint8Array(Buffer.from(text)) } };
}

const transferOf = (made: PlanAnswer): readonly ArrayBuffer[] =>
  'file' in made ? [made.file.bytes.buffer as ArrayBuffer] : [];

answerInTurn(answer, transferOf);
