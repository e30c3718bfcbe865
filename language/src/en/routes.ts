import { formatIpv4, formatPrefix, maskOf, prefixOf } from '@ipsonomo/core/net';
import {
  findDevice,
  findSubnet,
  changeOf,
  docOf,
  findDoc,
  oncePer,
  type Device,
  type Edit,
  type Plan,
  type PlanDoc,
} from '@ipsonomo/core/plan';
import { encodeWith, portPath, toHex } from '@ipsonomo/core/wire';
import {
  ASSUMED,
  rackPath,
  type RackStart,
  type Cure,
  type PreparedHost,
  type Reason,
  type Remark,
  type RoutePort,
  type RouteVerdict,
  type WalkComparison,
} from '@ipsonomo/core/routes';

// What a route comes to, as a person is told.

const networkOf = ({ address, length }: RoutePort): string =>
  formatPrefix(prefixOf(address, length));

const names = (hosts: readonly PreparedHost[]): string =>
  hosts.map(({ host }) => host.title).join(' and ');

/** What is missing, after "it arrives" or "it does not arrive". */
const AIM = { there: 'to send it', back: 'to send the reply' } as const;

/** Why it ends at this host. */
function routeReason(at: PreparedHost, reason: Reason, direction: 'there' | 'back'): string {
  const { title } = at.host;
  const aim = AIM[direction];
  switch (reason.code) {
    case 'gateway-outside':
      return `The gateway of ${title} is ${formatIpv4(reason.gateway)}, outside its own network ${networkOf(reason.port)}, so it has nowhere ${aim}.`;
    case 'gateway-broadcast':
      return `The gateway of ${title} is ${formatIpv4(reason.gateway)}, the broadcast address of ${networkOf(reason.port)}: nobody can have it, so it has nowhere ${aim}.`;
    case 'gateway-missing':
      return `${title} has no gateway, so it has nowhere ${aim}: what is outside its own networks it cannot reach.`;
    case 'gateway-self':
      return `${title} is its own gateway: it asks for everybody by ARP on its own wire, and nobody answers.`;
    case 'gateway-nobody':
      return `${title} sends it to ${formatIpv4(reason.gateway)}, and nobody has that address on its wire.`;
    case 'mask-narrow':
      return `The destination is on the same wire as ${title}, but its mask /${reason.port.length} is too narrow to see that, and it has no gateway that helps.`;
    case 'mask-wide':
      return `${title} has the mask /${reason.port.length}: it takes a far address for a neighbour, asks for it by ARP on its own wire, and nobody answers.`;
    case 'other-link':
      return `${title} looks for ${formatIpv4(reason.asked)} on its own wire, but ${reason.is.host.host.title} has it on another: look at the VLAN of the ports, and the sockets.`;
    case 'nobody':
      return `Nobody has ${formatIpv4(reason.asked)}: ${title} asks for it by ARP in vain.`;
    case 'no-route':
      return `${title} knows no way ${direction === 'there' ? 'to the destination' : 'back'}: it needs a route, or a gateway of its own.`;
    case 'route-outside':
      return `${title} has a route by way of ${formatIpv4(reason.via)}, which is in none of its networks: it cannot use it.`;
    case 'not-router':
      return `It was sent to ${title} (${formatIpv4(reason.asked)}), which is no router and passes nothing on.`;
    case 'rack':
      return `${title} has two network modules, but its rack passes on no IP: only the automation protocol goes through it, along a route path.`;
    case 'broadcast':
      return `By its mask /${reason.port.length} ${title} takes the destination for the broadcast address of its network.`;
    case 'loop':
      return `${names(reason.between)} send it to each other until its time-to-live is used up.`;
    case 'doubled':
      return `${names(reason.answers.map(({ host }) => host))} both have ${formatIpv4(reason.asked)}: which one gets it is luck.`;
    case 'one-way':
      return `The reply comes from ${formatIpv4(reason.from)} instead of ${formatIpv4(reason.asked)}: it was translated on the way there and not on the way back, so ${title} does not take it for a reply.`;
    case 'other-host':
      return `${title} has that address and not ${reason.meant.host.title}.`;
  }
}

const remarkWords = ({ code, hop, ...more }: Remark): string =>
  code === 'answered-for' && 'by' in more
    ? `The mask of ${hop.host.host.title} is too wide. It works only because ${more.by.host.title} answers ARP for others, until that is changed.`
    : `The mask of ${hop.host.host.title} is too narrow: it sends to a neighbour by way of the router.`;

/** A verdict as a head line and the sentence below it. */
export function verdictWords(verdict: RouteVerdict): {
  readonly title: string;
  readonly text: string;
} {
  if (!verdict.works)
    return {
      title: verdict.direction === 'there' ? 'It does not arrive' : 'It arrives, but cannot answer',
      text: routeReason(verdict.at, verdict.reason, verdict.direction),
    };
  const [first] = verdict.remarks;
  return first
    ? { title: 'It works, but not by itself', text: remarkWords(first) }
    : { title: 'It works, there and back', text: '' };
}

/** What a cure does, as the title of a button. */
export function cureWords(plan: Plan, cure: Cure): string {
  const title = findDevice(plan, cure.host)?.title ?? 'the router';
  switch (cure.kind) {
    case 'gateway':
      return `Correct the gateway to ${formatIpv4(cure.to)}`;
    case 'mask':
      return `Correct the mask to /${cure.to}`;
    case 'route':
      return `Give ${title} a route to ${formatPrefix(cure.to)}`;
  }
}

/** The change of the plan that a cure is; undefined where what it changes is not in the plan. */
export function cureEdits(plan: Plan, doc: PlanDoc, cure: Cure): readonly Edit[] | undefined {
  if (cure.host.startsWith(ASSUMED)) return undefined;
  if (cure.kind === 'route') {
    const device = findDevice(plan, cure.host);
    const thing = device && findDoc(doc, 'device', device.id);
    if (!device || !thing) return undefined;
    const others = device.routes.filter(
      ({ to }) => to.network !== cure.to.network || to.length !== cure.to.length,
    );
    const { interfaces: _interfaces, ...fields } = device;
    const routes = [{ to: cure.to, via: cure.via }, ...others];
    const after = docOf('device', { ...fields, routes });
    return changeOf('device', thing, { routes: after['routes'] ?? [] });
  }
  const at = plan.devices
    .flatMap(({ interfaces }) => interfaces)
    .find(({ id }) => id === cure.port);
  const subnet = at && findSubnet(plan, at.subnetId);
  const thing = at && findDoc(doc, 'interface', at.id);
  if (!at || !subnet || !thing) return undefined;
  if (cure.kind === 'mask') {
    const isUsual = cure.to === subnet.prefix.length;
    const mask = isUsual ? undefined : maskOf(cure.to);
    return changeOf('interface', thing, { mask: mask === undefined ? null : formatIpv4(mask) });
  }
  const gateway = cure.to === subnet.gateway ? 'subnet' : formatIpv4(cure.to);
  return changeOf('interface', thing, { gateway });
}

/** What a walk on the wire says beside the prediction, and what that is probably due to. */
export function walkWords({ steps, differsAt, reaches }: WalkComparison, target: string): string {
  const step = differsAt === undefined ? undefined : steps[differsAt];
  if (!step || differsAt === undefined)
    return reaches.walked
      ? 'The wire goes as the plan says, and the device answers.'
      : 'The wire goes as the plan says: the device does not answer, and by the plan it cannot.';
  const before = steps[differsAt - 1]?.predictedTitle ?? 'the gateway of this laptop';
  const isLast = step.predictedTitle === target;
  if (reaches.walked && !reaches.predicted)
    return `${target} answers, though by the plan it cannot: something on the way, or the device itself, is set otherwise than planned.`;
  if (step.walked === undefined)
    return isLast
      ? `It gets as far as ${before}, but ${target} does not answer: its gateway or its mask is another than planned, or it is off. Ask it from its own subnet to tell these apart.`
      : `Nobody answers where ${step.predictedTitle} should: ${before} does not pass it on, or has no way back to this laptop.`;
  if (step.predicted === undefined)
    return `${formatIpv4(step.walked)} answers where nobody should: ${before} is set otherwise than planned.`;
  return `${formatIpv4(step.walked)} answers instead of ${formatIpv4(step.predicted)} (${step.predictedTitle}): ${before} sends it another way than planned.`;
}

/** A route path as it is shown: hop by hop, as plain numbers, and as the bytes that travel. */
export interface RackPathView {
  /** Where it begins: what one is connected to, or the controller. */
  readonly from: string;
  readonly hops: readonly { readonly step: string; readonly leadsTo: string }[];
  /** "1,5,2,172.22.40.86" */
  readonly numbers: string;
  /** Hex, padded (CIP Vol. 1 Appendix C). */
  readonly bytes: string;
}

/**
 * The route path of the automation protocol to an interface, from a controller in a rack, or else from the module of a
 * rack that is in the asker's subnet.
 */
export function rackPathView(plan: Plan, from: string, to: string): RackPathView | undefined {
  const start = rackStartOf(plan, from);
  const steps = start && rackPath(plan, start.start, to);
  if (!start || !steps || steps.length === 0) return undefined;
  const segments = steps.map(({ port, link }) => ({ port, link }));
  return {
    from: start.words,
    hops: steps.map(({ port, link, device, interface: at }) => ({
      step: typeof link === 'number' ? `backplane, slot ${link}` : `port ${port}, ${link}`,
      leadsTo: moduleTitle(plan, device, at),
    })),
    numbers: segments.map(({ port, link }) => `${port},${link}`).join(','),
    bytes: toHex(encodeWith(portPath, segments)).toUpperCase().replace(/../g, '$& ').trim(),
  };
}

/** What has its place in a rack: a sheet of connections asks for it for each of its lines. */
const inRacks = oncePer((devices: readonly Device[]) =>
  devices.flatMap(({ interfaces }) => interfaces.filter(({ slot }) => slot !== undefined)),
);

function rackStartOf(
  plan: Plan,
  from: string,
): { readonly start: RackStart; readonly words: string } | undefined {
  const device = findDevice(plan, from);
  if (!device) return undefined;
  if (device.interfaces.some(({ slot }) => slot !== undefined))
    return { start: { kind: 'controller', device: from }, words: `${device.title} itself` };
  const subnets = new Set(device.interfaces.map(({ subnetId }) => subnetId));
  const rack = inRacks(plan.devices).find(({ subnetId }) => subnets.has(subnetId));
  return (
    rack && {
      start: { kind: 'module', interface: rack.id },
      words: `${moduleTitle(plan, rack.deviceId, rack.id)}, which one is connected to`,
    }
  );
}

function moduleTitle(plan: Plan, deviceId: string, interfaceId: string): string {
  const device = findDevice(plan, deviceId);
  const at = device?.interfaces.find(({ id }) => id === interfaceId);
  if (!device || !at) return interfaceId;
  const address = formatIpv4(at.address);
  return at.slot === undefined
    ? `${device.title} (${address})`
    : `${device.title}, module in slot ${at.slot} (${address})`;
}
