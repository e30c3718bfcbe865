import type { Ipv4 } from '@ipsonomo/core/net';
import {
  addressNow,
  countingMac,
  dhcpNameOf,
  findKind,
  gatewayOf,
  maskLengthOf,
  pagePortOf,
  progressOf,
  speaksEnip,
  STAGE_EVIDENCE,
  stationNameOf,
  voiceAddress,
  type Device,
  type Evidence,
  type Interface,
  type Kind,
  type Plan,
  type Subnet,
} from '@ipsonomo/core/plan';
import { plannedAssemblies, requiredChecks } from '@ipsonomo/core/proof';
import type { FieldPlan, FieldSubnet, FieldTarget } from '@ipsonomo/wire';

const VOICE_CANDIDATES = 4;

/** What was made of one device, and from what. */
interface Row {
  readonly device: Device;
  readonly targets: readonly FieldTarget[];
  readonly seen: readonly (readonly Evidence[])[];
  /** Its addresses change with the time. */
  readonly lends: boolean;
}

interface Made {
  readonly jobId: string;
  readonly plan: Plan;
  readonly evidence: EvidenceOf;
  readonly rows: readonly Row[];
  /** Where the targets of each row begin. */
  readonly starts: readonly number[];
  readonly made: FieldPlan;
}

type EvidenceOf = ReadonlyMap<string, readonly Evidence[]>;

type Result = Pick<Made, 'rows' | 'starts' | 'made'>;

/**
 * What the wire needs to know of a plan and of what was seen so far. Of the job it was asked for last only what can have
 * changed is made anew: the thread that answers has a plan of thousands at every edit.
 */
export class FieldPlanBook {
  private last: Made | undefined;
  private given = new Given();

  of(jobId: string, plan: Plan, evidence: EvidenceOf, now: number): FieldPlan {
    const { last } = this;
    const asked = { jobId, plan, evidence, now };
    const follows =
      last?.jobId === jobId &&
      last.plan.subnets === plan.subnets &&
      last.plan.kinds === plan.kinds &&
      last.plan.devices.length === plan.devices.length;
    const { rows, starts, made } = follows ? this.forward(asked, last) : this.whole(asked);
    this.last = { jobId, plan, evidence, rows, starts, made };
    return made;
  }

  private whole(asked: Asked): Result {
    const { jobId, plan } = asked;
    const maker = new RowMaker(asked);
    const rows = plan.devices.map((device) => maker.row(device));
    this.given = new Given();
    for (const row of rows) this.given.add(row, 1);
    const subnets = plan.subnets.map((one) => subnetOf(one, this.given.in(one.id)));
    const { targets, starts } = targetsOf(rows);
    return { rows, starts, made: { jobId, targets, subnets } };
  }

  private forward(asked: Asked, last: Made): Result {
    const due = dueRows(asked, last);
    if (due.length === 0) return last;
    const maker = new RowMaker(asked);
    const rows = [...last.rows];
    const touched = new Set<string>();
    for (const index of due) {
      const [old, row] = [last.rows[index], maker.row(asked.plan.devices[index] as Device)];
      rows[index] = row;
      if (!old || hasSameAddresses(old, row)) continue;
      this.given.add(old, -1);
      this.given.add(row, 1);
      for (const one of [old, row])
        for (const { subnetId } of one.device.interfaces) touched.add(subnetId);
    }
    const { jobId, plan } = asked;
    const { targets, starts } = targetsAgain(rows, last, due);
    const subnets = plan.subnets.map((one, at) => {
      const known = touched.has(one.id) ? undefined : last.made.subnets[at];
      return known ?? subnetOf(one, this.given.in(one.id));
    });
    return { rows, starts, made: { jobId, targets, subnets } };
  }
}

function targetsOf(rows: readonly Row[]) {
  const targets: FieldTarget[] = [];
  const starts = rows.map((row) => {
    const start = targets.length;
    targets.push(...row.targets);
    return start;
  });
  return { targets, starts };
}

/** The list of before with the new ones in it, where each row still has as many. */
function targetsAgain(rows: readonly Row[], last: Made, due: readonly number[]) {
  const isAsMany = (at: number) => rows[at]?.targets.length === last.rows[at]?.targets.length;
  if (!due.every(isAsMany)) return targetsOf(rows);
  const targets = [...last.made.targets];
  for (const at of due)
    rows[at]?.targets.forEach(
      (target, index) => (targets[(last.starts[at] ?? 0) + index] = target),
    );
  return { targets, starts: last.starts };
}

const hasSameAddresses = (a: Row, b: Row): boolean =>
  a.device.interfaces === b.device.interfaces ||
  (a.device.interfaces.length === b.device.interfaces.length &&
    a.device.interfaces.every((one, at) => one === b.device.interfaces[at]));

/** How often the plan gives an address in each subnet. */
class Given {
  private readonly counts = new Map<string, Map<Ipv4, number>>();

  add({ device }: Row, by: 1 | -1): void {
    for (const { subnetId, address, loan } of device.interfaces) {
      let counts = this.counts.get(subnetId);
      if (!counts) this.counts.set(subnetId, (counts = new Map()));
      for (const one of loan ? [address, loan.address] : [address]) {
        const count = (counts.get(one) ?? 0) + by;
        if (count === 0) counts.delete(one);
        else counts.set(one, count);
      }
    }
  }

  in(subnetId: string): ReadonlySet<Ipv4> {
    return new Set(this.counts.get(subnetId)?.keys());
  }
}

interface Asked {
  readonly jobId: string;
  readonly plan: Plan;
  readonly evidence: EvidenceOf;
  readonly now: number;
}

/** Where a row cannot be what it was: of devices that changed, lend, were seen, or whose controller changed. */
function dueRows({ plan, evidence }: Asked, last: Made): readonly number[] {
  const changed = changedIds(last.plan, plan);
  const isSeenSame = last.evidence === evidence;
  const due: number[] = [];
  for (const [index, { device, lends, seen }] of last.rows.entries()) {
    const isDue =
      plan.devices[index] !== device ||
      lends ||
      (changed.size > 0 && changed.has(device.controllerId ?? '')) ||
      (!isSeenSame && device.interfaces.some(({ id }, at) => seenOf(evidence, id) !== seen[at]));
    if (isDue) due.push(index);
  }
  return due;
}

/** Ids of devices that are not what they were, or where they were. */
function changedIds(before: Plan, now: Plan): ReadonlySet<string> {
  const changed = new Set<string>();
  if (before.devices === now.devices) return changed;
  for (const [index, device] of now.devices.entries()) {
    const old = before.devices[index];
    if (old === device) continue;
    if (old) changed.add(old.id);
    changed.add(device.id);
  }
  return changed;
}

const seenOf = (evidence: EvidenceOf, id: string): readonly Evidence[] =>
  evidence.get(id) ?? NOTHING;

const FEW = 8;

/** Makes what the wire needs of one device after the other. */
class RowMaker {
  private readonly subnets: ReadonlyMap<string, Subnet>;
  private devices: ReadonlyMap<string, Device> | undefined;
  private looked = 0;

  constructor(private readonly asked: Asked) {
    this.subnets = new Map(asked.plan.subnets.map((subnet) => [subnet.id, subnet]));
  }

  row(device: Device): Row {
    const { jobId, plan, evidence, now } = this.asked;
    const seen = device.interfaces.map(({ id }) => seenOf(evidence, id));
    const kind = findKind(plan, device.kindId);
    const controller = this.controllerOf(device);
    const targets = device.interfaces.flatMap((at, index) => {
      const subnet = this.subnets.get(at.subnetId);
      if (!subnet) return [];
      const address = addressNow(at, now);
      const of = { jobId, device, at, subnet, kind, controller, address };
      return [targetOf({ ...of, seen: seen[index] ?? NOTHING })];
    });
    return { device, targets, seen, lends: device.interfaces.some(({ loan }) => loan) };
  }

  private controllerOf({ controllerId }: Device): Device | undefined {
    if (controllerId === undefined) return undefined;
    this.looked += 1;
    // A table of all is made for many, and not for the one device of an edit.
    if (this.looked < FEW) return this.asked.plan.devices.find(({ id }) => id === controllerId);
    this.devices ??= new Map(this.asked.plan.devices.map((one) => [one.id, one]));
    return this.devices.get(controllerId);
  }
}

/** The subnets made last, with the addresses that the plan gave in them. */
const madeSubnets = new WeakMap<
  Subnet,
  { readonly given: ReadonlySet<Ipv4>; readonly made: FieldSubnet }
>();

const isSameSet = (a: ReadonlySet<Ipv4>, b: ReadonlySet<Ipv4>): boolean =>
  a.size === b.size && [...a].every((one) => b.has(one));

function subnetOf(subnet: Subnet, given: ReadonlySet<Ipv4>): FieldSubnet {
  const known = madeSubnets.get(subnet);
  if (known && isSameSet(known.given, given)) return known.made;
  const made = {
    id: subnet.id,
    name: subnet.name,
    network: subnet.prefix.network,
    length: subnet.prefix.length,
    gateway: subnet.gateway,
    voices: voiceCandidates(subnet, new Set(given)),
    servers: subnet.dhcpServers,
  };
  madeSubnets.set(subnet, { given, made });
  return made;
}

const NOTHING: readonly Evidence[] = [];

/** All that a target is made from. */
interface Parts {
  readonly jobId: string;
  readonly device: Device;
  readonly at: Interface;
  readonly subnet: Subnet;
  readonly kind: Kind | undefined;
  readonly controller: Device | undefined;
  readonly seen: readonly Evidence[];
  readonly address: Ipv4;
}

/** The targets made last: one whose parts are the same stays the same, and is not told again. */
const made = new WeakMap<Interface, { readonly from: Parts; readonly target: FieldTarget }>();

const isSame = (a: Parts, b: Parts): boolean =>
  a.device === b.device &&
  a.seen === b.seen &&
  a.address === b.address &&
  a.controller === b.controller &&
  a.subnet === b.subnet &&
  a.kind === b.kind &&
  a.jobId === b.jobId;

function targetOf(from: Parts): FieldTarget {
  const known = made.get(from.at);
  if (known && isSame(known.from, from)) return known.target;
  const target = newTarget(from);
  made.set(from.at, { from, target });
  return target;
}

function newTarget({
  jobId,
  device,
  at,
  subnet,
  kind,
  controller,
  seen,
  address,
}: Parts): FieldTarget {
  const { notches } = progressOf(device.way, { ...at, address }, seen);
  return {
    interfaceId: at.id,
    jobId,
    title: device.title,
    subnetId: at.subnetId,
    mac: countingMac(device.way, at, seen),
    key: keyOf(device, at),
    address,
    lentUntil: address === at.address ? undefined : at.loan?.until,
    length: maskLengthOf(at, subnet),
    gateway: gatewayOf(at, subnet),
    hostName: device.name,
    way: device.way,
    stationName: stationNameOf(device),
    answersPing: kind?.answersPing ?? true,
    heardBy: STAGE_EVIDENCE[device.way].heard,
    bootSeconds: kind?.bootSeconds ?? 0,
    factory: kind?.factory.kind === 'fixed' ? kind.factory.address : undefined,
    page: kind && pagePortOf(kind),
    revision: kind?.revision ?? '',
    hasIdentity: kind !== undefined && speaksEnip(kind),
    proof: proofOf(device, kind),
    controller: controller?.title ?? '',
    controllerAt: controller?.interfaces.map((one) => one.address) ?? [],
    holds: notches.some(({ stage, state }) => stage === 'given' && state === 'reached'),
  };
}

const proofOf = (device: Device, kind: Kind | undefined): FieldTarget['proof'] => ({
  checks: requiredChecks(kind, device.way).map(({ check }) => check),
  identity: kind?.identity,
  orderNumber: kind?.orderNumber ?? '',
  revision: kind?.revision ?? '',
  serial: device.serial,
  station: kind?.station,
  assemblies: plannedAssemblies(device),
  modules: device.modules,
  // The same list for every device of the kind: it is sent to the wire's thread once.
  offers: kind?.modules ?? [],
  services: (kind?.services ?? []).filter(({ protocol }) => protocol === 'tcp'),
});

/** What such a device is recognised by, where that is not its MAC. */
function keyOf(device: Device, at: Interface): FieldTarget['key'] {
  if (device.way === 'dhcp-name') return { by: 'name', name: dhcpNameOf(device) };
  if (device.way !== 'dhcp-port') return { by: 'mac' };
  // One whose port is not known yet is answered by nobody.
  return { by: 'port', port: at.port };
}

/** @param taken the addresses that the plan gives in it; those found are added */
function voiceCandidates(subnet: Subnet, taken: Set<Ipv4>): readonly Ipv4[] {
  const voices: Ipv4[] = [];
  while (voices.length < VOICE_CANDIDATES) {
    const next = voiceAddress(subnet, taken);
    if (next === undefined) break;
    voices.push(next);
    taken.add(next);
  }
  return voices;
}
