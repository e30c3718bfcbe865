import { parseHostName, parsePattern } from '@ipsonomo/core/names';
import { formatIpv4, parseIpv4, type Ipv4, type Issue } from '@ipsonomo/core/net';
import {
  avoidedFor,
  checkAddress,
  dhcpNamesOf,
  docOf,
  findKind,
  findSubnet,
  nextFree,
  proposedName,
  proposedSwitchName,
  toDevice,
  toInterface,
  type Edit,
  type Plan,
  type Way,
} from '@ipsonomo/core/plan';
import { ADD_WORDS } from '@ipsonomo/language/screens/add';
import { newId } from '../../../data/new-id';

/** What all devices that are added together share. */
export interface Frame {
  readonly kindId: string;
  readonly subnetId: string;
  /** Undefined: the first way of the kind. */
  readonly way: Way | undefined;
  readonly area: string;
  readonly cabinet: string;
  readonly controllerId: string | undefined;
  /** What people call them, `{n}` counting; empty: the kind's name and the host name. */
  readonly titles: string;
  /** The pattern of their host names; empty: the plan's. */
  readonly pattern: string;
}

/** One device to be added, with what is wrong with it. */
export interface Draft {
  readonly title: string;
  readonly name: string;
  readonly address: string;
  readonly addressIssue: Issue | undefined;
  readonly nameIssue: Issue | undefined;
}

export type Correction = Partial<Pick<Draft, 'title' | 'name' | 'address'>>;

/** What is wrong with a pattern; an empty one is the plan's. */
export function patternIssue(pattern: string): Issue | undefined {
  if (pattern.trim() === '') return undefined;
  const read = parsePattern(pattern);
  return read.ok ? undefined : read.error;
}

/** Proposals in the order in which they are added, each with what a person corrected. */
export function draftsOf(
  plan: Plan,
  frame: Frame,
  count: number,
  corrections: readonly Correction[],
): readonly Draft[] {
  const kind = findKind(plan, frame.kindId);
  const subnet = findSubnet(plan, frame.subnetId);
  if (!kind || !subnet) return [];
  const avoided = avoidedFor(plan, subnet, {
    ...{ kind, way: wayOf(plan, frame), now: Date.now() },
  });
  const { taken } = avoided;
  const names = new Set(plan.devices.map((device) => device.name));
  const isOwn = frame.pattern.trim() !== '' && !patternIssue(frame.pattern);
  const named = isOwn ? { settings: { ...plan.settings, namePattern: frame.pattern } } : plan;
  const drafts: Draft[] = [];
  for (let index = 0; index < count; index += 1) {
    const free = nextFree(subnet, kind.role, avoided);
    const correction = corrections[index] ?? {};
    if (free === undefined && !correction.address) break;
    const name =
      correction.name ?? proposedName(named, { ...frame, position: '' }, kind, names, free);
    const address = correction.address ?? (free === undefined ? '' : formatIpv4(free));
    const title = correction.title ?? titleOf(frame.titles, index + 1, `${kind.name} ${name}`);
    drafts.push({
      ...{ title, name, address },
      addressIssue: addressIssueOf(plan, subnet.id, address, taken),
      nameIssue: nameIssueOf(name, names),
    });
    const read = parseIpv4(address);
    if (read.ok) taken.add(read.value);
    names.add(name);
  }
  return drafts;
}

/** @example titleOf('Conveyor drive {nn}', 7, '') // 'Conveyor drive 07' */
export const titleOf = (pattern: string, number: number, otherwise: string): string =>
  pattern.trim() === ''
    ? otherwise
    : pattern.replace(/\{(n+)\}/g, (_all, digits: string) =>
        String(number).padStart(digits.length, '0'),
      );

const wayOf = (plan: Plan, { kindId, way }: Frame): Way =>
  way ?? findKind(plan, kindId)?.ways[0]?.way ?? 'bootp';

/** Every draft as a device with its interface. */
export const editsOfDrafts = (
  plan: Plan,
  frame: Frame,
  drafts: readonly Draft[],
  corrections: readonly Correction[],
): readonly Edit[] => {
  const kind = findKind(plan, frame.kindId);
  const way = wayOf(plan, frame);
  const dhcpNames = dhcpNamesOf(plan);
  return drafts.flatMap(({ title, name, address }, index): readonly Edit[] => {
    const read = parseIpv4(address);
    if (!read.ok) return [];
    const { kindId, subnetId, area, cabinet, controllerId } = frame;
    const dhcpName = kind && way === 'dhcp-name' ? proposedSwitchName(kind, dhcpNames) : undefined;
    dhcpNames.add(dhcpName ?? name);
    const device = toDevice({
      ...{ id: newId(), title, name, kindId, area, cabinet, controllerId },
      ...{ way, dhcpName, isNameTyped: corrections[index]?.name !== undefined },
    });
    const at = toInterface({
      ...{ id: newId(), deviceId: device.id, subnetId, address: read.value },
    });
    return [
      { op: 'add', type: 'device', thing: docOf('device', device) },
      { op: 'add', type: 'interface', thing: docOf('interface', at) },
    ];
  });
};

function addressIssueOf(
  plan: Plan,
  subnetId: string,
  text: string,
  taken: ReadonlySet<Ipv4>,
): Issue | undefined {
  const read = parseIpv4(text);
  if (!read.ok) return read.error;
  const subnet = findSubnet(plan, subnetId);
  const [issue] = subnet ? checkAddress(plan, subnet, read.value) : [];
  if (issue || !taken.has(read.value)) return issue;
  return { code: 'address.taken', where: text, facts: { holder: ADD_WORDS.aDeviceAbove } };
}

function nameIssueOf(name: string, names: ReadonlySet<string>): Issue | undefined {
  const read = parseHostName(name);
  if (!read.ok) return read.error;
  if (!names.has(name)) return undefined;
  return { code: 'name.taken', where: name, facts: { holder: ADD_WORDS.anotherDevice } };
}
