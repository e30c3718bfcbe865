import type { AdapterView, FieldView } from '@ipsonomo/core/api';
import type { TellNotice } from '@ipsonomo/core/plan';
import { Turns, type Time } from '@ipsonomo/threads';
import { listAdapters, Notices, type FieldEvent, type FieldStatus } from '@ipsonomo/wire';
import { Refusal } from '../store/refusal';
import type { Store } from '../store/store';
import { JobWire, type Taking } from './job-wire';
import type { Rehearsals } from './rehearsals';
import { WireThreads, type TellNews } from './wire-threads';

/** Each has a thread of its own, and another where its practice site is used. */
const MOST_WIRES = 8;

/** What wires need of the server, and whom they tell. */
export interface WiresOf {
  readonly store: Store;
  readonly time: Time;
  /** Of captures and journals. */
  readonly folder: string;
  readonly log: (line: string) => void;
  readonly practiceFirst: (jobId: string) => boolean;
  readonly rehearsals: Pick<Rehearsals, 'has' | 'planFor'>;
  readonly news: TellNews;
  readonly seen: (events: readonly FieldEvent[]) => void;
  /** How a wire stands, each time it tells. */
  readonly status: (jobId: string, status: FieldStatus) => void;
}

/** The wires of this server: each job has one of its own, and no two have one adapter. */
export class Wires {
  private readonly all = new Map<string, JobWire>();
  /** One adapter after the other, from the question who has it until it is open. */
  private readonly takings = new Turns();
  private readonly beginnings = new Turns();
  /** Of the server, and so of every wire. */
  private readonly notices = new Notices(() => this.open.forEach(({ jobId }) => this.told(jobId)));

  constructor(private readonly of: WiresOf) {}

  /** Those that have threads, the one that was begun last at the end. */
  get open(): readonly JobWire[] {
    return [...this.all.values()].filter(({ isOpen }) => isOpen);
  }

  /** The wire of a job; no thread is begun for it. */
  at(jobId: string): JobWire {
    const known = this.all.get(jobId);
    if (known) return known;
    const wire = new JobWire(jobId, {
      store: this.of.store,
      clock: () => Math.floor(this.of.time.clock.now()), // whole milliseconds, as plans write them
      told: (id) => this.told(id),
      practiceFirst: this.of.practiceFirst,
      isRehearsal: (id) => this.of.rehearsals.has(id),
      take: (one, taking) => this.takings.take(() => this.take(one, taking)),
      begin: (one) => this.beginnings.take(() => this.begin(one)),
    });
    this.all.set(jobId, wire);
    return wire;
  }

  /** Whether the wire of a job has threads. */
  has(jobId: string): boolean {
    return this.all.get(jobId)?.isOpen === true;
  }

  view(jobId: string): FieldView {
    return this.at(jobId).view(this.notices);
  }

  views(): readonly FieldView[] {
    return this.open.map((wire) => wire.view(this.notices));
  }

  /** What a page has to know of them at its beginning. */
  state(): readonly (readonly [string, unknown])[] {
    return [
      ['wires', this.open.map(({ jobId }) => jobId)],
      ...this.open.flatMap((wire): readonly (readonly [string, unknown])[] => [
        ['field', wire.view(this.notices)],
        ['stations', { jobId: wire.jobId, stations: wire.stations() }],
        ['present', { jobId: wire.jobId, present: wire.present() }],
        ['heard', { jobId: wire.jobId, all: true, clients: wire.heard(), forgotten: [] }],
      ]),
    ];
  }

  /** The adapters of this machine, each with the job whose wire it is. */
  async adapters(): Promise<readonly AdapterView[]> {
    const taken = await Promise.all(
      this.open.map(async ({ jobId, adapter }) => {
        const { name } = await this.of.store.job(jobId);
        return [adapter, { id: jobId, name }] as const;
      }),
    );
    const jobs = new Map(taken);
    return listAdapters().map((one) => ({ ...one, job: jobs.get(one.name) ?? null }));
  }

  /** Adapters that are listened on; nothing of the web is served through them. */
  liveAdapters(): readonly string[] {
    return this.open.flatMap(({ adapter }) => adapter ?? []);
  }

  /** Says something to everybody on every wire. */
  readonly notice: TellNotice = (code, facts) => {
    this.notices.add(code, facts, Math.floor(this.of.time.clock.now()));
    for (const { jobId } of this.open) this.told(jobId);
  };

  /** A person has read a notice, of a wire or of the server. */
  async noticeRead(jobId: string, code: string, at: number): Promise<void> {
    this.notices.read(code, at);
    await this.at(jobId).noticeRead(code, at);
  }

  /** A page says that it is still there. */
  here(browser: string | undefined): void {
    for (const wire of this.open) wire.here(browser);
  }

  /** Nothing more is sent on any of them. */
  async silence(): Promise<void> {
    await Promise.all(this.open.map((wire) => wire.silence()));
  }

  /** Plans may be changed where nobody here hears of it: what is begun goes on, nothing new is answered by what may be old. */
  plansOutOfSight(): void {
    for (const wire of this.open) wire.plan.notTold();
  }

  /** They can be read again. */
  async plansInSight(): Promise<void> {
    await Promise.all(this.open.map((wire) => wire.planChanged()));
  }

  planChanged(jobId: string): Promise<void> {
    return this.all.get(jobId)?.planChanged() ?? Promise.resolve();
  }

  async close(): Promise<void> {
    await Promise.all(this.open.map((wire) => wire.end()));
  }

  /** R-TAKE: an adapter is one wire's. Whoever listens on it for another job is asked about first, and told. */
  private async take(wire: JobWire, { adapter, actor, evenSo, open }: Taking): Promise<void> {
    const other = this.open.find((one) => one !== wire && one.adapter === adapter);
    const was = other?.listener;
    if (was && !evenSo) throw Refusal.of('wire.inUse', '', { ...was });
    await other?.giveUp(actor);
    if (was) wire.notice('wire-taken', { by: actor.name, from: was.person, what: was.what });
    await open();
  }

  private async begin(wire: JobWire): Promise<WireThreads> {
    if (this.open.length >= MOST_WIRES) {
      const idle = this.open.find(({ isListening }) => !isListening);
      if (!idle) throw Refusal.of('wire.tooMany', '', { count: MOST_WIRES });
      await idle.end();
    }
    // The one that was begun last stands last: another gives way before it.
    this.all.delete(wire.jobId);
    this.all.set(wire.jobId, wire);
    const { jobId } = wire;
    const { folder, time, log, seen } = this.of;
    let runId: string | undefined;
    const rehearsed = await this.of.rehearsals.planFor(jobId);
    const threads = new WireThreads({
      ...{ jobId, folder, time, log, seen, rehearsed, notice: wire.notice },
      news: this.of.news,
      status: (status) => {
        if (status.runId !== runId) this.runEnded(runId);
        runId = status.runId;
        this.of.status(jobId, status);
        this.told(jobId);
      },
    });
    wire.has(threads);
    this.tellWhich();
    return threads;
  }

  /** A run ends when somebody ends it, or by itself where nothing more can be kept. */
  private runEnded(runId: string | undefined): void {
    if (runId === undefined) return;
    // While the database is away it stays open there; the next start ends it.
    void this.of.store.endRun(runId).catch(() => undefined);
  }

  private told(jobId: string): void {
    this.of.news('field', this.view(jobId));
    if (!this.at(jobId).isOpen) this.tellWhich();
  }

  private tellWhich(): void {
    this.of.news(
      'wires',
      this.open.map(({ jobId }) => jobId),
    );
  }
}
