import { mkdirSync } from 'node:fs';
import type { Express } from 'express';
import { SERVER_WORDS } from '@ipsonomo/language/terminal';
import { buildApp, type AppParts } from './app';
import type { ServersView } from '@ipsonomo/core/api';
import type { Time } from '@ipsonomo/threads';
import { Readings } from './common/readings';
import { undoBorrowings } from '@ipsonomo/wire';
import { Lists } from './lists/lists';
import { EventStream } from './http/event-stream';
import type { Services } from './http/services';
import { throughLiveAdapter } from './http/guard';
import { PageRelay, type RelayPlace } from './pages/relay';
import { Packages } from './packages/packages';
import { People } from './service/people';
import { Bundles } from './service/bundles';
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
import { Notes } from './service/notes';
import { NewsOfOthers } from './service/news-of-others';
import { Servers, type OwnServer } from './service/servers';
import { Vigils } from './service/vigils';
import { Wires, type WiresOf } from './service/wires';
import type { Database } from './store/database';
import { NewsLink } from './store/news-link';
import { Store } from './store/store';

export interface Settings {
  readonly store: Store;
  /** Which of those that work with the database this is. */
  readonly own: OwnServer;
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
  /** What phones are to trust; it is opened without encryption too then. */
  readonly authority?: Services['authority'];
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
  const { store, captures, web, log, time, own } = settings;
  // Whole milliseconds, as plans write them.
  const clock = () => Math.floor(time.clock.now());
  mkdirSync(captures, { recursive: true });
  await undoBorrowings(captures);
  // Before anything is read: what others write from now on is told.
  const link = await NewsLink.open(settings.database);
  const events = new EventStream(() => [...wires.state(), ['servers', servers.view()]]);
  const { people, door } = await openDoor(store, (browser) => {
    events.closeOf(browser);
    relay.closeOf(browser);
  });
  const reader = new PlanReader(store);
  const teller = new JobTeller(reader, (news) => events.send('job', news));
  const changed = (jobId: string) => teller.changed(jobId);
  const sink = await sinkOf(settings, (jobIds) => jobIds.forEach((jobId) => changed(jobId)));

  const rehearsals = await Rehearsals.open(store);
  const sites = new Set(settings.practiceFirst ? await store.practiceSites() : []);
  const wires: Wires = wiresOf(settings, sites, rehearsals, {
    news: (name, data) => (events.send(name, data), servers.wireNews(name)),
    seen: (seen) => sink.take(seen),
    status: (jobId, status) => proofs.stateChanged(jobId, status.proof),
  });
  const telling = { clock: Date.now, told: (view: ServersView) => events.send('servers', view) };
  const servers = new Servers({ store, own, wires, ...telling });
  await servers.open();
  const told = toldBy(teller, wires);
  const changer = new PlanChanger(store, clock, told);
  const proofs = new Proofs(store, wires, changed);
  const { thinking, ...threads } = threadsOf(settings, reader);
  const { planWork, packages, lists } = threads;
  // They end by the time of people.
  const takenCalls = new TakenCalls(store, Date.now, (jobId) => teller.otherwise(jobId));
  const importer = new ListImporter(lists, store, changer, planWork, clock);
  const relay = relayOf(wires, settings.pages);
  const app = buildApp({
    ...{ store, reader, changer, importer, rehearsals, takenCalls, proofs, captures },
    ...{ wires, servers, ...threads, papers: new Papers(store, clock) },
    notes: new Notes(store, changer),
    bundles: new Bundles({ store, own, captures, rehearsals, told }),
    ...{
      vigils: new Vigils(store, wires),
      changed: (jobId) => teller.otherwise(jobId),
      openPage: (jobId, browser) => relay.open(jobId, browser),
    },
    isDemo: settings.practiceFirst ?? false,
    ...{ door, people, events, log, web, openAt: settings.openAt },
    ...{ authority: settings.authority },
  });
  const others = new NewsOfOthers({ store, teller, wires, people, door, rehearsals, servers });
  begin(link, others, { store, servers, wires, planWork, log });
  const close = async () => {
    for (const one of [events, relay, lists, link]) one.close();
    for (const one of [thinking, planWork, packages, wires, servers]) await one.close();
    for (const one of [sink, time]) one.stop();
  };
  return { app, door, people, wires, close };
}

/** Keys end by the time of people, however fast the practice site lives. */
async function openDoor(store: Store, takenBack: (browser: string) => void) {
  const people = new People(store, Date.now);
  await people.open();
  const door = new Door(store, people, Date.now, takenBack);
  await door.open();
  return { people, door };
}

/** What has threads of its own, beside those of the wires. */
function threadsOf({ store, database, captures, build }: Settings, reader: PlanReader) {
  const thinking = new Thinking();
  const planWork = new PlanWork(store, reader, database);
  const readings = new Readings();
  return {
    ...{ thinking, planWork, readings, lists: new Lists(readings) },
    packages: new Packages({ database, captures }),
    rounds: new Rounds(reader, thinking),
    summaries: new JobSummaries(store, (jobId) => planWork.counts(jobId), build),
  };
}

/** A database that is started anew is back by then, and nobody is refused. */
const SHORTLY = 4_000;

/** From now on what others write is told, and so is a database that cannot be reached. */
function begin(
  link: NewsLink,
  others: NewsOfOthers,
  {
    store,
    servers,
    wires,
    planWork,
    log,
  }: Pick<AppParts, 'store' | 'servers' | 'wires' | 'planWork' | 'log'>,
): void {
  let since: number | undefined;
  let isTold = false;
  const away = (): void => {
    if (since === undefined) store.letGo();
    since ??= performance.now();
    if (isTold || performance.now() - since < SHORTLY) return;
    isTold = true;
    log(SERVER_WORDS.databaseAway);
    store.setAway(true);
    wires.plansOutOfSight();
    servers.reached(false);
    // A question to it may wait for good.
    void planWork.close();
  };
  const there = (): void => {
    since = undefined;
    if (!isTold) return;
    isTold = false;
    log(SERVER_WORDS.databaseBack);
    store.setAway(false);
    servers.reached(true);
    void wires.plansInSight();
  };
  link.begin({
    taken: (news) => others.take(news),
    missed: () => others.missed(),
    reached: (isThere) => (isThere ? there() : away()),
  });
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
