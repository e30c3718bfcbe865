import { Field, Practice, type FieldEvent, type FieldStatus } from '@ipsonomo/wire';
import type { RehearsedPlan } from '@ipsonomo/practice';
import type { Time } from '@ipsonomo/threads';
import type { PresentNews, StationsNews } from '@ipsonomo/core/api';
import type { TellNotice } from '@ipsonomo/core/plan';
import { HeardTeller } from './heard-teller';
import { presentView, stationView } from './wire-views';

/** By name, what pages are told of wires. */
export type TellNews = (
  name: 'wires' | 'field' | 'heard' | 'stations' | 'present',
  data: unknown,
) => void;

/** What the threads of a wire need, and whom they tell. */
export interface WireThreadsOf {
  /** Names what is kept for it. */
  readonly jobId: string;
  /** Of captures and journals. */
  readonly folder: string;
  readonly time: Time;
  readonly log: (line: string) => void;
  readonly news: TellNews;
  readonly seen: (events: readonly FieldEvent[]) => void;
  readonly status: (status: FieldStatus) => void;
  readonly notice: TellNotice;
  /** What its practice site is made of, where it rehearses a plan. */
  readonly rehearsed: RehearsedPlan | undefined;
}

/** The threads of one wire: its own, and its practice site's once somebody wants one. */
export class WireThreads {
  readonly field: Field;
  private readonly heard: HeardTeller;
  private site: Practice | undefined;

  constructor(private readonly of: WireThreadsOf) {
    const { jobId, folder, time, log, news } = of;
    this.heard = new HeardTeller(jobId, (told) => news('heard', told));
    this.field = new Field(
      { folder, name: jobId },
      time,
      {
        status: of.status,
        events: of.seen,
        heard: (change) => this.heard.take(change),
        stations: (found) =>
          news('stations', { jobId, stations: found.map(stationView) } satisfies StationsNews),
        present: (seen) =>
          news('present', { jobId, present: seen.map(presentView) } satisfies PresentNews),
        fell: (why) => of.notice('thread-fell', { why }),
      },
      log,
    );
  }

  /** Its own practice site, as delivered. */
  get practice(): Practice {
    return (this.site ??= new Practice(this.of.time, this.of.log, this.of.rehearsed));
  }

  /** Puts something right on its site, where there is one. */
  putRight(mistake: string): void {
    this.site?.putRight(mistake);
  }

  async close(): Promise<void> {
    this.heard.stop();
    await this.field.close();
    await this.site?.close();
  }
}
