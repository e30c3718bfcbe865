import { request, type ClientRequest } from 'node:http';
import {
  docFromView,
  type EditsView,
  type JobNews,
  type PlanView,
  type ProgressView,
  type RoundView,
} from '@ipsonomo/core/api';
import { writePlanFile } from '@ipsonomo/core/formats';
import { docOfPlan, type Edit } from '@ipsonomo/core/plan';
import { siteOf } from '../core/test/snags/big-site';
import { api, CallRefused, type TestServer } from './harness';

// Many people in one job: each hears what changed, as its page does, and reads what it was not told.

export interface Crowd {
  readonly people: number;
  readonly seconds: number;
  /** Between two edits of one person. */
  readonly everyMillis: number;
}

export interface CrowdFigures {
  readonly sent: number;
  readonly taken: number;
  /** Refused because somebody else had changed the same. */
  readonly clashes: number;
  /** Everything else that was not answered as it should be. */
  readonly failed: readonly string[];
  /** Milliseconds of the edits, and of an answer that needs nothing meanwhile. */
  readonly edits: readonly number[];
  readonly answers: readonly number[];
  /** How many questions the pages asked. */
  readonly asked: number;
  /** The last revision, as the server has it and as each page heard of it. */
  readonly revision: number;
  readonly heard: readonly number[];
}

export async function bigJob(server: TestServer, devices: number): Promise<string> {
  const text = writePlanFile({ name: `Plant of ${devices}`, doc: docOfPlan(siteOf(devices, 79)) });
  const { id } = await api<{ id: string }>(server, 'POST', '/jobs/from-file', Buffer.from(text));
  return id;
}

const pause = (millis: number) => new Promise((resolve) => setTimeout(resolve, millis));

/** One page that follows a job. */
class Follower {
  revision = 0;
  mark = '';
  asked = 0;
  private round = '';
  private isReading = false;
  private readonly waiting: JobNews[] = [];
  private stream: ClientRequest | undefined;

  constructor(
    private readonly server: TestServer,
    private readonly jobId: string,
    private readonly readsRound: boolean,
    private readonly failed: string[],
  ) {}

  async open(): Promise<void> {
    this.revision = (await this.ask<PlanView>('/plan')).revision;
    this.mark = (await this.ask<ProgressView>('/progress')).mark;
    const { socketPath } = this.server;
    this.stream = request({ socketPath, agent: false, path: '/api/events' }, (answer) => {
      let text = '';
      answer.setEncoding('utf8');
      answer.on('data', (part: string) => {
        text += part;
        const events = text.split('\n\n');
        text = events.pop() ?? '';
        for (const event of events) this.hear(event);
      });
      answer.on('error', () => undefined);
    });
    this.stream.on('error', () => undefined);
    this.stream.end();
  }

  close(): void {
    this.stream?.destroy();
  }

  private hear(event: string): void {
    if (!/^event: job$/m.test(event)) return;
    const news = JSON.parse(/^data: (.*)$/m.exec(event)?.[1] ?? '{}') as JobNews;
    if (news.jobId !== this.jobId) return;
    if (news.made && news.revision === this.revision + 1) this.revision = news.revision;
    this.waiting.push(news);
    void this.read();
  }

  /** What was heard meanwhile is covered by the next reading. */
  private async read(): Promise<void> {
    if (this.isReading) return;
    this.isReading = true;
    while (this.waiting.length > 0) {
      const due = this.waiting.splice(0);
      if (due.some(({ revision }) => (revision ?? 0) > this.revision)) {
        const { revision } = await this.ask<EditsView>(`/edits?since=${this.revision}`);
        this.revision = Math.max(this.revision, revision);
      }
      if (due.some(({ mark }) => mark === null || mark !== this.mark))
        this.mark = (await this.ask<ProgressView>(`/progress?since=${this.mark}`)).mark;
      if (this.readsRound)
        this.round = (await this.ask<RoundView>(`/round?since=${this.round}`)).mark;
    }
    this.isReading = false;
  }

  private async ask<T>(path: string): Promise<T> {
    this.asked += 1;
    return api<T>(this.server, 'GET', `/jobs/${this.jobId}${path}`).catch((error: Error) => {
      this.failed.push(error.message.slice(0, 200));
      return { revision: this.revision, mark: this.mark } as T;
    });
  }
}

export async function crowdIn(
  servers: readonly [TestServer, ...TestServer[]],
  jobId: string,
  { people, seconds, everyMillis }: Crowd,
): Promise<CrowdFigures> {
  const failed: string[] = [];
  const [server] = servers;
  /** Each person has one of them. */
  const serverOf = (person: number): TestServer => servers[person % servers.length] ?? server;
  const pages = Array.from(
    { length: people },
    (_, at) => new Follower(serverOf(at), jobId, at % 5 === 0, failed),
  );
  await Promise.all(pages.map((page) => page.open()));
  const { device } = docFromView(await api<PlanView>(server, 'GET', `/jobs/${jobId}/plan`));
  const titles = new Map([...device.values()].map(({ id, title }) => [id, String(title)]));
  const ids = [...titles.keys()];
  const end = Date.now() + seconds * 1000;
  const figures = { sent: 0, taken: 0, clashes: 0 };
  const edits: number[] = [];
  const answers: number[] = [];
  const edit = async (person: number) => {
    const id = ids[(person * 7919 + figures.sent * 104_729) % ids.length] ?? '';
    const to = `${id} by ${person} at ${figures.sent}`;
    const from = titles.get(id) ?? '';
    const wanted: Edit = { op: 'set', type: 'device', id, field: 'title', from, to };
    figures.sent += 1;
    const begun = performance.now();
    try {
      const body = { edits: [wanted], why: 'renamed' };
      await api(serverOf(person), 'POST', `/jobs/${jobId}/edits`, body);
      edits.push(performance.now() - begun);
      titles.set(id, to);
      figures.taken += 1;
    } catch (error) {
      if (error instanceof CallRefused && error.message.includes('edit.conflict'))
        figures.clashes += 1;
      else failed.push(String(error).slice(0, 200));
    }
  };
  const editing = pages.map(async (_page, person) => {
    await pause((everyMillis / people) * person);
    while (Date.now() < end) {
      const next = Date.now() + everyMillis;
      await edit(person);
      await pause(Math.max(0, next - Date.now()));
    }
  });
  const answering = (async () => {
    while (Date.now() < end) {
      const begun = performance.now();
      await api(server, 'GET', '/health');
      answers.push(performance.now() - begun);
      await pause(100);
    }
  })();
  await Promise.all([...editing, answering]);
  // What was told last is on its way.
  const { revision } = await api<EditsView>(server, 'GET', `/jobs/${jobId}/edits?since=999999999`);
  for (let wait = 0; wait < 100 && pages.some((page) => page.revision < revision); wait += 1)
    await pause(100);
  for (const page of pages) page.close();
  return {
    ...figures,
    ...{ failed, edits, answers, revision },
    asked: pages.reduce((sum, page) => sum + page.asked, 0),
    heard: pages.map((page) => page.revision),
  };
}
