import { randomUUID } from 'node:crypto';
import {
  findDevice,
  changeOf,
  checkAddress,
  checkSubnet,
  defaultBands,
  diffDocs,
  docOf,
  editsOfTakingOut,
  findDoc,
  findInterface,
  findKind,
  findSubnet,
  FIRST_REALM,
  formatIpv4,
  formatMac,
  inverseOf,
  interfacesOf,
  factsOfRead,
  judgeLabel,
  judgeRead,
  parseHostName,
  parseIpv4,
  parseLabel,
  parseMac,
  parsePrefix,
  planOf,
  readEdits,
  toDevice,
  toInterface,
  toSubnet,
  type Binding,
  type DeviceChange,
  type Edit,
  type EvidenceKind,
  type EditedView,
  type Ipv4,
  type Issue,
  type Json,
  type JsonObject,
  type NewDevice,
  type NewSubnet,
  type Plan,
  type PlanFile,
  type ReadOff,
  type Subnet,
} from '@ipsonomo/core';
import { must, Refusal } from '../store/refusal';
import type { NewEvidence } from '../store/evidence';
import type { Changed, Decision, PlanState } from '../store/plan-store';
import type { Store } from '../store/store';
import { freedBy } from './freed';
import type { Told } from './job-teller';

export interface Person {
  readonly name: string;
}

/** Where a person's decisions come from, as the evidence names it. */
const DESK = 'desk';

/** Changes to plans: each one is checked by core, made in one transaction and kept as a revision. */
export class PlanChanger {
  constructor(
    private readonly store: Store,
    private readonly clock: () => number,
    private readonly told: Told,
  ) {}

  async addJob(name: string): Promise<string> {
    const trimmed = name.trim();
    if (trimmed === '') throw Refusal.of('name.empty', name);
    if ((await this.jobNames()).has(trimmed)) throw Refusal.of('job.taken', trimmed);
    const job = await this.store.addJob(trimmed);
    return job.id;
  }

  private async jobNames(): Promise<ReadonlySet<string>> {
    return new Set((await this.store.jobs()).map((job) => job.name));
  }

  /** A new job with a plan that is there already, under a name that no other job has. */
  async addJobWith({ name, doc }: PlanFile, person: Person): Promise<string> {
    const names = await this.jobNames();
    let free = name.trim() || 'Plan';
    for (let more = 2; names.has(free); more += 1) free = `${name.trim()} ${more}`;
    const jobId = await this.addJob(free);
    await this.apply(jobId, person, 'read from a plan file', (state) => ({
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
    person: Person,
  ): Promise<EditedView> {
    const read = readEdits(wanted);
    if (!read.ok) throw new Refusal(read.error);
    return this.write(jobId, read.value, why.trim() || 'changed the plan', person);
  }

  /** Edits that were read already, as one revision. */
  async write(
    jobId: string,
    wanted: readonly Edit[],
    what: string,
    person: Person,
  ): Promise<EditedView> {
    const { revision, edits } = await this.apply(jobId, person, what, () => ({
      edits: wanted,
      result: undefined,
    }));
    return { revision, edits };
  }

  async addSubnet(jobId: string, wanted: NewSubnet, person: Person): Promise<string> {
    const prefix = must(parsePrefix(wanted.network));
    const gateway = wanted.gateway === null ? undefined : must(parseIpv4(wanted.gateway));
    const name = requireText(wanted.name);
    const what = `added subnet ${name} ${wanted.network}`;
    const { result } = await this.apply(jobId, person, what, ({ doc }) => {
      const plan = planOf(doc);
      const realmId = plan.realms[0]?.id ?? FIRST_REALM.id;
      refuseAny(checkSubnet(plan, { prefix, gateway, realmId }));
      const { purpose } = wanted;
      const id = randomUUID();
      const bands = defaultBands(prefix, plan.settings.bandTemplate);
      const vlan = wanted.vlan ?? undefined;
      const subnet = toSubnet({ id, name, prefix, realmId, gateway, vlan, purpose, bands });
      return { edits: [{ op: 'add', type: 'subnet', thing: docOf('subnet', subnet) }], result: id };
    });
    return result;
  }

  /** Adds devices, all or none. */
  async addDevices(
    jobId: string,
    wanted: readonly NewDevice[],
    person: Person,
  ): Promise<readonly string[]> {
    const what =
      wanted.length === 1 ? `added ${wanted[0]?.title}` : `added ${wanted.length} devices`;
    const { result } = await this.apply(jobId, person, what, ({ doc }) =>
      newDevices(planOf(doc), wanted),
    );
    return result;
  }

  async changeDevice(
    jobId: string,
    deviceId: string,
    change: DeviceChange,
    person: Person,
  ): Promise<void> {
    const what = `changed ${change.title ?? 'a device'}`;
    await this.apply(jobId, person, what, ({ doc }) => {
      const plan = planOf(doc);
      const device = findDevice(plan, deviceId);
      const at = device?.interfaces[0];
      const thing = findDoc(doc, 'device', deviceId);
      const atThing = at && findDoc(doc, 'interface', at.id);
      if (!device || !thing) throw Refusal.of('thing.unknown', 'device');
      const { address, name, ...rest } = change;
      const fields: Record<string, Json> = { ...rest };
      if (name !== undefined && name !== device.name) {
        fields['name'] = refuseName(plan, name, device.id);
        fields['isNameTyped'] = true;
      }
      if (rest.title !== undefined) requireText(rest.title);
      const edits = [...changeOf('device', thing, fields)];
      if (address === undefined || !at || !atThing) return { edits, result: undefined };
      const subnet = findSubnet(plan, at.subnetId);
      const value = must(parseIpv4(address));
      if (!subnet) throw Refusal.of('thing.unknown', 'subnet');
      refuseAny(checkAddress(plan, subnet, value, at.id));
      edits.push(...changeOf('interface', atThing, { address: formatIpv4(value) }));
      return { edits, result: undefined };
    });
  }

  async removeDevice(jobId: string, deviceId: string, person: Person): Promise<void> {
    await this.apply(jobId, person, 'removed a device', ({ doc }) => {
      if (!findDoc(doc, 'device', deviceId)) throw Refusal.of('thing.unknown', 'device');
      return { edits: editsOfTakingOut(doc, new Set([deviceId])), result: undefined };
    });
  }

  /** Takes back a person's last revision that stands; the plan of others is not touched. */
  undo(jobId: string, person: Person): Promise<EditedView> {
    return this.takeBack(jobId, person, 'undo');
  }

  /** Does again what the person took back last, unless they changed something since. */
  redo(jobId: string, person: Person): Promise<EditedView> {
    return this.takeBack(jobId, person, 'redo');
  }

  private async takeBack(
    jobId: string,
    person: Person,
    which: 'undo' | 'redo',
  ): Promise<EditedView> {
    const target = takeable(await this.store.revisionList(jobId), person.name, which);
    if (!target) throw Refusal.of(which === 'undo' ? 'undo.none' : 'redo.none', '');
    const [row] = await this.store.editsSince(jobId, target.number - 1);
    const what =
      which === 'undo'
        ? `took back: ${target.what}`
        : `did again: ${target.what.replace(/^took back: /, '')}`;
    const change = { jobId, person: person.name, what, undoes: target.number };
    const done = await this.store.change(change, () => ({
      edits: inverseOf(row?.edits ?? []),
      result: undefined,
    }));
    await this.told.changed(jobId, { ...done, person: person.name });
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
  async bind(jobId: string, interfaceId: string, binding: Binding, person: Person): Promise<void> {
    const mac = must(parseMac(binding.mac));
    const heard = formatMac(mac);
    const facts = labelFacts(binding, heard);
    await this.apply(jobId, person, `bound ${heard}`, ({ doc }) => {
      const plan = planOf(doc);
      const found = findInterface(plan, interfaceId);
      const thing = findDoc(doc, 'interface', interfaceId);
      if (!found || !thing) throw Refusal.of('thing.unknown', 'device');
      const holder = interfacesOf(plan).find(({ at }) => at.mac === mac && at.id !== interfaceId);
      if (holder) throw Refusal.of('mac.taken', heard, { holder: holder.device.title });
      const { address } = found.at;
      const evidence = [this.said(jobId, interfaceId, 'bound', facts, person, mac, address)];
      return { edits: changeOf('interface', thing, { mac: heard }), result: undefined, evidence };
    });
  }

  async unbind(jobId: string, interfaceId: string, person: Person): Promise<void> {
    await this.apply(jobId, person, 'unbound a MAC', ({ doc }) => {
      const thing = findDoc(doc, 'interface', interfaceId);
      if (!thing) throw Refusal.of('thing.unknown', 'device');
      return { edits: changeOf('interface', thing, { mac: null }), result: undefined };
    });
  }

  /** A person says the kind's own step was done. */
  sayKept(jobId: string, interfaceId: string, person: Person): Promise<void> {
    return this.tick(jobId, interfaceId, 'said-kept', person, {});
  }

  sayGiven(jobId: string, interfaceId: string, person: Person): Promise<void> {
    return this.tick(jobId, interfaceId, 'said-given', person, {});
  }

  saySetBack(jobId: string, interfaceId: string, reason: string, person: Person): Promise<void> {
    return this.tick(jobId, interfaceId, 'said-set-back', person, { reason });
  }

  /** R-TWINS: lifts the verdict that two devices have its MAC. */
  sayOneDevice(jobId: string, interfaceId: string, reason: string, person: Person): Promise<void> {
    return this.tick(jobId, interfaceId, 'said-one-device', person, { reason });
  }

  /** A tick: it is kept as said, and raises no stage. */
  private async tick(
    jobId: string,
    interfaceId: string,
    kind: 'said-kept' | 'said-given' | 'said-set-back' | 'said-one-device',
    person: Person,
    facts: Readonly<Record<string, string>>,
  ): Promise<void> {
    const found = findInterface(await this.store.plan(jobId), interfaceId);
    if (!found) throw Refusal.of('thing.unknown', 'device');
    const { mac, address } = found.at;
    await this.store.evidence.append([
      this.said(jobId, interfaceId, kind, facts, person, mac, address),
    ]);
    await this.told.changed(jobId);
  }

  /** What a person read off the device, held against the plan. Refuses with `read.nothing`. */
  async readOff(
    jobId: string,
    interfaceId: string,
    { from, text }: ReadOff,
    person: Person,
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
    await this.store.evidence.append([
      this.said(jobId, interfaceId, kind, facts, person, mac, address),
    ]);
    await this.told.changed(jobId);
  }

  /** What a person says at the desk, as evidence. */
  private said(
    jobId: string,
    interfaceId: string,
    kind: EvidenceKind,
    facts: Readonly<Record<string, string>>,
    person: Person,
    mac: Parameters<typeof formatMac>[0] | undefined,
    address: Ipv4,
  ): NewEvidence {
    return {
      ...{ jobId, interfaceId, kind, at: this.clock(), mac, address, facts },
      ...{ source: DESK, person: person.name, runId: undefined, sequence: undefined },
      bytes: undefined,
    };
  }

  /** One change as one revision; addresses that become free by it are held, in the same revision. */
  private async apply<T>(
    jobId: string,
    person: Person,
    what: string,
    decide: (state: PlanState) => Decision<T>,
  ): Promise<Changed<T>> {
    const change = { jobId, person: person.name, what };
    const done = await this.store.change(change, (state) => {
      const decided = decide(state);
      const freed = freedBy(state.doc, decided.edits, this.clock(), state.revision + 1);
      return { ...decided, edits: [...decided.edits, ...freed] };
    });
    await this.told.changed(jobId, { ...done, person: person.name });
    return done;
  }
}

type Listed = Awaited<ReturnType<Store['revisionList']>>[number];

/** The revision of this person that undo or redo would take back now. @param list newest first */
function takeable(
  list: readonly Listed[],
  person: string,
  which: 'undo' | 'redo',
): Listed | undefined {
  const byNumber = new Map(list.map((one) => [one.number, one]));
  const taken = new Set<number>();
  for (const one of list) {
    if (one.undoes !== null) taken.add(one.undoes);
    if (one.person !== person || taken.has(one.number)) continue;
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

function refuseName(plan: Plan, text: string, except?: string): string {
  const name = must(parseHostName(text));
  const holder = plan.devices.find((device) => device.name === name && device.id !== except);
  if (holder) throw Refusal.of('name.taken', name, { holder: holder.title });
  return name;
}

function newDevices(plan: Plan, wanted: readonly NewDevice[]): Decision<readonly string[]> {
  const edits: Edit[] = [];
  const ids: string[] = [];
  const given = new Set<Ipv4>();
  const names = new Set<string>();
  for (const one of wanted) {
    const { subnet, address, name } = readDevice(plan, one);
    if (given.has(address) || names.has(name))
      throw Refusal.of(given.has(address) ? 'address.taken' : 'name.taken', one.address, {
        holder: 'another device of the same list',
      });
    given.add(address);
    names.add(name);
    const id = randomUUID();
    const { title, kindId, way, area, cabinet, position } = one;
    const device = toDevice({ id, title, name, kindId, way, area, cabinet, position });
    const at = toInterface({ id: randomUUID(), deviceId: id, subnetId: subnet.id, address });
    edits.push(
      { op: 'add', type: 'device', thing: docOf('device', device) },
      { op: 'add', type: 'interface', thing: docOf('interface', at) },
    );
    ids.push(id);
  }
  return { edits, result: ids };
}

function readDevice(
  plan: Plan,
  wanted: NewDevice,
): { readonly subnet: Subnet; readonly address: Ipv4; readonly name: string } {
  requireText(wanted.title);
  if (!findKind(plan, wanted.kindId)) throw Refusal.of('thing.unknown', 'kind');
  const subnet = findSubnet(plan, wanted.subnetId);
  if (!subnet) throw Refusal.of('thing.unknown', 'subnet');
  const name = refuseName(plan, wanted.name);
  const address = must(parseIpv4(wanted.address));
  refuseAny(checkAddress(plan, subnet, address));
  return { subnet, address, name };
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
