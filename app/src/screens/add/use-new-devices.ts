import { useMemo, useState } from 'react';
import {
  avoidedFor,
  checkAddress,
  findKind,
  findSubnet,
  formatIpv4,
  nextFree,
  parseHostName,
  parseIpv4,
  proposedName,
  SHELF,
  type Ipv4,
  type Issue,
  type NewDevice,
  type Plan,
} from '@ipsonomo/core';

/** One device to be added, with what is wrong with it. */
export interface Draft {
  readonly device: NewDevice;
  readonly addressIssue: Issue | undefined;
  readonly nameIssue: Issue | undefined;
}

type Correction = Partial<Pick<NewDevice, 'title' | 'name' | 'address'>>;

/** The devices about to be added: proposed from the plan, corrected by a person. */
export function useNewDevices(plan: Plan | undefined) {
  const [kindId, setKindId] = useState(SHELF[0]?.id ?? '');
  const [subnetId, setSubnetId] = useState('');
  const [cabinet, setCabinet] = useState('');
  const [area, setArea] = useState('');
  const [count, setCount] = useState('1');
  const [corrections, setCorrections] = useState<readonly Correction[]>([]);
  const subnet = subnetId || plan?.subnets[0]?.id || '';
  const number = /^[0-9]{1,3}$/.test(count) ? Math.min(100, Number(count)) : 0;
  const drafts = useMemo(
    () =>
      plan ? draftsOf(plan, { kindId, subnetId: subnet, cabinet, area }, number, corrections) : [],
    [plan, kindId, subnet, cabinet, area, number, corrections],
  );
  const correct = (index: number, correction: Correction) =>
    setCorrections((all) => {
      const next = [...all];
      next[index] = { ...next[index], ...correction };
      return next;
    });
  const forget =
    <T>(set: (value: T) => void) =>
    (value: T) => {
      setCorrections([]);
      set(value);
    };
  return {
    ...{ kindId, cabinet, area, count, drafts, correct, setArea, setCount },
    subnetId: subnet,
    setKindId: forget(setKindId),
    setSubnetId: forget(setSubnetId),
    setCabinet: forget(setCabinet),
    /** A subnet of the plan has no free address for so many. */
    isFull: number > 0 && drafts.length < number,
    isReady: drafts.length > 0 && drafts.every((d) => !d.addressIssue && !d.nameIssue),
  };
}

type Frame = Pick<NewDevice, 'kindId' | 'subnetId' | 'cabinet' | 'area'>;

function draftsOf(
  plan: Plan,
  frame: Frame,
  count: number,
  corrections: readonly Correction[],
): readonly Draft[] {
  const kind = findKind(plan, frame.kindId);
  const subnet = findSubnet(plan, frame.subnetId);
  if (!kind || !subnet) return [];
  const way = kind.ways[0]?.way ?? 'bootp';
  const avoided = avoidedFor(plan, subnet, kind, way, Date.now());
  const { taken } = avoided;
  const names = new Set(plan.devices.map((device) => device.name));
  const drafts: Draft[] = [];
  for (let index = 0; index < count; index += 1) {
    const free = nextFree(subnet, kind.role, avoided);
    const correction = corrections[index] ?? {};
    if (free === undefined && !correction.address) break;
    const name =
      correction.name ?? proposedName(plan, { ...frame, position: '' }, kind, names, free);
    const address = correction.address ?? (free === undefined ? '' : formatIpv4(free));
    const title = correction.title ?? `${kind.name} ${name}`;
    const device: NewDevice = { ...frame, title, name, address, way, position: '' };
    drafts.push({
      device,
      addressIssue: addressIssueOf(plan, subnet.id, address, taken),
      nameIssue: nameIssueOf(name, names),
    });
    const read = parseIpv4(address);
    if (read.ok) taken.add(read.value);
    names.add(name);
  }
  return drafts;
}

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
  return { code: 'address.taken', where: text, facts: { holder: 'a device above' } };
}

function nameIssueOf(name: string, names: ReadonlySet<string>): Issue | undefined {
  const read = parseHostName(name);
  if (!read.ok) return read.error;
  if (!names.has(name)) return undefined;
  return { code: 'name.taken', where: name, facts: { holder: 'another device' } };
}
