import {
  addressNow,
  countingMac,
  dhcpNameOf,
  findKind,
  gatewayOf,
  interfacesOf,
  maskLengthOf,
  pagePortOf,
  plannedAssemblies,
  progressOf,
  requiredChecks,
  speaksEnip,
  STAGE_EVIDENCE,
  stationNameOf,
  voiceAddress,
  type Device,
  type Evidence,
  type Interface,
  type Ipv4,
  type Kind,
  type Plan,
  type Subnet,
} from '@ipsonomo/core';
import type { FieldPlan, FieldSubnet, FieldTarget } from '../field/protocol';

const VOICE_CANDIDATES = 4;

/** What the wire needs to know of a plan, and of what was seen so far. */
export function fieldPlanOf(
  jobId: string,
  plan: Plan,
  evidence: ReadonlyMap<string, readonly Evidence[]>,
  now: number,
): FieldPlan {
  const subnets = new Map(plan.subnets.map((subnet) => [subnet.id, subnet]));
  const devices = new Map(plan.devices.map((device) => [device.id, device]));
  const given = new Map(plan.subnets.map(({ id }): [string, Ipv4[]] => [id, []]));
  const targets: FieldTarget[] = [];
  for (const { device, at } of interfacesOf(plan)) {
    const subnet = subnets.get(at.subnetId);
    if (!subnet) continue;
    const addresses = given.get(at.subnetId);
    addresses?.push(at.address);
    if (at.loan) addresses?.push(at.loan.address);
    const kind = findKind(plan, device.kindId);
    const controller =
      device.controllerId === undefined ? undefined : devices.get(device.controllerId);
    const seen = evidence.get(at.id) ?? NOTHING;
    const address = addressNow(at, now);
    targets.push(targetOf({ jobId, device, at, subnet, kind, controller, seen, address }));
  }
  return {
    jobId,
    targets,
    subnets: plan.subnets.map((subnet) => subnetOf(subnet, given.get(subnet.id) ?? [])),
  };
}

/** The subnets made last, with the addresses that the plan gave in them. */
const madeSubnets = new WeakMap<
  Subnet,
  { readonly given: readonly Ipv4[]; readonly made: FieldSubnet }
>();

function subnetOf(subnet: Subnet, given: readonly Ipv4[]): FieldSubnet {
  const known = madeSubnets.get(subnet);
  if (known?.given.length === given.length && known.given.every((one, at) => one === given[at]))
    return known.made;
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
