import {
  checkAddress,
  checkSubnet,
  defaultBands,
  findKind,
  findSubnet,
  formatMac,
  interfacesOf,
  judgeLabel,
  parseHostName,
  parseIpv4,
  parseLabel,
  parseMac,
  parsePrefix,
  type Binding,
  type DeviceChange,
  type Ipv4,
  type Issue,
  type NewDevice,
  type NewSubnet,
  type Plan,
  type Result,
  type Subnet,
} from '@ipsonomo/core';
import { Refusal } from '../store/refusal';
import type { PlanWriter, Store } from '../store/store';
import { findInterface } from './read-plan';

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
    private readonly changed: (jobId: string) => Promise<void>,
  ) {}

  async addJob(name: string): Promise<string> {
    const trimmed = name.trim();
    if (trimmed === '') throw Refusal.of('name.empty', name);
    const job = await this.store.addJob(trimmed);
    return job.id;
  }

  addSubnet(jobId: string, wanted: NewSubnet, person: Person): Promise<string> {
    const prefix = must(parsePrefix(wanted.network));
    const gateway = wanted.gateway === null ? undefined : must(parseIpv4(wanted.gateway));
    const name = requireText(wanted.name);
    return this.apply(jobId, person, `added subnet ${name} ${wanted.network}`, (plan, write) => {
      refuseAny(checkSubnet(plan, { prefix, gateway }));
      const { purpose } = wanted;
      const vlan = wanted.vlan ?? undefined;
      return write.addSubnet({ name, prefix, gateway, vlan, purpose, bands: defaultBands(prefix) });
    });
  }

  /** Adds devices, all or none. */
  addDevices(
    jobId: string,
    wanted: readonly NewDevice[],
    person: Person,
  ): Promise<readonly string[]> {
    const what =
      wanted.length === 1 ? `added ${wanted[0]?.title}` : `added ${wanted.length} devices`;
    return this.apply(jobId, person, what, async (plan, write) => {
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
        ids.push(await write.addDevice({ ...one, name }, subnet.id, address));
      }
      return ids;
    });
  }

  changeDevice(
    jobId: string,
    deviceId: string,
    change: DeviceChange,
    person: Person,
  ): Promise<void> {
    return this.apply(
      jobId,
      person,
      `changed ${change.title ?? 'a device'}`,
      async (plan, write) => {
        const device = plan.devices.find((one) => one.id === deviceId);
        const at = device?.interfaces[0];
        if (!device || !at) throw Refusal.of('thing.unknown', 'device');
        const { address, name, ...rest } = change;
        if (name !== undefined && name !== device.name) refuseName(plan, name, device.id);
        if (rest.title !== undefined) requireText(rest.title);
        await write.changeDevice(device.id, name === undefined ? rest : { ...rest, name });
        if (address === undefined) return;
        const subnet = findSubnet(plan, at.subnetId);
        const value = must(parseIpv4(address));
        if (!subnet) throw Refusal.of('thing.unknown', 'subnet');
        refuseAny(checkAddress(plan, subnet, value, at.id));
        await write.setAddress(at.id, value);
      },
    );
  }

  removeDevice(jobId: string, deviceId: string, person: Person): Promise<void> {
    return this.apply(jobId, person, 'removed a device', async (plan, write) => {
      const device = plan.devices.find((one) => one.id === deviceId);
      if (!device) throw Refusal.of('thing.unknown', 'device');
      await write.removeDevice(device.id);
    });
  }

  /**
   * Binds a MAC to a planned interface. The label that was held against it is kept as evidence; one
   * that reads otherwise needs a reason.
   */
  async bind(jobId: string, interfaceId: string, binding: Binding, person: Person): Promise<void> {
    const mac = must(parseMac(binding.mac));
    const heard = formatMac(mac);
    const facts = labelFacts(binding, heard);
    const address = await this.apply(jobId, person, `bound ${heard}`, async (plan, write) => {
      const found = findInterface(plan, interfaceId);
      if (!found) throw Refusal.of('thing.unknown', 'device');
      const holder = interfacesOf(plan).find(({ at }) => at.mac === mac && at.id !== interfaceId);
      if (holder) throw Refusal.of('mac.taken', heard, { holder: holder.device.title });
      await write.setMac(interfaceId, mac);
      return found.at.address;
    });
    await this.say(jobId, interfaceId, 'bound', facts, person, mac, address);
  }

  unbind(jobId: string, interfaceId: string, person: Person): Promise<void> {
    return this.apply(jobId, person, 'unbound a MAC', async (plan, write) => {
      if (!findInterface(plan, interfaceId)) throw Refusal.of('thing.unknown', 'device');
      await write.setMac(interfaceId, undefined);
    });
  }

  /** A person says the kind's own step was done. Kept as said; it raises no stage. */
  async sayKept(jobId: string, interfaceId: string, person: Person): Promise<void> {
    const found = findInterface(await this.store.plan(jobId), interfaceId);
    if (!found) throw Refusal.of('thing.unknown', 'device');
    const { mac, address } = found.at;
    await this.say(jobId, interfaceId, 'said-kept', {}, person, mac, address);
    await this.changed(jobId);
  }

  private async say(
    jobId: string,
    interfaceId: string,
    kind: 'bound' | 'said-kept',
    facts: Readonly<Record<string, string>>,
    person: Person,
    mac: Parameters<typeof formatMac>[0] | undefined,
    address: Ipv4,
  ): Promise<void> {
    const at = this.clock();
    await this.store.append([
      {
        ...{ jobId, interfaceId, kind, at, mac, address, facts },
        ...{ source: DESK, person: person.name, runId: undefined, sequence: undefined },
        bytes: undefined,
      },
    ]);
  }

  private async apply<T>(
    jobId: string,
    person: Person,
    what: string,
    work: (plan: Plan, write: PlanWriter) => Promise<T>,
  ): Promise<T> {
    const result = await this.store.change({ jobId, person: person.name, what }, work);
    await this.changed(jobId);
    return result;
  }
}

function must<T>(result: Result<T>): T {
  if (result.ok) return result.value;
  throw new Refusal([result.error]);
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

function readDevice(
  plan: Plan,
  wanted: NewDevice,
): { readonly subnet: Subnet; readonly address: Ipv4; readonly name: string } {
  requireText(wanted.title);
  const kind = findKind(wanted.kindId);
  if (!kind) throw Refusal.of('thing.unknown', 'kind');
  const subnet = findSubnet(plan, wanted.subnetId);
  if (!subnet) throw Refusal.of('thing.unknown', 'subnet');
  const name = refuseName(plan, wanted.name);
  const address = must(parseIpv4(wanted.address));
  refuseAny(checkAddress(plan, subnet, address));
  return { subnet, address, name };
}

function labelFacts(binding: Binding, heard: string): Readonly<Record<string, string>> {
  const { label, reason } = binding;
  if (label === '') return {};
  const reading = must(parseLabel(label));
  const read = formatMac(reading.mac);
  const verdict = judgeLabel(reading.mac, must(parseMac(heard)));
  if (verdict.kind === 'same') return { label: read };
  if (!reason?.trim()) throw Refusal.of('label.differs', read, { heard });
  return { label: read, reason: reason.trim() };
}
