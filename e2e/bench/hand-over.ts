import {
  docFromView,
  AT_ONCE,
  type FormatId,
  type PackageView,
  type PlanView,
  WHOLE_JOB,
} from '@ipsonomo/core/api';
import { planOf } from '@ipsonomo/core/plan';
import { updateOfList, SHEET_COLUMNS, columnOf, rowsOf } from '@ipsonomo/core/sheet';
import { bigJob } from '../crowd';
import { api, startServer, type TestServer } from '../harness';
import { percentile, residentMegabytes, type Figure } from './figures';

// What leaves, for 2,000 devices: how long, how much memory, and whether anybody else is kept waiting meanwhile.

const DEVICES = 2000;

interface Made {
  readonly seconds: number;
  readonly answers: readonly number[];
  readonly megabytes: number;
  readonly path: string;
}

/** Writes a package, and asks for the plan's progress all the while as a page would. */
async function make(server: TestServer, job: string, formats: readonly FormatId[]): Promise<Made> {
  const begun = performance.now();
  const { id } = await api<{ id: string }>(server, 'POST', `/jobs/${job}/packages`, {
    ...{ formats, scope: WHOLE_JOB, despite: true },
  });
  const path = `/jobs/${job}/packages/${id}`;
  const answers: number[] = [];
  const timed = async <T>(ask: () => Promise<T>): Promise<T> => {
    const asked = performance.now();
    const answer = await ask();
    answers.push(performance.now() - asked);
    return answer;
  };
  let megabytes = 0;
  for (;;) {
    const view = await timed(() => api<PackageView>(server, 'GET', path));
    await timed(() => api(server, 'GET', `/jobs/${job}/progress?since=none`));
    megabytes = Math.max(megabytes, residentMegabytes(server.pid()));
    if (view.state === 'failed') throw new Error(JSON.stringify(view.issue));
    if (view.state === 'ready') break;
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
  return { seconds: (performance.now() - begun) / 1000, answers, megabytes, path };
}

export async function handOverFigures(): Promise<readonly Figure[]> {
  const server = await startServer('bench_handover', { demo: false });
  try {
    const job = await bigJob(server, DEVICES);
    const all = await make(server, job, AT_ONCE);
    const record = await make(server, job, ['proof-json']);
    const view = await api<PlanView>(server, 'GET', `/jobs/${job}/plan`);
    const doc = docFromView(view);
    const plan = planOf(doc);
    const lines = rowsOf(plan).map((row) =>
      Object.fromEntries(SHEET_COLUMNS.map(({ id }) => [id, columnOf(id).text(row, plan)])),
    );
    const five = Array.from({ length: 5000 }, (_, at) => lines[at % lines.length] ?? {});
    const updating = performance.now();
    updateOfList(plan, doc, five);
    const updated = (performance.now() - updating) / 1000;
    return [
      seconds(
        `everything of ${DEVICES} devices as one ZIP (${AT_ONCE.length} formats)`,
        all.seconds,
        10,
      ),
      {
        ...{ what: 'the server meanwhile, MB', ours: all.megabytes.toFixed(0), reference: '' },
        ...{ wanted: '≤ 400 MB', isReached: all.megabytes <= 400 },
      },
      {
        ...{
          what: 'answers meanwhile, p95',
          ours: `${percentile(all.answers, 0.95).toFixed(0)} ms`,
        },
        ...{ reference: '', wanted: '≤ 100 ms', isReached: percentile(all.answers, 0.95) <= 100 },
      },
      seconds(`a proof of ${DEVICES} devices, made`, record.seconds, 10),
      seconds('a list of 5,000 lines brought up to date, to its preview', updated, 3),
    ];
  } finally {
    await server.stop();
  }
}

const seconds = (what: string, took: number, most: number): Figure => ({
  ...{ what, ours: `${took.toFixed(1)} s`, reference: '', wanted: `≤ ${most} s` },
  isReached: took <= most,
});
