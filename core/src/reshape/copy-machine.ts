import {
  containsAddress,
  formatIpv4,
  formatPrefix,
  ok,
  refuse,
  sizeOf,
  toIpv4,
  type Ipv4,
  type Issue,
  type Prefix,
  type Result,
} from '../net';
import {
  findSubnet,
  avoidedFor,
  docOf,
  findKind,
  nextFree,
  type Cable,
  type Device,
  type Edit,
  type Interface,
  type Plan,
  type Realm,
  type Subnet,
} from '../plan';

/** What is copied, how often, and what is another in each copy. */
export interface CopyOrder {
  readonly deviceIds: ReadonlySet<string>;
  /** Subnets that every copy gets one of its own of; devices elsewhere stay in their subnet. */
  readonly subnetIds: ReadonlySet<string>;
  readonly count: number;
  /**
   * `offset`: every address of copy n is n times so much higher. `realm`: the same addresses again,
   * in a realm of the copy's own.
   */
  readonly apart: { readonly by: 'offset'; readonly offset: number } | { readonly by: 'realm' };
  /** In titles, names and places this text … */
  readonly find: string;
  /** … becomes that; `{n}` is the number of the copy. */
  readonly replace: string;
  /** The number of the first copy. */
  readonly first: number;
}

/** A device as it was copied. */
interface Copied {
  readonly copy: number;
  readonly from: Device;
  readonly device: Device;
}

export interface Copying {
  readonly edits: readonly Edit[];
  readonly copies: readonly Copied[];
  readonly subnets: readonly { readonly copy: number; readonly subnet: Subnet }[];
}

/**
 * Copies a machine: its devices, interfaces, cables and chosen subnets, with what refers to one of
 * them referring to the copy. MACs stay behind: they are of the first machine's devices.
 * @param idOf makes ids of new things
 * @returns refusals `copy.nothing`, `copy.offset` (a subnet cannot move by so much) and `copy.range`
 */
export function copyMachine(
  plan: Plan,
  order: CopyOrder,
  now: number,
  idOf: (type: string) => string,
): Result<Copying> {
  const devices = plan.devices.filter((one) => order.deviceIds.has(one.id));
  const subnets = plan.subnets.filter((one) => order.subnetIds.has(one.id));
  if (devices.length === 0 || order.count < 1) return refuse('copy.nothing', 'devices');
  const issue = offsetIssue(order, devices, subnets);
  if (issue) return { ok: false, error: issue };
  const names = new Set(plan.devices.map((one) => one.name));
  const taken = new Map<string, Set<Ipv4>>();
  const edits: Edit[] = [];
  const copies: Copied[] = [];
  const copiedSubnets: { copy: number; subnet: Subnet }[] = [];
  for (let index = 1; index <= order.count; index += 1) {
    const one = new OneCopy({ plan, order, now, idOf }, index, { names, taken });
    const made = one.make(devices, subnets);
    copies.push(...made.devices.map((copied) => ({ copy: index, ...copied })));
    copiedSubnets.push(...made.subnets.map((subnet) => ({ copy: index, subnet })));
    edits.push(...made.edits);
  }
  return ok({ edits, copies, subnets: copiedSubnets });
}

function offsetIssue(
  { apart, count }: CopyOrder,
  devices: readonly Device[],
  subnets: readonly Subnet[],
): Issue | undefined {
  if (apart.by === 'realm') return undefined;
  if (!Number.isInteger(apart.offset) || apart.offset === 0)
    return { code: 'copy.offset', where: String(apart.offset), facts: { subnet: '', size: 1 } };
  for (const { name, prefix } of subnets)
    if (apart.offset % sizeOf(prefix) !== 0)
      return {
        ...{ code: 'copy.offset', where: String(apart.offset) },
        facts: { subnet: `${name} (${formatPrefix(prefix)})`, size: sizeOf(prefix) },
      };
  const all = devices.flatMap((one) => one.interfaces.map((at) => at.address));
  const ends = all.map((address) => address + apart.offset * count);
  if (ends.some((end) => end < 0 || end > 0xffffffff))
    return { code: 'copy.range', where: String(apart.offset) };
  return undefined;
}

interface Shared {
  readonly names: Set<string>;
  /** Addresses of subnets that are not copied, as the copies take them one after the other. */
  readonly taken: Map<string, Set<Ipv4>>;
}

/** What is copied, how, and when. */
interface Source {
  readonly plan: Plan;
  readonly order: CopyOrder;
  readonly now: number;
  readonly idOf: (type: string) => string;
}

class OneCopy {
  private readonly deviceIds = new Map<string, string>();
  private readonly subnetIds = new Map<string, string>();
  private readonly addresses = new Map<Ipv4, Ipv4>();
  private realm: Realm | undefined;

  constructor(
    private readonly of: Source,
    private readonly index: number,
    private readonly shared: Shared,
  ) {}

  make(devices: readonly Device[], subnets: readonly Subnet[]) {
    for (const { id } of devices) this.deviceIds.set(id, this.of.idOf('device'));
    for (const { id } of subnets) this.subnetIds.set(id, this.of.idOf('subnet'));
    if (this.of.order.apart.by === 'realm')
      this.realm = { id: this.of.idOf('realm'), name: this.renamed('Machine'), note: '' };
    const madeSubnets = subnets.map((one) => this.subnet(one));
    // All addresses first: a value of one device may name another that comes later.
    const interfaces = new Map(
      devices.map((one) => [one.id, one.interfaces.map((at) => this.interface(at, one))]),
    );
    const made = devices.map((from) => ({
      from,
      device: this.device(from, interfaces.get(from.id) ?? []),
    }));
    const cables = this.of.plan.cables.filter(
      ({ from, to }) => this.deviceIds.has(from.deviceId) && this.deviceIds.has(to.deviceId),
    );
    const add = (type: Edit['type'], thing: Parameters<typeof docOf>[1]): Edit => ({
      ...{ op: 'add', type },
      thing: docOf(type, thing as never),
    });
    const edits: readonly Edit[] = [
      ...(this.realm ? [add('realm', this.realm)] : []),
      ...madeSubnets.map((one) => add('subnet', one)),
      ...made.map(({ device }) => add('device', device)),
      ...made.flatMap(({ device }) => device.interfaces.map((at) => add('interface', at))),
      ...cables.map((one) => add('cable', this.cable(one))),
    ];
    return { devices: made, subnets: madeSubnets, edits };
  }

  private shift(address: Ipv4): Ipv4 {
    const { apart } = this.of.order;
    return apart.by === 'realm' ? address : toIpv4(address + apart.offset * this.index);
  }

  private shiftPrefix(prefix: Prefix): Prefix {
    return { ...prefix, network: this.shift(prefix.network) };
  }

  private subnet(one: Subnet): Subnet {
    const range = <R extends { readonly first: Ipv4; readonly last: Ipv4 }>(each: R): R => ({
      ...each,
      first: this.shift(each.first),
      last: this.shift(each.last),
    });
    return {
      ...one,
      id: this.subnetIds.get(one.id) ?? one.id,
      name: this.renamed(one.name),
      realmId: this.realm?.id ?? one.realmId,
      prefix: this.shiftPrefix(one.prefix),
      gateway: one.gateway === undefined ? undefined : this.shift(one.gateway),
      // A VLAN is of one subnet; the copy's is decided by whoever runs the switches.
      vlan: this.realm ? one.vlan : undefined,
      bands: one.bands.map(range),
      held: one.held.map(range),
      dhcpServers: one.dhcpServers.map((each) => this.shift(each)),
    };
  }

  private interface(at: Interface, device: Device): Interface {
    const address = this.addressOf(at, device);
    this.addresses.set(at.address, address);
    return {
      ...at,
      id: this.of.idOf('interface'),
      deviceId: this.deviceIds.get(device.id) ?? device.id,
      subnetId: this.subnetIds.get(at.subnetId) ?? at.subnetId,
      address,
      gateway: typeof at.gateway === 'string' ? at.gateway : this.shift(at.gateway),
      mac: undefined,
    };
  }

  /** In a subnet that is copied, or by an offset: shifted. Else the next free one of its band. */
  private addressOf(at: Interface, device: Device): Ipv4 {
    if (this.subnetIds.has(at.subnetId)) return this.shift(at.address);
    const subnet = findSubnet(this.of.plan, at.subnetId);
    const shifted = this.shift(at.address);
    if (!subnet || shifted !== at.address) return shifted;
    const kind = findKind(this.of.plan, device.kindId);
    const avoided = avoidedFor(this.of.plan, subnet, { kind, way: device.way, now: this.of.now });
    const taken = this.shared.taken.get(subnet.id) ?? avoided.taken;
    this.shared.taken.set(subnet.id, taken);
    const free = nextFree(subnet, kind?.role ?? 'io', { ...avoided, taken }) ?? at.address;
    taken.add(free);
    return free;
  }

  private device(from: Device, interfaces: readonly Interface[]): Device {
    const name = this.uniqueName(from.name);
    const other = (text: string | undefined) =>
      text === undefined ? undefined : this.renamedName(text);
    return {
      ...from,
      id: this.deviceIds.get(from.id) ?? from.id,
      title: this.renamed(from.title),
      name,
      stationName: other(from.stationName),
      dhcpName: other(from.dhcpName),
      variable: other(from.variable),
      area: this.replaced(from.area),
      cabinet: this.replaced(from.cabinet),
      controllerId: this.idNow(from.controllerId),
      references: from.references.map((one) => ({
        ...one,
        deviceId: this.idNow(one.deviceId),
        address:
          one.address === undefined ? undefined : (this.addresses.get(one.address) ?? one.address),
      })),
      routes: from.routes.map(({ to, via }) => ({
        to: this.isCopied(to.network) ? this.shiftPrefix(to) : to,
        via: this.addresses.get(via) ?? (this.isCopied(via) ? this.shift(via) : via),
      })),
      translations: from.translations.map((one) => this.translation(one)),
      interfaces,
    };
  }

  private translation(one: Device['translations'][number]): Device['translations'][number] {
    const inside = this.isCopied(one.inside.network) ? this.shiftPrefix(one.inside) : one.inside;
    if (one.kind === 'many-to-one')
      return { ...one, inside, outside: this.addresses.get(one.outside) ?? one.outside };
    // Each machine needs an outside of its own: the next block of the same size.
    const outside = toIpv4(one.outside.network + sizeOf(one.outside) * this.index);
    return { ...one, inside, outside: { ...one.outside, network: outside } };
  }

  private isCopied(address: Ipv4): boolean {
    return this.of.plan.subnets.some(
      (one) => this.subnetIds.has(one.id) && containsAddress(one.prefix, address),
    );
  }

  private cable(one: Cable): Cable {
    const plug = (end: Cable['from']) => ({
      ...end,
      deviceId: this.deviceIds.get(end.deviceId) ?? end.deviceId,
    });
    return { ...one, id: this.of.idOf('cable'), from: plug(one.from), to: plug(one.to) };
  }

  private idNow(id: string | undefined): string | undefined {
    return id === undefined ? undefined : (this.deviceIds.get(id) ?? id);
  }

  private get number(): number {
    return this.of.order.first + this.index - 1;
  }

  private get replacement(): string {
    return this.of.order.replace.replaceAll('{n}', String(this.number));
  }

  private replaced(text: string): string {
    const { find } = this.of.order;
    return find === '' ? text : text.replaceAll(find, this.replacement);
  }

  /** A title that does not hold the text gets the number behind it: no two are called alike. */
  private renamed(text: string): string {
    const after = this.replaced(text);
    return after === text ? `${text} ${this.number}` : after;
  }

  /** Names are small: the text is looked for and put in small letters. */
  private renamedName(text: string): string {
    const find = this.of.order.find.toLowerCase();
    const after = find === '' ? text : text.replaceAll(find, this.replacement.toLowerCase());
    if (after !== text) return after;
    const exact = this.replaced(text);
    return exact === text ? `${text}-${this.number}` : exact;
  }

  private uniqueName(text: string): string {
    const base = this.renamedName(text);
    let name = base;
    for (let more = 2; this.shared.names.has(name); more += 1) name = `${base}-${more}`;
    this.shared.names.add(name);
    return name;
  }
}

/** The address of a copied device as text, for the preview. */
export const addressesOf = (device: Device): string =>
  device.interfaces.map((at) => formatIpv4(at.address)).join(', ');
