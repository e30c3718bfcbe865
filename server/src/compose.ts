import { mkdirSync } from 'node:fs';
import type { Express } from 'express';
import { buildApp } from './app';
import type { Time } from '@ipsonomo/threads';
import { Readings } from './common/readings';
import { undoBorrowings } from '@ipsonomo/wire';
import { Lists } from './lists/lists';
import { EventStream } from './http/event-stream';
import { throughLiveAdapter } from './http/guard';
import { PageRelay, type RelayPlace } from './pages/relay';
import { Packages } from './packages/packages';
import { People } from './service/people';
import { PlanChanger } from './service/change-plan';
import { Door } from './service/door';
import { EvidenceSink } from './service/evidence-sink';
import { ListImporter } from './service/import-list';
import { Papers } from './service/papers';
import { PlanReader } from './service/read-plan';
import { Proofs } from './service/proofs';
import { Rehearsals } from './service/rehearsals';
import { Rounds } from './service/round';
import { PlanWork } from './service/plan-work';
import { TakenCalls } from './service/taken-calls';
import { Thinking } from './service/thinking';
import { JobSummaries } from './service/job-summaries';
import { JobTeller, type Told } from './service/job-teller';
import { Vigils } from './service/vigils';
import { Wires, type WiresOf } from './service/wires';
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
  /** The practice site is the wire of a job that has one, until it chooses another. */
  readonly practiceFirst?: boolean;
}

export interface Running {
  readonly app: Express;
  readonly wires: Wires;
  readonly door: Door;
  readonly people: People;
  close(): Promise<void>;
}

/** Puts the parts together: threads, services and routes. Reads no environment, opens no port. */
export async function compose(settings: Settings): Promise<Running> {
  const { store, captures, web, log, time } = settings;
  // Whole milliseconds, as plans write them.
  const clock = () => Math.floor(time.clock.now());
  mkdirSync(captures, { recursive: true });
  await undoBorrowings(captures);
  const events = new EventStream(() => wires.state());
  // Keys end by the time of people, however fast the practice site lives.
  const people = new People(store, Date.now);
  await people.open();
  const door = new Door(store, people, Date.now, (browser) => {
    events.closeOf(browser);
    relay.closeOf(browser);
  });
  await door.open();
  const reader = new PlanReader(store);
  const teller = new JobTeller(reader, (news) => events.send('job', news));
  const changed = (jobId: string) => teller.changed(jobId);
  const sink = await sinkOf(settings, (jobIds) => jobIds.forEach((jobId) => changed(jobId)));

  const rehearsals = await Rehearsals.open(store);
  const sites = new Set(settings.practiceFirst ? await store.practiceSites() : []);
  const wires: Wires = wiresOf(settings, sites, rehearsals, {
    news: (name, data) => events.send(name, data),
    seen: (seen) => sink.take(seen),
    status: (jobId, status) => proofs.stateChanged(jobId, status.proof),
  });
  const changer = new PlanChanger(store, clock, toldBy(teller, wires));
  const proofs = new Proofs(store, wires, changed);
  const thinking = new Thinking();
  const planWork = new PlanWork(store, reader, settings.database);
  const readings = new Readings();
  const lists = new Lists(readings);
  // They end by the time of people.
  const takenCalls = new TakenCalls(store, Date.now, (jobId) => teller.otherwise(jobId));
  const importer = new ListImporter(lists, store, changer, planWork, clock);
  const papers = new Papers(store, clock);
  const packages = new Packages({ database: settings.database, captures });
  const relay = relayOf(wires, settings.pages);
  const app = buildApp({
    ...{ store, reader, changer, importer, papers, readings, rehearsals, takenCalls },
    ...{ wires, proofs, captures, planWork, packages },
    ...{
      rounds: new Rounds(reader, thinking),
      summaries: new JobSummaries(store, (jobId) => planWork.counts(jobId), settings.build),
      vigils: new Vigils(store, wires),
      changed: (jobId) => teller.otherwise(jobId),
      openPage: (jobId, browser) => relay.open(jobId, browser),
    },
    isDemo: settings.practiceFirst ?? false,
    ...{ door, people, events, log, web, openAt: settings.openAt },
  });
  const close = async () => {
    for (const one of [events, relay, lists]) one.close();
    for (const one of [thinking, planWork, packages, wires]) await one.close();
    for (const one of [sink, time]) one.stop();
  };
  return { app, door, people, wires, close };
}

const wiresOf = (
  { store, time, captures: folder, log }: Settings,
  sites: ReadonlySet<string>,
  rehearsals: Rehearsals,
  told: Pick<WiresOf, 'news' | 'seen' | 'status'>,
): Wires => {
  const practiceFirst = (jobId: string) => sites.has(jobId);
  return new Wires({ store, time, folder, log, practiceFirst, rehearsals, ...told });
};

/** Pages are told of a change, and the wire of its job, before it counts as made. */
const toldBy = (teller: JobTeller, wires: Wires): Told => ({
  changed: (jobId, made) => {
    teller.changed(jobId, made);
    return wires.planChanged(jobId);
  },
  otherwise: (jobId, revision) => teller.otherwise(jobId, revision),
});

/** Where evidence goes; what a server before this one left is brought to its end first. */
async function sinkOf(
  { store, captures, log }: Settings,
  written: (jobIds: ReadonlySet<string>) => void,
): Promise<EvidenceSink> {
  const sink = new EvidenceSink(store, captures, written, log);
  await sink.recover();
  await store.endLeftRuns();
  await store.proofs.endLeft();
  return sink;
}

/** Pages of devices, each through the wire of its job. */
const relayOf = (wires: Wires, place: RelayPlace): PageRelay =>
  new PageRelay(
    (jobId) => ({
      page: () => wires.at(jobId).page(),
      isBarred: (request) => throughLiveAdapter(wires, request) !== undefined,
    }),
    place,
  );
