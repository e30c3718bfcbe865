import {
  checkAddress,
  findSubnet,
  formatIpv4,
  interfacesOf,
  macOrNull,
  progressOf,
  STAGES,
  subnetToView,
  type Device,
  type DeviceInfo,
  type Evidence,
  type EvidenceKind,
  type EvidenceView,
  type Interface,
  type InterfaceView,
  type JobSummary,
  type JobView,
  type Left,
  type Plan,
  type Stage,
} from '@ipsonomo/core';
import type { JobRecord, Store } from '../store/store';

/** So many lines of one device are read at once; the captures hold the rest. */
const MOST_EVIDENCE = 200;

type EvidenceMap = ReadonlyMap<string, readonly Evidence[]>;

/** Reads plans together with what the evidence says of them. Nothing computed here is stored. */
export class PlanReader {
  constructor(private readonly store: Store) {}

  async jobs(): Promise<readonly JobSummary[]> {
    const jobs = await this.store.jobs();
    return Promise.all(jobs.map((job) => this.summary(job)));
  }

  async job(jobId: string): Promise<JobView> {
    const job = await this.store.job(jobId);
    const [plan, evidence, revisions] = await Promise.all([
      this.store.plan(jobId),
      this.store.latestEvidence(jobId),
      this.store.revisions(jobId),
    ]);
    const devices = plan.devices.map((device) => deviceInfo(plan, device, evidence));
    const left = leftOf(devices, revisions.last - revisions.handedOver);
    const subnets = plan.subnets.map(subnetToView);
    return { id: job.id, name: job.name, revision: revisions.last, subnets, devices, left };
  }

  async evidenceOf(jobId: string, interfaceId: string): Promise<readonly EvidenceView[]> {
    const found = await this.store.evidenceOf(jobId, interfaceId, MOST_EVIDENCE);
    return found.map(evidenceView);
  }

  private async summary(job: JobRecord): Promise<JobSummary> {
    const { subnets, devices, left, name } = await this.job(job.id);
    return { id: job.id, name, subnets: subnets.length, devices: devices.length, left };
  }
}

function leftOf(devices: readonly DeviceInfo[], changes: number): Left {
  const interfaces = devices.flatMap((device) => device.interfaces);
  const at = (stage: Stage) => STAGES.indexOf(stage);
  return {
    plan: interfaces.filter((one) => one.issues.length > 0).length,
    assign: interfaces.filter((one) => at(one.stage) < at('pinned')).length,
    prove: interfaces.filter((one) => one.check?.kind !== 'found-as-planned' && isDue(one)).length,
    handOver: changes,
  };
}

/** Something can be proven, or was found otherwise. */
const isDue = (one: InterfaceView): boolean =>
  one.check !== null || STAGES.indexOf(one.stage) >= STAGES.indexOf('given');

function deviceInfo(plan: Plan, device: Device, evidence: EvidenceMap): DeviceInfo {
  const interfaces = device.interfaces.map((at) =>
    interfaceView(plan, device, at, evidence.get(at.id) ?? []),
  );
  return { ...device, interfaces };
}

const CHECKS: readonly EvidenceKind[] = ['found-as-planned', 'contradicted', 'no-answer'];
const KEEPS: readonly EvidenceKind[] = ['told-to-keep', 'said-kept', 'keep-refused'];
const TROUBLES: readonly EvidenceKind[] = ['address-taken', 'twins', 'declined'];
const TROUBLE_ENDS: readonly EvidenceKind[] = [...TROUBLES, 'has-address', 'answered'];

function interfaceView(
  plan: Plan,
  device: Device,
  at: Interface,
  evidence: readonly Evidence[],
): InterfaceView {
  const subnet = findSubnet(plan, at.subnetId);
  const counting = evidence.filter(
    (one) => one.address === undefined || one.address === at.address,
  );
  const { stage, notches } = progressOf(device.way, at, counting);
  const last = (kinds: readonly EvidenceKind[]): Evidence | undefined =>
    counting.findLast((one) => kinds.includes(one.kind) && (!one.mac || one.mac === at.mac));
  const trouble = last(TROUBLE_ENDS);
  return {
    id: at.id,
    subnetId: at.subnetId,
    address: formatIpv4(at.address),
    mac: macOrNull(at.mac),
    stage,
    notches: notches.map(({ by, ...notch }) => ({ ...notch, by: by ? evidenceView(by) : null })),
    issues: subnet ? checkAddress(plan, subnet, at.address, at.id) : [],
    check: viewOrNull(last(CHECKS)),
    keep: viewOrNull(last(KEEPS)),
    trouble: trouble && TROUBLES.includes(trouble.kind) ? evidenceView(trouble) : null,
  };
}

const viewOrNull = (one: Evidence | undefined): EvidenceView | null =>
  one ? evidenceView(one) : null;

export const evidenceView = (one: Evidence): EvidenceView => ({
  ...one,
  mac: macOrNull(one.mac),
  address: one.address === undefined ? null : formatIpv4(one.address),
});

/** The planned interface with this id, or a refusal by the caller. */
export const findInterface = (plan: Plan, interfaceId: string) =>
  interfacesOf(plan).find(({ at }) => at.id === interfaceId);
