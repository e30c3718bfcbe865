import { mkdirSync } from 'node:fs';
import type { Express } from 'express';
import type { HeardNews } from '@ipsonomo/core/api';
import { buildApp } from './app';
import type { Time } from '@ipsonomo/threads';
import { Readings } from './common/readings';
import { Field, type FieldListener, Practice } from '@ipsonomo/wire';
import { Lists } from './lists/lists';
import { EventStream } from './http/event-stream';
import { isThroughLiveAdapter } from './http/guard';
import { PageRelay, type RelayPlace } from './pages/relay';
import { PlanChanger } from './service/change-plan';
import { Door } from './service/door';
import { EvidenceSink } from './service/evidence-sink';
import { FieldService } from './service/field-service';
import { presentView, stationView } from './service/field-views';
import { HeardTeller } from './service/heard-teller';
import { ListImporter } from './service/import-list';
import { Papers } from './service/papers';
import { PlanReader } from './service/read-plan';
import { Proofs } from './service/proofs';
import { Rounds } from './service/round';
import { PlanWork } from './service/plan-work';
import { Thinking } from './service/thinking';
import { JobSummaries } from './service/job-summaries';
import { JobTeller } from './service/job-teller';
import { Vigils } from './service/vigils';
import type { Database } from './store/database';
import { Store } from './store/store';

export interface Settings {
  readonly store: Store;
  /** The same database, for threads that have a connection of their own. */
  readonly database: Database;
  /** Captures and journals of listening runs. */
  readonly captures: string;
  readonly web: string | undefined;
  readonly log: (line: string) => void;
  readonly time: Time;
  /** Which program this is: another one may have other rules. */
  readonly build: string;
  /** Addresses under which this server can be opened, each bringing the key. */
  readonly openAt: (key: string) => readonly string[];
  /** Where pages of devices are handed to a browser; port 0 is any that is free. */
  readonly pages: RelayPlace;
}

export interface Running {
  readonly app: Express;
  readonly field: FieldService;
  readonly door: Door;
  close(): Promise<void>;
}

/** Puts the parts together: threads, services and routes. Reads no environment, opens no port. */
export async function compose(settings: Settings): Promise<Running> {
  const { store, captures, web, log, time } = settings;
  // Whole milliseconds, as plans write them.
  const clock = () => Math.floor(time.clock.now());
  mkdirSync(captures, { recursive: true });
  const events = new EventStream(() => [
    ['field', fieldService.view()],
    ['stations', fieldService.stations()],
    ['present', fieldService.present()],
    ['heard', { all: true, clients: fieldService.heard(), forgotten: [] } satisfies HeardNews],
  ]);
  // Keys end by the time of people, however fast the practice site lives.
  const door = new Door(store, Date.now, (browser) => {
    events.closeOf(browser);
    relay.closeOf(browser);
  });
  await door.open();
  const reader = new PlanReader(store);
  const teller = new JobTeller(reader, (news) => events.send('job', news));
  const changed = (jobId: string) => teller.changed(jobId);
  const sink = new EvidenceSink(
    store,
    captures,
    (jobIds) => jobIds.forEach((jobId) => changed(jobId)),
    log,
  );
  await sink.recover();
  await store.endLeftRuns();
  await store.proofs.endLeft();

  const heard = new HeardTeller((news) => events.send('heard', news));
  let runId: string | undefined;
  const listener: FieldListener = {
    status(status) {
      if (status.runId !== runId) fieldService.runChanged(runId);
      runId = status.runId;
      proofs.stateChanged(status.proof);
      events.send('field', fieldService.view());
    },
    events: (seen) => sink.take(seen),
    heard: (change) => heard.take(change),
    stations: (found) => events.send('stations', found.map(stationView)),
    present: (seen) => events.send('present', seen.map(presentView)),
    fell: (why) => fieldService.notice('thread-fell', { why }),
  };
  const field = new Field(captures, time, listener, log);
  const practice = new Practice(time, log);
  const fieldService = new FieldService(field, store, practice, clock, () =>
    events.send('field', fieldService.view()),
  );
  const changer = new PlanChanger(store, clock, {
    changed: (jobId, made) => {
      teller.changed(jobId, made);
      return fieldService.planChanged(jobId);
    },
    otherwise: (jobId, revision) => teller.otherwise(jobId, revision),
  });
  const proofs = new Proofs(store, field, fieldService, changed);
  const thinking = new Thinking();
  const planWork = new PlanWork(store, reader, settings.database);
  const readings = new Readings();
  const lists = new Lists(readings);
  const importer = new ListImporter(lists, store, changer, planWork, clock);
  const papers = new Papers(store, clock);
  const relay = new PageRelay(
    {
      page: () => fieldService.page(),
      isBarred: (request) => isThroughLiveAdapter(fieldService, request),
    },
    settings.pages,
  );
  const app = buildApp({
    ...{
      store,
      reader,
      changer,
      importer,
      papers,
      readings,
      rounds: new Rounds(reader, thinking),
      summaries: new JobSummaries(store, (jobId) => planWork.counts(jobId), settings.build),
      field: fieldService,
      proofs,
      vigils: new Vigils(store, field, fieldService),
      practice,
      captures,
      planWork,
      changed: (jobId) => teller.otherwise(jobId),
      openPage: (browser) => relay.open(browser),
    },
    ...{ door, events, log, web, openAt: settings.openAt },
  });
  return {
    app,
    door,
    field: fieldService,
    async close() {
      events.close();
      relay.close();
      lists.close();
      await thinking.close();
      await planWork.close();
      heard.stop();
      await field.close();
      sink.stop();
      await practice.close();
      time.stop();
    },
  };
}
