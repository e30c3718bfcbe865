import { containsAddress, firstHostOf, formatIpv4, rangeHas, type Ipv4 } from '../net';
import { parseStationName, toStationName, toVariable } from '../names';
import {
  avoidedFor,
  changeOf,
  dhcpNamesOf,
  docOf,
  findKind,
  findSubnet,
  nextFree,
  proposedName,
  proposedSwitchName,
  type Device,
  type Edit,
  type Interface,
  type Json,
  type Plan,
  type Subnet,
  type ThingType,
} from '../plan';
import type { Snag, SnagBy, SnagRule } from './snag';

/** What would mend a snag: shown as a button with its preview, done as one revision. */
export interface Mend {
  readonly label: MendLabel;
  readonly facts: Readonly<Record<string, string>>;
  readonly edits: readonly Edit[];
}

export type MendLabel =
  | 'give-address'
  | 'use-subnet-mask'
  | 'take-loan-back'
  | 'use-subnet-gateway'
  | 'move-gateway'
  | 'drop-range'
  | 'rename'
  | 'derive-name'
  | 'choose-way'
  | 'no-controller'
  | 'planned-so'
  | 'correct-reference'
  | 'move-subnet';

type Mender<Rule extends SnagRule = SnagRule> = (
  plan: Plan,
  snag: SnagBy<Rule>,
  now: number,
) => Mend | undefined;

/** The mend of a snag, undefined where only a person can know. @param now milliseconds since 1970 */
export const mendOf = (plan: Plan, snag: Snag, now: number): Mend | undefined =>
  (MENDERS[snag.rule] as Mender | undefined)?.(plan, snag, now);

const MENDERS: { readonly [Rule in SnagRule]?: Mender<Rule> } = {
  'S-ADDRESS-TWICE': (plan, snag, now) => {
    // The first keeps it, and so does one whose device has it already.
    const ids = [snag.id, ...snag.also];
    const loser = ids
      .flatMap((id) => findAt(plan, id) ?? [])
      .findLast((found) => found.at.mac === undefined);
    return loser && giveNextFree(plan, loser, now);
  },
  'S-FOUND': (plan, snag) => {
    const subnet = findSubnet(plan, snag.id);
    if (subnet) return set('subnet', subnet, 'planned-so', { found: '' }, { what: subnet.name });
    const device = findDevice(plan, snag);
    return device && set('device', device, 'planned-so', { found: '' }, { what: device.title });
  },
  'S-ADDRESS-ON-BOTH': giveAnother,
  'S-ADDRESS-OUTSIDE': giveAnother,
  'S-ADDRESS-NETWORK': giveAnother,
  'S-ADDRESS-BROADCAST': giveAnother,
  'S-ADDRESS-NEVER': giveAnother,
  'S-ADDRESS-HELD': giveAnother,
  'S-ADDRESS-POOL': giveAnother,
  'S-ADDRESS-LAPTOPS': giveAnother,
  'S-ADDRESS-BAND': giveAnother,
  'S-ADDRESS-EDGE': giveAnother,
  'S-ADDRESS-FACTORY': giveAnother,
  'S-ADDRESS-PROPOSED': giveAnother,
  'S-GATEWAY-DEVICE': giveAnother,
  'S-SERVER-DEVICE': giveAnother,
  'S-SWITCH-CODE': giveAnother,
  'S-SWITCH-NEVER': giveAnother,
  'S-ADDRESS-SLIP': (plan, snag, now) => {
    const found = findAt(plan, snag.id);
    const subnet = found && findSubnet(plan, found.at.subnetId);
    const meant = String(snag.facts.meant);
    if (!found || !subnet) return undefined;
    const taken = avoidedFor(plan, subnet, { kind: undefined, way: found.device.way, now }).taken;
    if ([...taken].some((one) => formatIpv4(one) === meant)) return giveNextFree(plan, found, now);
    return setAt(
      found.at,
      'give-address',
      { address: meant },
      { address: meant, device: found.device.title },
    );
  },
  'S-SUBNET-GONE': (plan, snag) => {
    const found = findAt(plan, snag.id);
    const subnet =
      found && plan.subnets.find((one) => containsAddress(one.prefix, found.at.address));
    return (
      subnet && setAt(found.at, 'move-subnet', { subnetId: subnet.id }, { subnet: subnet.name })
    );
  },
  'S-LOAN-KEPT': (plan, snag) => clearAt(plan, snag, 'take-loan-back', { loan: null }),
  'S-LOAN-OUTSIDE': (plan, snag) => clearAt(plan, snag, 'take-loan-back', { loan: null }),
  'S-MASK-GAP': (plan, snag) => clearAt(plan, snag, 'use-subnet-mask', { mask: null }),
  'S-MASK-OTHER': (plan, snag) => clearAt(plan, snag, 'use-subnet-mask', { mask: null }),
  'S-OWN-GATEWAY': (plan, snag) => clearAt(plan, snag, 'use-subnet-gateway', { gateway: 'subnet' }),
  'S-GATEWAY-OUTSIDE': (plan, snag) => {
    const subnet = findSubnet(plan, snag.id);
    const gateway = subnet && formatIpv4(firstHostOf(subnet.prefix));
    return subnet && gateway
      ? set('subnet', subnet, 'move-gateway', { gateway }, { gateway })
      : undefined;
  },
  'S-RANGE-OUTSIDE': (plan, snag) => {
    const subnet = findSubnet(plan, snag.id);
    return subnet && dropRanges(subnet);
  },
  'S-HOST-NAME': rename,
  'S-HOST-NAME-TWICE': (plan, snag, now) => {
    const last = snag.also.at(-1);
    return last === undefined ? undefined : rename(plan, { ...snag, id: last }, now);
  },
  'S-STATION-NAME': (plan, snag) => {
    const device = findDevice(plan, snag);
    const name = device && toStationName(device.name);
    if (!device || name === undefined || !parseStationName(name).ok) return undefined;
    return set('device', device, 'derive-name', { stationName: null }, { name });
  },
  'S-VARIABLE': (plan, snag) => {
    const device = findDevice(plan, snag);
    const controller = plan.devices.find((one) => one.id === device?.controllerId);
    const most = controller && findKind(plan, controller.kindId)?.longestVariable;
    const name = device && toVariable(device.name, most);
    return device && name
      ? set('device', device, 'derive-name', { variable: null }, { name })
      : undefined;
  },
  'S-NAME-NEAR': (plan, snag) => {
    const device = findDevice(plan, snag);
    if (!device || snag.field === undefined) return undefined;
    return set('device', device, 'derive-name', { [snag.field]: null }, { name: device.name });
  },
  'S-SWITCH-NAME': (plan, snag) => {
    const device = findDevice(plan, snag);
    const kind = device && findKind(plan, device.kindId);
    const name = kind && proposedSwitchName(kind, dhcpNamesOf(plan));
    return device && name !== undefined
      ? set('device', device, 'rename', { dhcpName: name }, { name, device: device.title })
      : undefined;
  },
  'S-WAY-MISSING': (plan, snag) => {
    const device = findDevice(plan, snag);
    const way = device && findKind(plan, device.kindId)?.ways[0]?.way;
    return device && way ? set('device', device, 'choose-way', { way }, { way }) : undefined;
  },
  'S-CONTROLLER-GONE': noController,
  'S-CONTROLLER-SELF': noController,
  'S-REFERENCE-OLD': (plan, snag) => {
    const device = findDevice(plan, snag);
    if (!device) return undefined;
    const references = device.references.map((one) => {
      const named = plan.devices.find((other) => other.id === one.deviceId);
      const address = named?.interfaces[0]?.address;
      const isOld = !named?.interfaces.some((at) => at.address === one.address);
      return address !== undefined && one.address !== undefined && isOld
        ? { ...one, address }
        : one;
    });
    const after = docOf('device', { ...device, references });
    return set(
      'device',
      device,
      'correct-reference',
      { references: after['references'] ?? [] },
      {
        now: String(snag.facts.now),
      },
    );
  },
};

interface Found {
  readonly device: Device;
  readonly at: Interface;
}

function findAt(plan: Plan, id: string): Found | undefined {
  for (const device of plan.devices) {
    const at = device.interfaces.find((one) => one.id === id);
    if (at) return { device, at };
  }
  return undefined;
}

const findDevice = (plan: Plan, snag: Snag): Device | undefined =>
  plan.devices.find((one) => one.id === snag.id);

function set(
  type: 'device' | 'subnet',
  thing: Device | Subnet,
  label: MendLabel,
  fields: Readonly<Record<string, Json>>,
  facts: Mend['facts'],
): Mend {
  const doc = docOf(type as ThingType, thing as never);
  return { label, facts, edits: changeOf(type, doc, fields) };
}

const setAt = (
  at: Interface,
  label: MendLabel,
  fields: Readonly<Record<string, Json>>,
  facts: Mend['facts'],
): Mend => ({ label, facts, edits: changeOf('interface', docOf('interface', at), fields) });

function clearAt(
  plan: Plan,
  snag: Snag,
  label: MendLabel,
  fields: Readonly<Record<string, Json>>,
): Mend | undefined {
  const found = findAt(plan, snag.id);
  return found && setAt(found.at, label, fields, { device: found.device.title });
}

function giveAnother(plan: Plan, snag: Snag, now: number): Mend | undefined {
  const found = findAt(plan, snag.id);
  return found && giveNextFree(plan, found, now);
}

function giveNextFree(plan: Plan, { device, at }: Found, now: number): Mend | undefined {
  const address = freeFor(plan, device, at, now);
  if (address === undefined) return undefined;
  const text = formatIpv4(address);
  return setAt(at, 'give-address', { address: text }, { address: text, device: device.title });
}

function freeFor(plan: Plan, device: Device, at: Interface, now: number): Ipv4 | undefined {
  const subnet = findSubnet(plan, at.subnetId);
  const kind = findKind(plan, device.kindId);
  if (!subnet || !kind) return undefined;
  return nextFree(subnet, kind.role, avoidedFor(plan, subnet, { kind, way: device.way, now }));
}

function dropRanges(subnet: Subnet): Mend {
  const fits = (one: { readonly first: Ipv4; readonly last: Ipv4 }) =>
    rangeHas(one, one.last) &&
    containsAddress(subnet.prefix, one.first) &&
    containsAddress(subnet.prefix, one.last);
  const after = docOf('subnet', {
    ...subnet,
    bands: subnet.bands.filter(fits),
    held: subnet.held.filter(fits),
  });
  const fields = { bands: after['bands'] ?? [], held: after['held'] ?? [] };
  return set('subnet', subnet, 'drop-range', fields, { subnet: subnet.name });
}

function rename(plan: Plan, snag: Snag, _now: number): Mend | undefined {
  const device = findDevice(plan, snag);
  const kind = device && findKind(plan, device.kindId);
  if (!device || !kind) return undefined;
  const taken = new Set(plan.devices.map((one) => one.name));
  const name = proposedName(plan, device, kind, taken, device.interfaces[0]?.address);
  return set('device', device, 'rename', { name }, { name, device: device.title });
}

function noController(plan: Plan, snag: Snag): Mend | undefined {
  const device = findDevice(plan, snag);
  return (
    device &&
    set('device', device, 'no-controller', { controllerId: null }, { device: device.title })
  );
}
