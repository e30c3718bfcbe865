import type {
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
import { findInterface, findKind, nextLoanEnd, type TellNotice } from '@ipsonomo/core/plan';
import { askedPath } from '@ipsonomo/core/routes';
import { MODBUS_PORT } from '@ipsonomo/core/wire';
import { MessageChannel } from 'node:worker_threads';
import {
  type Field,
  type FieldPlan,
  type Giving,
  Notices,
  planNews,
  type Practice,
} from '@ipsonomo/wire';
import type { RelayedPage } from '../pages/relayed-page';
import { WireStream } from '../pages/wire-stream';
import { Presence } from '../common/presence';
import { Turns } from '@ipsonomo/threads';
import { must, Refusal } from '../store/refusal';
import type { Store } from '../store/store';
import type { Actor } from './actor';
import { FieldPlanBook } from './field-plan';
import { adapterOf, fieldView, heardView, presentView, stationView } from './field-views';

const MOST_MINUTES = 60;
const LONGEST_WAIT = 2 ** 31 - 1;

/** Everything a person asks of the wire. One job at a time has it. */
export class FieldService {
  private readonly turns = new Turns();
  private loanEnds: NodeJS.Timeout | undefined;
  /** R-PAGE: whoever let it answer and is away for so long is not watching any more. */
  private readonly watched = new Presence(() => {
    void this.field.call({ kind: 'page-lost' });
  });

  /** What the server itself has to say of the wire. */
  private readonly own = new Notices(() => this.told());
  /** Who began the run that goes on, and for which job. */
  private listening: { readonly person: string; readonly what: string } | undefined;
  private readonly plans = new FieldPlanBook();
  /** The plan that the wire has. */
  private sent: FieldPlan | undefined;
  /** The job whose plan the wire does not know as it is now. */
  private untold: string | undefined;

  /** @param told called where the view has changed without a word from the wire */
  constructor(
    private readonly field: Field,
    private readonly store: Store,
    private readonly practice: Practice,
    private readonly clock: () => number,
    private readonly told: () => void,
  ) {}

  view(): FieldView {
    return fieldView(this.field.status, this.own.list, this.clock());
  }

  /** Says something of the wire to everybody. */
  readonly notice: TellNotice = (code, facts) => {
    this.own.add(code, facts, this.clock());
    this.told();
  };

  /** A person has read a notice. */
  async noticeRead(code: string, at: number): Promise<void> {
    this.own.read(code, at);
    await this.field.call({ kind: 'notice-read', code, at });
  }

  heard(): readonly HeardView[] {
    return this.field.heard.map(heardView);
  }

  /**
   * R-TAKE. Chooses the wire. Refuses with `wire.inUse` where somebody else listens on the one that is chosen now, unless that
   * was said to be no hindrance; both are told then.
   * @param isThrough whether whoever asks came in through an adapter
   */
  chooseWire(
    choice: WireChoice,
    actor: Actor,
    isThrough: (adapter: string) => boolean,
  ): Promise<void> {
    return this.turns.take(() => this.openWire(choice, actor, isThrough));
  }

  private async openWire(
    choice: WireChoice,
    actor: Actor,
    isThrough: (adapter: string) => boolean,
  ): Promise<void> {
    if (choice.kind === 'live' && isThrough(choice.adapter))
      throw Refusal.of('wire.ownWeb', '', { adapter: choice.adapter });
    const other = this.field.status.runId === undefined ? undefined : this.listening;
    const isTaken = other !== undefined && other.person !== actor.name;
    if (isTaken && choice.evenSo !== true) throw Refusal.of('wire.inUse', '', { ...other });
    await this.rest();
    if (isTaken)
      this.notice('wire-taken', { by: actor.name, from: other.person, what: other.what });
    if (choice.kind === 'live')
      await this.field.call({ kind: 'open-live', adapter: choice.adapter });
    else await this.field.call({ kind: 'open-practice', port: this.practice.wire() });
  }

  listen(jobId: string, actor: Actor): Promise<void> {
    return this.turns.take(() => this.beginRun(jobId, actor));
  }

  private async beginRun(jobId: string, actor: Actor): Promise<void> {
    const { source, jobId: current, runId } = this.field.status;
    if (source === undefined) throw Refusal.of('field.noWire', '');
    if (runId !== undefined && current === jobId) return;
    if (runId !== undefined) throw Refusal.of('field.otherJob', '');
    await this.sendWholePlan(jobId);
    const run = await this.store.addRun(jobId, source, actor.name);
    await this.field.call({ kind: 'listen', runId: run.id });
    const { name: what } = await this.store.job(jobId);
    this.listening = { person: actor.name, what };
  }

  async rest(): Promise<void> {
    await this.field.call({ kind: 'rest' });
  }

  /** @param browser whose absence ends it; undefined where nobody sits before a page */
  async arm(minutes: number, actor: Actor): Promise<void> {
    const millis = Math.min(minutes, MOST_MINUTES) * 60_000;
    if (this.untold !== undefined) await this.sendPlan(this.untold);
    await this.field.call({ kind: 'arm', millis, person: actor.name });
    this.watched.begin(actor.browser);
  }

  /** A page says that it is still there. */
  here(browser: string | undefined): void {
    this.watched.here(browser);
  }

  silence(): Promise<void> {
    this.watched.end();
    return this.field.call({ kind: 'silence' });
  }

  async check(jobId: string, interfaceIds: readonly string[], actor: Actor): Promise<void> {
    await this.listen(jobId, actor);
    await this.field.call({ kind: 'check', interfaceIds, person: actor.name });
  }

  async watchPower(
    jobId: string,
    interfaceId: string,
    actor: Actor,
    evenSo?: string,
  ): Promise<void> {
    await this.listen(jobId, actor);
    await this.field.call({ kind: 'watch-power', interfaceId, person: actor.name, evenSo });
  }

  async pin(jobId: string, interfaceId: string, actor: Actor, evenSo?: string): Promise<void> {
    const plan = await this.store.plan(jobId);
    const found = findInterface(plan, interfaceId);
    if (!found) throw Refusal.of('thing.unknown', 'device');
    if (findKind(plan, found.device.kindId)?.pinning.by !== 'tcpip-object')
      throw Refusal.of('pin.noObject', '', { title: found.device.title });
    await this.listen(jobId, actor);
    await this.field.call({ kind: 'pin', interfaceId, person: actor.name, evenSo });
  }

  async follow(jobId: string, interfaceId: string, actor: Actor): Promise<void> {
    await this.listen(jobId, actor);
    await this.field.call({ kind: 'follow', interfaceId, person: actor.name });
  }

  async walk(jobId: string, interfaceId: string, subnetId: string, actor: Actor): Promise<void> {
    await this.listen(jobId, actor);
    await this.field.call({ kind: 'walk', interfaceId, subnetId, person: actor.name });
  }

  /** One register, as the plan has the port of its line. Refuses with what `registerAsked` refuses with. */
  async readRegister(
    jobId: string,
    interfaceId: string,
    { unit, written, counting }: RegisterWish,
    actor: Actor,
  ): Promise<void> {
    const asked = must(registerAsked(written, counting));
    const found = findInterface(await this.store.plan(jobId), interfaceId);
    const line = found?.device.lines.find(({ units }) => units.some((one) => one.unit === unit));
    await this.listen(jobId, actor);
    const tcpPort = line?.tcpPort ?? MODBUS_PORT;
    const order = { ...asked, unit, written, tcpPort, person: actor.name };
    await this.field.call({ kind: 'read-register', interfaceId, ...order });
  }

  /** Who is at the end of the route path to an interface. Refuses with `path.none`. */
  async askPath(jobId: string, interfaceId: string, from: string, actor: Actor): Promise<void> {
    const path = askedPath(await this.store.plan(jobId), from, interfaceId);
    if (!path) throw Refusal.of('path.none', '');
    const route = path.steps.map(({ port, link }) => ({ port, link }));
    await this.listen(jobId, actor);
    const ends = { entry: path.entry.id, interfaceId };
    await this.field.call({ kind: 'ask-path', ...ends, route, person: actor.name });
  }

  async openPage(jobId: string, interfaceId: string, actor: Actor): Promise<void> {
    await this.listen(jobId, actor);
    await this.field.call({ kind: 'open-page', interfaceId, person: actor.name });
  }

  /** What goes on for one job is not ended in the name of another. */
  needsJob(jobId: string): void {
    const { jobId: current, runId } = this.field.status;
    if (runId !== undefined && current !== jobId) throw Refusal.of('field.otherJob', '');
  }

  closePage(): Promise<void> {
    return this.field.call({ kind: 'close-page' });
  }

  /** The page of a device that is open, and how to reach it. */
  page(): RelayedPage | undefined {
    const { page } = this.field.status;
    if (!page) return undefined;
    return {
      host: formatIpv4(page.address),
      connect: () => {
        const { port1, port2 } = new MessageChannel();
        void this.field.call({ kind: 'converse', port: port1 }).catch(() => port2.close());
        return new WireStream(port2);
      },
    };
  }

  stations(): readonly StationView[] {
    return this.field.stations.map(stationView);
  }

  present(): readonly PresentView[] {
    return this.field.present.map(presentView);
  }

  async drill(jobId: string, step: 'begin' | 'on' | 'end', actor: Actor): Promise<void> {
    await this.listen(jobId, actor);
    await this.field.call({ kind: 'drill', step, person: actor.name });
  }

  /** Everybody, whatever their addresses: by ARP, and over layer 2. */
  async sweep(jobId: string, actor: Actor): Promise<void> {
    await this.listen(jobId, actor);
    await this.field.call({ kind: 'sweep' });
    await this.field.call({ kind: 'search' });
  }

  async search(jobId: string, actor: Actor): Promise<void> {
    await this.listen(jobId, actor);
    await this.field.call({ kind: 'search' });
  }

  /** R-TWINS: a person says that one device alone has the MAC bound to an interface. */
  async oneDevice(jobId: string, interfaceId: string): Promise<void> {
    const found = findInterface(await this.store.plan(jobId), interfaceId);
    if (found?.at.mac === undefined || this.field.status.jobId !== jobId) return;
    await this.field.call({ kind: 'one-device', mac: found.at.mac });
  }

  async flash(jobId: string, mac: MacAddress, actor: Actor): Promise<void> {
    await this.listen(jobId, actor);
    await this.field.call({ kind: 'flash', mac });
  }

  async giveStation(
    jobId: string,
    interfaceId: string,
    giving: Giving,
    actor: Actor,
    evenSo?: string,
  ): Promise<void> {
    await this.listen(jobId, actor);
    await this.field.call({
      kind: 'give-station',
      interfaceId,
      giving,
      person: actor.name,
      evenSo,
    });
  }

  async resetStation(
    jobId: string,
    interfaceId: string,
    reason: string,
    actor: Actor,
    evenSo?: string,
  ): Promise<void> {
    await this.listen(jobId, actor);
    await this.field.call({
      kind: 'reset-station',
      interfaceId,
      reason,
      person: actor.name,
      evenSo,
    });
  }

  async runs(jobId: string): Promise<readonly RunView[]> {
    const runs = await this.store.runs(jobId);
    return runs.map((run) => ({
      id: run.id,
      source: run.source,
      startedAt: run.started_at.getTime(),
      endedAt: run.ended_at?.getTime() ?? null,
      person: run.person,
    }));
  }

  /**
   * The plan changed: the wire has to know it before the next request. A plan that cannot be read
   * may have unbound somebody, so then the wire falls silent.
   */
  planChanged(jobId: string): Promise<void> {
    return this.turns.take(async () => {
      if (this.field.status.jobId !== jobId) return;
      try {
        await this.sendPlan(jobId);
      } catch (error) {
        // What was changed is changed: that the wire does not know it stops the wire, and not the person.
        this.untold = jobId;
        await this.silence().catch(() => undefined);
        this.notice('plan-untold', { why: error instanceof Error ? error.message : String(error) });
      }
    });
  }

  /** The live adapter; nothing of the web is served through it. */
  liveAdapter(): string | undefined {
    return adapterOf(this.field.status.source);
  }

  /** A run ends when somebody ends it, or by itself where nothing more can be kept. */
  runChanged(before: string | undefined): void {
    if (before === undefined) return;
    // While the database is away it stays open there; the next start ends it.
    void this.store.endRun(before).catch(() => undefined);
  }

  private sendWholePlan(jobId: string): Promise<void> {
    this.sent = undefined;
    return this.sendPlan(jobId);
  }

  /** One after the other, or an older plan could reach the wire after a newer one. */
  private async sendPlan(jobId: string): Promise<void> {
    const [plan, { byInterface }] = await Promise.all([
      this.store.plan(jobId),
      this.store.evidence.latest(jobId),
    ]);
    const now = this.clock();
    const next = this.plans.of(jobId, plan, byInterface, now);
    const known = this.sent?.jobId === jobId ? this.sent.targets : undefined;
    // Where this is not taken, nobody knows what the wire has.
    this.sent = undefined;
    await this.field.call({ kind: 'plan', plan: planNews(next, known) });
    this.sent = next;
    this.untold = undefined;
    this.whenLoanEnds(jobId, nextLoanEnd(plan, now) - now);
  }

  /** R-LOAN: from then on the planned address is given. @param millis until then */
  private whenLoanEnds(jobId: string, millis: number): void {
    clearTimeout(this.loanEnds);
    if (millis === Infinity) return;
    // Longer than a timer can wait: it looks again then.
    this.loanEnds = setTimeout(
      () => {
        void this.planChanged(jobId).catch(() => undefined);
      },
      Math.min(millis + 1, LONGEST_WAIT),
    );
    this.loanEnds.unref();
  }
}
