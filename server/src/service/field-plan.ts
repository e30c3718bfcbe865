import {
  addressNow,
  countingMac,
  dhcpNameOf,
  findKind,
  gatewayOf,
  givenAddresses,
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
} from '@ipsonomo/core';
import type { FieldPlan, FieldTarget } from '../field/protocol';

const VOICE_CANDIDATES = 4;

/** What the wire needs to know of a plan, and of what was seen so far. */
export function fieldPlanOf(
  jobId: string,
  plan: Plan,
  evidence: ReadonlyMap<string, readonly Evidence[]>,
  now: number,
): FieldPlan {
  const subnets = new Map(plan.subnets.map((subnet) => [subnet.id, subnet]));
  return {
    jobId,
    targets: interfacesOf(plan).flatMap(({ device, at }) => {
      const subnet = subnets.get(at.subnetId);
      if (!subnet) return [];
      const kind = findKind(plan, device.kindId);
      const seen = evidence.get(at.id) ?? [];
      const address = addressNow(at, now);
      const { notches } = progressOf(device.way, { ...at, address }, seen);
      const controller = plan.devices.find(({ id }) => id === device.controllerId);
      return [
        {
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
          controllerAt: controller?.interfaces.map(({ address }) => address) ?? [],
          holds: notches.some(({ stage, state }) => stage === 'given' && state === 'reached'),
        },
      ];
    }),
    subnets: plan.subnets.map((subnet) => ({
      id: subnet.id,
      name: subnet.name,
      network: subnet.prefix.network,
      length: subnet.prefix.length,
      gateway: subnet.gateway,
      voices: voiceCandidates(plan, subnet.id),
      servers: subnet.dhcpServers,
    })),
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

function voiceCandidates(plan: Plan, subnetId: string): readonly Ipv4[] {
  const subnet = plan.subnets.find((one) => one.id === subnetId);
  const taken = new Set(givenAddresses(plan, subnetId));
  const voices: Ipv4[] = [];
  while (subnet && voices.length < VOICE_CANDIDATES) {
    const next = voiceAddress(subnet, taken);
    if (next === undefined) break;
    voices.push(next);
    taken.add(next);
  }
  return voices;
}
