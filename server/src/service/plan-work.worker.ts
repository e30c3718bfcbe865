import { workerData } from 'node:worker_threads';
import { answerInTurn } from '../common/asked-thread';
import { openDatabase, type Database } from '../store/database';
import { Store } from '../store/store';
import { PlanAnswers, type PlanAnswer, type PlanQuestion } from './plan-answers';

// Works on whole plans, one question after the other, beside the thread that answers.

const answers = new PlanAnswers(new Store(openDatabase(workerData as Database)));

const transferOf = (made: PlanAnswer): readonly ArrayBuffer[] =>
  'file' in made ? [made.file.bytes.buffer as ArrayBuffer] : [];

answerInTurn((question: PlanQuestion) => answers.to(question), transferOf);
