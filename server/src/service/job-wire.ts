import { adapterOf } from '@ipsonomo/core/api';
import type {
  CabinetAction,
  CabinetView,
  FieldView,
  HeardView,
  PresentView,
  RegisterWish,
  RunView,
  StationView,
  WireChoice,
} from '@ipsonomo/core/api';
import { registerAsked } from '@ipsonomo/core/entered';
import { formatIpv4, type MacAddress } from '@ipsonomo/core/net';
import { findInterface, findKind, type TellNotice } from '@ipsonomo/core/plan';
import { askedPath } from '@ipsonomo/core/routes';
import { MODBUS_PORT } from '@ipsonomo/core/wire';
import { Turns } from '@ipsonomo/threads';
import {
  IDLE,
  Notices,
  type FieldCommand,
  type FieldStatus,
  type Giving,
  type VigilRing,
} from '@ipsonomo/wire';
import { MessageChannel } from 'node:worker_threads';
import { Presence } from '../common/presence';
import type { RelayedPage } from '../pages/relayed-page';
import { WireStream } from '../pages/wire-stream';
import { must, Refusal } from '../store/refusal';
import type { Store } from '../store/store';
import type { Actor } from './actor';
import { fieldView, heardView, presentView, stationView } from './wire-views';
import { WirePlan } from './wire-plan';
import type { WireThreads } from './wire-threads';

const MOST_MINUTES = 60;

/** Who began the run that goes on, and for which job. */
export interface Listening {
  readonly person: string;
  readonly what: string;
}

/** An adapter that is taken for a job. */
export interface Taking {
  readonly adapter: string;
  readonly actor: Actor;
  /** Whoever listens there is no hindrance. */
  readonly evenSo: boolean;
  readonly open: () => Promise<void>;
}

/** What a wire of a job needs of its server. */
export interface WireHouse {
  readonly store: Store;
  readonly clock: () => number;
  /** Called where the view has changed without a word from the wire. */
  readonly told: (jobId: string) => void;
  /** Its own practice site is its wire until it chooses another. */
  readonly practiceFirst: (jobId: string) => boolean;
  /** It rehearses a plan: its site is its wire, and no other. */
  readonly isRehearsal: (jobId: string) => boolean;
  /** Opens an adapter once nobody else has it, and nobody else takes one meanwhile. Refuses with `wire.inUse`. */
  readonly take: (wire: JobWire, taking: Taking) => Promise<void>;
  /** Begins the threads of a wire, which has them then. Refuses with `wire.tooMany`. */
  readonly begin: (wire: JobWire) => Promise<WireThreads>;
}

/** Everything a person asks of the wire of one job. It has no thread until a wire is chosen. */
export class JobWire {
  private readonly turns = new Turns();
  private threads: WireThreads | undefined;
  /** R-PAGE: whoever let it answer and is away for so long is not watching any more. */
  private readonly watched = new Presence(() => {
    void this.threads?.field.call({ kind: 'page-lost' });
  });

  /** What the server itself has to say of this wire. */
  private readonly own = new Notices(() => this.house.told(this.jobId));
  private listening: Listening | undefined;
  readonly plan: WirePlan;

  constructor(
    readonly jobId: string,
    private readonly house: WireHouse,
  ) {
    this.plan = new WirePlan(
      jobId,
      house,
      (command) => this.call(command),
      () => this.planChanged(),
    );
  }

  get status(): FieldStatus {
    const known = this.threads?.field.status ?? IDLE;
    const isSite = this.isRehearsal || this.house.practiceFirst(this.jobId);
    const isToBe = known.source === undefined && isSite;
    return isToBe ? { ...known, source: this.siteSource } : known;
  }

  /** What its practice site is called. */
  private get siteSource(): 'practice' | 'rehearsal' {
    return this.isRehearsal ? 'rehearsal' : 'practice';
  }

  private get isRehearsal(): boolean {
    return this.house.isRehearsal(this.jobId);
  }

  get isOpen(): boolean {
    return this.threads !== undefined;
  }

  get isListening(): boolean {
    return this.status.runId !== undefined;
  }

  /** Who listens on it, while somebody does. */
  get listener(): Listening | undefined {
    return this.isListening ? this.listening : undefined;
  }

  /** The beats of the vigil that goes on, or of the last one. */
  get vigil(): VigilRing | undefined {
    return this.threads?.field.vigil;
  }

  /** The adapter it is on. */
  get adapter(): string | undefined {
    return adapterOf(this.status.source);
  }

  /** @param besides what the server has to say of all of its wires */
  view(besides: Notices): FieldView {
    const own = [...besides.list, ...this.own.list];
    return fieldView(this.jobId, this.status, own, this.house.clock());
  }

  /** Says something of this wire to everybody. */
  readonly notice: TellNotice = (code, facts) => {
    this.own.add(code, facts, this.house.clock());
    this.house.told(this.jobId);
  };

  /** A person has read a notice. */
  async noticeRead(code: string, at: number): Promise<void> {
    this.own.read(code, at);
    await this.callIfOpen({ kind: 'notice-read', code, at });
  }

  heard(): readonly HeardView[] {
    return this.threads?.field.heard.map(heardView) ?? [];
  }

  stations(): readonly StationView[] {
    return this.threads?.field.stations.map(stationView) ?? [];
  }

  present(): readonly PresentView[] {
    return this.threads?.field.present.map(presentView) ?? [];
  }

  /** Carries out a command. Refuses as the wire does, and with `field.noWire` where none is chosen. */
  async call(command: FieldCommand): Promise<void> {
    if (!this.threads) throw Refusal.of('field.noWire', '');
    await this.threads.field.call(command);
  }

  /** What ends or forgets something is no trouble where nothing goes on. */
  async callIfOpen(command: FieldCommand): Promise<void> {
    await this.threads?.field.call(command);
  }

  /** R-TAKE. Chooses the wire. Refuses with `wire.inUse` where somebody else listens there, unless that was said to be no hindrance; both are told then. */
  choose(choice: WireChoice, actor: Actor): Promise<void> {
    return this.turns.take(() => this.openWire(choice, actor));
  }

  private async openWire(choice: WireChoice, actor: Actor): Promise<void> {
    if (choice.kind === 'live' && this.isRehearsal) throw Refusal.of('rehearsal.live', '');
    const other = this.listener;
    const isTaken = other !== undefined && other.person !== actor.name;
    const evenSo = choice.evenSo === true;
    if (isTaken && !evenSo) throw Refusal.of('wire.inUse', '', { ...other });
    const open = async () => {
      const threads = await this.begun();
      await this.rest();
      if (isTaken)
        this.notice('wire-taken', { by: actor.name, from: other.person, what: other.what });
      if (choice.kind === 'live')
        await threads.field.call({ kind: 'open-live', adapter: choice.adapter });
      else {
        const port = threads.practice.wire();
        await threads.field.call({ kind: 'open-practice', port, source: this.siteSource });
      }
    };
    if (choice.kind === 'live')
      await this.house.take(this, { adapter: choice.adapter, actor, evenSo, open });
    else await open();
  }

  /** Its threads, begun where it has none. */
  private async begun(): Promise<WireThreads> {
    return this.threads ?? this.house.begin(this);
  }

  /** From now on these are its threads. */
  has(threads: WireThreads): void {
    this.threads = threads;
  }

  /** Gives its adapter to another wire, and tells who listened. */
  async giveUp(to: Actor): Promise<void> {
    const was = this.listener;
    await this.end();
    if (was) this.notice('wire-taken', { by: to.name, from: was.person, what: was.what });
  }

  /** Ends its threads; what the practice site was left like goes with them. */
  async end(): Promise<void> {
    const { threads } = this;
    this.threads = undefined;
    this.watched.end();
    this.plan.forget();
    await threads?.close();
    this.house.told(this.jobId);
  }

  /** Puts something right on its practice site, where that is there. */
  putRight(mistake: string): void {
    this.threads?.putRight(mistake);
  }

  listen(actor: Actor): Promise<void> {
    return this.turns.take(() => this.beginRun(actor));
  }

  private async beginRun(actor: Actor): Promise<void> {
    if (this.isListening) return;
    const { source } = this.status;
    if (source === undefined) throw Refusal.of('field.noWire', '');
    // The practice site is to be its wire, and nobody opened it yet.
    if (this.threads?.field.status.source === undefined)
      await this.openWire({ kind: 'practice' }, actor);
    await this.plan.tellWhole();
    const { store } = this.house;
    const run = await store.addRun(this.jobId, source, actor.name);
    await this.call({ kind: 'listen', runId: run.id });
    const { name: what } = await store.job(this.jobId);
    this.listening = { person: actor.name, what };
  }

  rest(): Promise<void> {
    return this.callIfOpen({ kind: 'rest' });
  }

  /** The browser of `actor` is the one whose absence ends it; nobody's, where nobody sits before a page. */
  async arm(minutes: number, actor: Actor): Promise<void> {
    const millis = Math.min(minutes, MOST_MINUTES) * 60_000;
    await this.listen(actor);
    if (this.plan.isUntold) await this.plan.tell();
    await this.call({ kind: 'arm', millis, person: actor.name });
    this.watched.begin(actor.browser);
  }

  /** A page says that it is still there. */
  here(browser: string | undefined): void {
    this.watched.here(browser);
  }

  silence(): Promise<void> {
    this.watched.end();
    return this.callIfOpen({ kind: 'silence' });
  }

  async check(interfaceIds: readonly string[], actor: Actor): Promise<void> {
    await this.listen(actor);
    await this.call({ kind: 'check', interfaceIds, person: actor.name });
  }

  async watchPower(interfaceId: string, actor: Actor, evenSo?: string): Promise<void> {
    await this.listen(actor);
    await this.call({ kind: 'watch-power', interfaceId, person: actor.name, evenSo });
  }

  async pin(interfaceId: string, actor: Actor, evenSo?: string): Promise<void> {
    const plan = await this.house.store.plan(this.jobId);
    const found = findInterface(plan, interfaceId);
    if (!found) throw Refusal.of('thing.unknown', 'device');
    if (findKind(plan, found.device.kindId)?.pinning.by !== 'tcpip-object')
      throw Refusal.of('pin.noObject', '', { title: found.device.title });
    await this.listen(actor);
    await this.call({ kind: 'pin', interfaceId, person: actor.name, evenSo });
  }

  async follow(interfaceId: string, actor: Actor): Promise<void> {
    await this.listen(actor);
    await this.call({ kind: 'follow', interfaceId, person: actor.name });
  }

  async walk(interfaceId: string, subnetId: string, actor: Actor): Promise<void> {
    await this.listen(actor);
    await this.call({ kind: 'walk', interfaceId, subnetId, person: actor.name });
  }

  /** One register, as the plan has the port of its line. Refuses with what `registerAsked` refuses with. */
  async readRegister(
    interfaceId: string,
    { unit, written, counting }: RegisterWish,
    actor: Actor,
  ): Promise<void> {
    const asked = must(registerAsked(written, counting));
    const found = findInterface(await this.house.store.plan(this.jobId), interfaceId);
    const line = found?.device.lines.find(({ units }) => units.some((one) => one.unit === unit));
    await this.listen(actor);
    const tcpPort = line?.tcpPort ?? MODBUS_PORT;
    const order = { ...asked, unit, written, tcpPort, person: actor.name };
    await this.call({ kind: 'read-register', interfaceId, ...order });
  }

  /** Who is at the end of the route path to an interface. Refuses with `path.none`. */
  async askPath(interfaceId: string, from: string, actor: Actor): Promise<void> {
    const path = askedPath(await this.house.store.plan(this.jobId), from, interfaceId);
    if (!path) throw Refusal.of('path.none', '');
    const route = path.steps.map(({ port, link }) => ({ port, link }));
    await this.listen(actor);
    const ends = { entry: path.entry.id, interfaceId };
    await this.call({ kind: 'ask-path', ...ends, route, person: actor.name });
  }

  async openPage(interfaceId: string, actor: Actor): Promise<void> {
    await this.listen(actor);
    await this.call({ kind: 'open-page', interfaceId, person: actor.name });
  }

  closePage(): Promise<void> {
    return this.callIfOpen({ kind: 'close-page' });
  }

  /** The page of a device that is open, and how to reach it. */
  page(): RelayedPage | undefined {
    const { page } = this.status;
    if (!page) return undefined;
    return {
      host: formatIpv4(page.address),
      connect: () => {
        const { port1, port2 } = new MessageChannel();
        void this.call({ kind: 'converse', port: port1 }).catch(() => port2.close());
        return new WireStream(port2);
      },
    };
  }

  async drill(step: 'begin' | 'on' | 'end', actor: Actor): Promise<void> {
    await this.listen(actor);
    await this.call({ kind: 'drill', step, person: actor.name });
  }

  /** Everybody, whatever their addresses: by ARP, and over layer 2. */
  async sweep(actor: Actor): Promise<void> {
    await this.listen(actor);
    await this.call({ kind: 'sweep' });
    await this.call({ kind: 'search' });
  }

  async search(actor: Actor): Promise<void> {
    await this.listen(actor);
    await this.call({ kind: 'search' });
  }

  /** R-TWINS: a person says that one device alone has the MAC bound to an interface. */
  async oneDevice(interfaceId: string): Promise<void> {
    const found = findInterface(await this.house.store.plan(this.jobId), interfaceId);
    if (found?.at.mac !== undefined)
      await this.callIfOpen({ kind: 'one-device', mac: found.at.mac });
  }

  async flash(mac: MacAddress, actor: Actor): Promise<void> {
    await this.listen(actor);
    await this.call({ kind: 'flash', mac });
  }

  async giveStation(
    interfaceId: string,
    giving: Giving,
    actor: Actor,
    evenSo?: string,
  ): Promise<void> {
    await this.listen(actor);
    const person = actor.name;
    await this.call({ kind: 'give-station', interfaceId, giving, person, evenSo });
  }

  async resetStation(
    interfaceId: string,
    reason: string,
    actor: Actor,
    evenSo?: string,
  ): Promise<void> {
    await this.listen(actor);
    const person = actor.name;
    await this.call({ kind: 'reset-station', interfaceId, reason, person, evenSo });
  }

  async runs(): Promise<readonly RunView[]> {
    const runs = await this.house.store.runs(this.jobId);
    return runs.map((run) => ({
      id: run.id,
      source: run.source,
      startedAt: run.started_at.getTime(),
      endedAt: run.ended_at?.getTime() ?? null,
      person: run.person,
    }));
  }

  /** Does something at the cabinets of its practice site, or only looks. */
  async atCabinet(action: CabinetAction | undefined): Promise<CabinetView> {
    const threads = await this.turns.take(() => this.begun());
    return threads.practice.act(action);
  }

  /**
   * The plan changed: the wire has to know it before the next request. A plan that cannot be read
   * may have unbound somebody, so then the wire falls silent.
   */
  planChanged(): Promise<void> {
    return this.turns.take(async () => {
      if (this.status.jobId === undefined) return;
      try {
        await this.plan.tell();
      } catch (error) {
        // What was changed is changed: that the wire does not know it stops the wire, and not the person.
        this.plan.notTold();
        await this.silence().catch(() => undefined);
        this.notice('plan-untold', { why: error instanceof Error ? error.message : String(error) });
      }
    });
  }
}
