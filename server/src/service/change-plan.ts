import { NAME_WORDS, REVISION_WORDS } from '@ipsonomo/language/kept';
import { randomUUID } from 'node:crypto';
import type { Binding, EditedView, NewSubnet, ReadOff, SaidWritten } from '@ipsonomo/core/api';
import type { PlanFile } from '@ipsonomo/core/formats';
import {
  formatIpv4,
  formatMac,
  formatPrefix,
  judgeLabel,
  parseIpv4,
  parseLabel,
  parseMac,
  readNetwork,
  type Issue,
} from '@ipsonomo/core/net';
import {
  changeOf,
  checkSubnet,
  diffDocs,
  findDoc,
  findInterface,
  firstRealm,
  inverseOf,
  interfacesOf,
  factsOfRead,
  judgeRead,
  planOf,
  readEdits,
  subnetEdit,
  type Edit,
  type EvidenceKind,
  type FactsOf,
  type JsonObject,
} from '@ipsonomo/core/plan';
import { must, Refusal } from '../store/refusal';
import type { NewEvidence } from '../store/evidence';
import type { Changed, Decision, PlanState } from '../store/plan-store';
import type { Store } from '../store/store';
import type { Actor } from './actor';
import { freedBy } from './freed';
import type { Told } from './job-teller';

type SaidKind = Extract<EvidenceKind, `said-${string}`>;

/** Where a person's decisions come from, as the evidence names it. */
const DESK = 'desk';

/** What was taken back by a revision that says so. */
const withoutTookBack = (what: string): string => {
  const head = REVISION_WORDS.tookBack({ what: '' });
  return what.startsWith(head) ? what.slice(head.length) : what;
};

/** Changes to plans: each one is checked by core, made in one transaction and kept as a revision. */
export class PlanChanger {
  constructor(
    private readonly store: Store,
    private readonly clock: () => number,
    private readonly told: Told,
  ) {}

  async addJob(name: string): Promise<string> {
    const job = await this.store.addJob(await this.freeName(name));
    return job.id;
  }

  async renameJob(jobId: string, name: string): Promise<void> {
    const { name: before } = await this.store.job(jobId);
    if (name.trim() === before) return;
    await this.store.renameJob(jobId, await this.freeName(name));
    this.told.otherwise(jobId);
  }

  /** A name that no other job has. Refuses with `name.empty` and `job.taken`. */
  private async freeName(name: string): Promise<string> {
    const trimmed = name.trim();
    if (trimmed === '') throw Refusal.of('name.empty', name);
    if ((await this.jobNames()).has(trimmed)) throw Refusal.of('job.taken', trimmed);
    return trimmed;
  }

  private async jobNames(): Promise<ReadonlySet<string>> {
    return new Set((await this.store.jobs()).map((job) => job.name));
  }

  /** A new job with a plan that is there already, under a name that no other job has. */
  async addJobWith(
    { name, doc }: Pick<PlanFile, 'name' | 'doc'>,
    actor: Actor,
    why = REVISION_WORDS.readFromFile,
  ): Promise<string> {
    const names = await this.jobNames();
    let free = name.trim() || NAME_WORDS.plan;
    for (let more = 2; names.has(free); more += 1) free = `${name.trim()} ${more}`;
    const jobId = await this.addJob(free);
    await this.apply(jobId, actor, why, (state) => ({
      edits: diffDocs(state.doc, doc),
      result: undefined,
    }));
    return jobId;
  }

  /**
   * Any edits of any things, as a grid makes them. What is wrong in the plan then is a snag and no
   * refusal; only what cannot be read, or what somebody else changed meanwhile, is refused.
   */
  async edit(
    jobId: string,
    wanted: readonly JsonObject[],
    why: string,
    actor: Actor,
  ): Promise<EditedView> {
    const read = readEdits(wanted);
    if (!read.ok) throw new Refusal(read.error);
    return this.write(jobId, read.value, why.trim() || REVISION_WORDS.changed, actor);
  }

  /** Edits that were read already, as one revision. */
  async write(
    jobId: string,
    wanted: readonly Edit[],
    what: string,
    actor: Actor,
  ): Promise<EditedView> {
    const { revision, edits } = await this.apply(jobId, actor, what, () => ({
      edits: wanted,
      result: undefined,
    }));
    return { revision, edits };
  }

  async addSubnet(jobId: string, wanted: NewSubnet, actor: Actor): Promise<string> {
    const prefix = must(readNetwork(wanted.network));
    const gateway = wanted.gateway === null ? undefined : must(parseIpv4(wanted.gateway));
    const name = requireText(wanted.name);
    const what = REVISION_WORDS.addedSubnet({ name, network: formatPrefix(prefix) });
    const id = randomUUID();
    await this.apply(jobId, actor, what, ({ doc }) => {
      const plan = planOf(doc);
      refuseAny(checkSubnet(plan, { prefix, gateway, realmId: firstRealm(plan) }));
      const { purpose } = wanted;
      const vlan = wanted.vlan ?? undefined;
      const edits = [subnetEdit(plan, { id, name, prefix, gateway, vlan, purpose })];
      return { edits, result: undefined };
    });
    return id;
  }

  /** Takes back a person's last revision that stands; the plan of others is not touched. */
  undo(jobId: string, actor: Actor): Promise<EditedView> {
    return this.takeBack(jobId, actor, 'undo');
  }

  /** Does again what the person took back last, unless they changed something since. */
  redo(jobId: string, actor: Actor): Promise<EditedView> {
    return this.takeBack(jobId, actor, 'redo');
  }

  private async takeBack(jobId: string, actor: Actor, which: 'undo' | 'redo'): Promise<EditedView> {
    const target = takeable(await this.store.revisionList(jobId), actor, which);
    if (!target) throw Refusal.of(which === 'undo' ? 'undo.none' : 'redo.none', '');
    const [row] = await this.store.editsSince(jobId, target.number - 1);
    const what =
      which === 'undo'
        ? REVISION_WORDS.tookBack({ what: target.what })
        : REVISION_WORDS.didAgain({ what: withoutTookBack(target.what) });
    const change = { jobId, ...signed(actor), what, undoes: target.number };
    const done = await this.store.change(change, () => ({
      edits: inverseOf(row?.edits ?? []),
      result: undefined,
    }));
    await this.told.changed(jobId, { ...done, person: actor.name });
    return { revision: done.revision, edits: done.edits };
  }

  async nameRevision(jobId: string, number: number, name: string): Promise<void> {
    await this.store.nameRevision(jobId, number, requireText(name));
    this.told.otherwise(jobId, number);
  }

  /**
   * Binds a MAC to a planned interface. The label that was held against it is kept as evidence; one
   * that reads otherwise needs a reason.
   */
  async bind(jobId: string, interfaceId: string, binding: Binding, actor: Actor): Promise<void> {
    const mac = must(parseMac(binding.mac));
    const heard = formatMac(mac);
    const facts = labelFacts(binding, heard);
    await this.apply(jobId, actor, `bound ${heard}`, ({ doc }) => {
      const plan = planOf(doc);
      const found = findInterface(plan, interfaceId);
      const thing = findDoc(doc, 'interface', interfaceId);
      if (!found || !thing) throw Refusal.of('thing.unknown', 'device');
      const holder = interfacesOf(plan).find(({ at }) => at.mac === mac && at.id !== interfaceId);
      if (holder) throw Refusal.of('mac.taken', heard, { holder: holder.device.title });
      const { address } = found.at;
      const evidence = [this.said({ jobId, interfaceId, mac, address }, 'bound', facts, actor)];
      return { edits: changeOf('interface', thing, { mac: heard }), result: undefined, evidence };
    });
  }

  async unbind(jobId: string, interfaceId: string, actor: Actor): Promise<void> {
    await this.apply(jobId, actor, 'unbound a MAC', ({ doc }) => {
      const thing = findDoc(doc, 'interface', interfaceId);
      if (!thing) throw Refusal.of('thing.unknown', 'device');
      return { edits: changeOf('interface', thing, { mac: null }), result: undefined };
    });
  }

  /** A person says the kind's own step was done. */
  sayKept(jobId: string, interfaceId: string, actor: Actor): Promise<void> {
    return this.tick(jobId, interfaceId, 'said-kept', actor, {});
  }

  sayGiven(jobId: string, interfaceId: string, actor: Actor): Promise<void> {
    return this.tick(jobId, interfaceId, 'said-given', actor, {});
  }

  saySetBack(jobId: string, interfaceId: string, reason: string, actor: Actor): Promise<void> {
    return this.tick(jobId, interfaceId, 'said-set-back', actor, { reason });
  }

  /** R-WRITTEN: a place on the list of where an address is written, ticked off or taken back. */
  sayWritten(jobId: string, interfaceId: string, said: SaidWritten, actor: Actor): Promise<void> {
    return this.tick(jobId, interfaceId, 'said-written', actor, said);
  }

  /** What a person notes of it, and photographs. */
  note(
    jobId: string,
    interfaceId: string,
    facts: { readonly text: string; readonly photo?: string },
    actor: Actor,
  ): Promise<void> {
    return this.tick(jobId, interfaceId, 'said-note', actor, facts);
  }

  /** R-TWINS: lifts the verdict that two devices have its MAC. */
  sayOneDevice(jobId: string, interfaceId: string, reason: string, actor: Actor): Promise<void> {
    return this.tick(jobId, interfaceId, 'said-one-device', actor, { reason });
  }

  /** A tick: it is kept as said, and raises no stage. */
  private async tick<K extends SaidKind>(
    jobId: string,
    interfaceId: string,
    kind: K,
    actor: Actor,
    facts: FactsOf<K>,
  ): Promise<void> {
    const found = findInterface(await this.store.plan(jobId), interfaceId);
    if (!found) throw Refusal.of('thing.unknown', 'device');
    const { mac, address } = found.at;
    const evidence = [this.said({ jobId, interfaceId, mac, address }, kind, facts, actor)];
    await this.store.evidence.append(evidence, actor.waited);
    await this.told.changed(jobId);
  }

  /** What a person read off the device, held against the plan. Refuses with `read.nothing`. */
  async readOff(
    jobId: string,
    interfaceId: string,
    { from, text }: ReadOff,
    actor: Actor,
  ): Promise<void> {
    const found = findInterface(await this.store.plan(jobId), interfaceId);
    if (!found) throw Refusal.of('thing.unknown', 'device');
    const { mac, address } = found.at;
    const read = judgeRead(text, { mac, address });
    if (read.macs.length + read.addresses.length === 0) throw Refusal.of('read.nothing', '');
    const isSame = read.mac === undefined || read.mac.kind === 'same';
    // A page of facts has no address on it: then its MAC alone is what was asked for.
    const isPlanned = read.hasPlanned || read.addresses.length === 0;
    const kind = isSame && isPlanned ? 'read-off' : 'read-otherwise';
    const facts = { from, ...factsOfRead(read), planned: formatIpv4(address) };
    const evidence = [this.said({ jobId, interfaceId, mac, address }, kind, facts, actor)];
    await this.store.evidence.append(evidence, actor.waited);
    await this.told.changed(jobId);
  }

  /** What a person says at the desk, as evidence. */
  private said<K extends EvidenceKind>(
    of: Pick<NewEvidence, 'jobId' | 'interfaceId' | 'mac' | 'address'>,
    kind: K,
    facts: FactsOf<K>,
    actor: Actor,
  ): NewEvidence {
    return {
      ...{ ...of, kind, at: this.clock(), facts: { ...facts, ...doneAt(actor, this.clock()) } },
      ...{ source: DESK, person: actor.name, runId: undefined, sequence: undefined },
      bytes: undefined,
    };
  }

  /** One change as one revision; addresses that become free by it are held, in the same revision. */
  private async apply<T>(
    jobId: string,
    actor: Actor,
    what: string,
    decide: (state: PlanState) => Decision<T>,
  ): Promise<Changed<T>> {
    const change = { jobId, ...signed(actor), what };
    const done = await this.store.change(change, (state) => {
      const decided = decide(state);
      const freed = freedBy(state.doc, decided.edits, this.clock(), state.revision + 1);
      return { ...decided, edits: [...decided.edits, ...freed] };
    });
    if (!done.isAgain) await this.told.changed(jobId, { ...done, person: actor.name });
    return done;
  }
}

type Listed = Awaited<ReturnType<Store['revisionList']>>[number];

/** What is worth telling beside the time at which it came: by less nobody's watch is right. */
const WORTH_TELLING = 60_000;

/** When it was done, of what a browser kept for a while. */
const doneAt = ({ waited }: Actor, now: number): { readonly doneAt?: number } =>
  waited && now - waited.doneAt >= WORTH_TELLING ? { doneAt: waited.doneAt } : {};

/** Who changes something, as a revision has them. */
const signed = ({ name, account, waited }: Actor) => ({
  ...{ person: name, account: account?.id, waited },
});

/** By their account, whatever they were called; by the name where there is none. */
const isOf = ({ person, account_id }: Listed, { name, account }: Actor): boolean =>
  account_id !== null && account !== undefined ? account_id === account.id : person === name;

/** The revision of this person that undo or redo would take back now. @param list newest first */
function takeable(
  list: readonly Listed[],
  actor: Actor,
  which: 'undo' | 'redo',
): Listed | undefined {
  const byNumber = new Map(list.map((one) => [one.number, one]));
  const taken = new Set<number>();
  for (const one of list) {
    if (one.undoes !== null) taken.add(one.undoes);
    if (!isOf(one, actor) || taken.has(one.number)) continue;
    const isUndo = isUndoOf(one, byNumber);
    if (which === 'undo' && !isUndo) return one;
    // Whoever changed something after an undo has left what was undone behind.
    if (which === 'redo') return isUndo ? one : undefined;
  }
  return undefined;
}

/** An undo takes back a change; what takes back an undo is a redo, and counts as a change again. */
function isUndoOf(one: Listed, byNumber: ReadonlyMap<number, Listed>): boolean {
  if (one.undoes === null) return false;
  const target = byNumber.get(one.undoes);
  return target === undefined || !isUndoOf(target, byNumber);
}

function refuseAny(issues: readonly Issue[]): void {
  if (issues.length > 0) throw new Refusal(issues);
}

function requireText(text: string): string {
  const trimmed = text.trim();
  if (trimmed === '') throw Refusal.of('name.empty', text);
  return trimmed;
}

function labelFacts(binding: Binding, heard: string): Readonly<Record<string, string>> {
  const { label, reason } = binding;
  if (label === '') return reason?.trim() ? { reason: reason.trim() } : {};
  const reading = must(parseLabel(label));
  const read = formatMac(reading.mac);
  const verdict = judgeLabel(reading.mac, must(parseMac(heard)));
  if (verdict.kind === 'same') return { label: read };
  if (!reason?.trim()) throw Refusal.of('label.differs', read, { heard });
  return { label: read, reason: reason.trim() };
}
