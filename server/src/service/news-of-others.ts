import type { News, NewsKind } from '../store/news-link';
import type { Store } from '../store/store';
import type { Door } from './door';
import type { JobTeller } from './job-teller';
import type { People } from './people';
import type { Rehearsals } from './rehearsals';
import type { Servers } from './servers';
import type { Wires } from './wires';

interface Here {
  readonly store: Store;
  readonly teller: JobTeller;
  readonly wires: Wires;
  readonly people: People;
  readonly door: Door;
  readonly rehearsals: Rehearsals;
  readonly servers: Servers;
}

/** What other servers wrote, told here as if it had been done here: to pages, and to the wires that must know it. */
export class NewsOfOthers {
  constructor(private readonly here: Here) {}

  /** Several of one job are told once. */
  async take(news: readonly News[]): Promise<void> {
    const { teller, rehearsals, servers } = this.here;
    const jobs = (...kinds: readonly NewsKind[]) => jobsOf(news, kinds);
    for (const one of news) {
      if (one.kind === 'silence') await servers.askedToBeSilent(one);
      if (one.kind === 'silenced') servers.heardSilent(one);
    }
    if (news.some(({ kind }) => kind === 'people')) await this.readPeople();
    if (news.some(({ kind }) => kind === 'servers')) await servers.changed();
    for (const job of jobs('rehearsal')) rehearsals.begun(job);
    for (const job of jobs('job', 'gone')) await this.endWireOf(job);
    for (const job of jobs('revision')) await this.planChanged(job, news);
    for (const job of jobs('evidence')) teller.changed(job);
    for (const job of jobs('job', 'gone', 'rehearsal')) teller.otherwise(job);
  }

  /** What was told meanwhile is not known: everything that is kept here is read anew. */
  async missed(): Promise<void> {
    const { store, teller, wires, servers } = this.here;
    await this.readPeople();
    await servers.changed();
    for (const { id } of await store.jobs()) {
      await wires.planChanged(id);
      teller.changed(id);
    }
  }

  /** A job that was put away, or is gone, has no wire. */
  private async endWireOf(jobId: string): Promise<void> {
    const wire = this.here.wires.open.find((one) => one.jobId === jobId);
    if (!wire) return;
    const stands = await this.here.store.jobStands(jobId);
    if (!stands) await wire.end();
  }

  private async readPeople(): Promise<void> {
    await this.here.people.open();
    await this.here.door.read();
  }

  /** The wire first: what it answers has to be what is planned. */
  private async planChanged(jobId: string, news: readonly News[]): Promise<void> {
    const { store, teller, wires } = this.here;
    await wires.planChanged(jobId);
    const numbers = news
      .filter((one) => one.kind === 'revision' && one.jobId === jobId)
      .map(({ body }) => Number(body['number']));
    for (const row of await store.editsSince(jobId, Math.min(...numbers) - 1)) {
      const { number: revision, edits, person } = row;
      if (numbers.includes(revision)) teller.changed(jobId, { revision, edits, person });
    }
  }
}

const jobsOf = (news: readonly News[], kinds: readonly NewsKind[]): ReadonlySet<string> =>
  new Set(news.flatMap(({ kind, jobId }) => (kinds.includes(kind) && jobId ? [jobId] : [])));
