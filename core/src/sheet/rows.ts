import { formatIpv4, maskOf, parseIpv4, type Ipv4, type Issue } from '../net';
import {
  avoidedFor,
  dhcpNamesOf,
  docOf,
  findKind,
  findSubnet,
  givenAddresses,
  nextFree,
  proposedName,
  proposedSwitchName,
  toDevice,
  toInterface,
  type Avoided,
  type Device,
  type Edit,
  type Json,
  type Kind,
  type Plan,
  type Subnet,
  type ThingDoc,
} from '../plan';
import { columnOf, LIST_COLUMNS, onlySubnetOf, readAddress, type ColumnId } from './columns';
import { KindsOfList, type KindWords, type UnknownKind } from './kinds-of-list';

/** The texts of a list's line by what their columns mean; a column may be missing. */
export type ListRow = Readonly<Partial<Record<ColumnId, string>>>;

/** What a line is taken for that says nothing of it. */
export interface RowDefaults {
  readonly kindId?: string;
  readonly subnetId?: string;
  /** What words for a kind mean that are no kind's own. */
  readonly kinds?: readonly KindWords[];
}

export interface BadRowCell {
  /** The line's place in the list, from 0. */
  readonly row: number;
  readonly column: ColumnId;
  readonly text: string;
  readonly issue: Issue;
}

/** A device as it would be added, with its interface. */
interface NewRow {
  readonly device: ThingDoc;
  readonly at: ThingDoc;
  readonly kind: Kind;
  readonly subnet: Subnet;
}

export interface NewRows {
  /** One for each line; undefined where something of it is bad. */
  readonly rows: readonly (NewRow | undefined)[];
  readonly bad: readonly BadRowCell[];
  /** Words for kinds that nobody knows; their lines are bad for it. */
  readonly unknownKinds: readonly UnknownKind[];
  readonly edits: readonly Edit[];
}

/**
 * New devices from the lines of a list. What a line leaves out is proposed: the next free address of
 * its band, a host name by the pattern, the first way of its kind. A line with a bad cell makes no
 * device, and all that is bad of it is named; an address that is there already is no refusal but a snag, told
 * afterwards. A kind is made once for all lines that want it.
 * @param idOf makes ids: `idOf('device')`
 */
export function newRowsOf(
  plan: Plan,
  list: readonly ListRow[],
  defaults: RowDefaults,
  now: number,
  idOf: (type: 'device' | 'interface' | 'kind') => string,
): NewRows {
  const kinds = new KindsOfList(plan, defaults.kinds ?? [], () => idOf('kind'));
  const maker = new Maker(plan, now, kinds, idOf);
  const bad: BadRowCell[] = [];
  // Lines with an address of their own come first, so that no proposal takes one away.
  const given = new Set(list.map((row) => row.address?.trim() ?? ''));
  const rows = list.map((row, index) => maker.make(row, index, defaults, given, bad));
  const controllers = linkControllers(plan, list, rows, bad);
  const whole = controllers.map((row, index) =>
    bad.some((one) => one.row === index) ? undefined : row,
  );
  const edits = whole.flatMap((row): readonly Edit[] => (row ? editsOf(row) : []));
  const made = kinds.madeFor(new Set(whole.flatMap((row) => (row ? [row.kind.id] : []))));
  return { rows: whole, bad, unknownKinds: kinds.unknown(), edits: [...made, ...edits] };
}

const editsOf = ({ device, at }: NewRow): readonly Edit[] => [
  { op: 'add', type: 'device', thing: device },
  { op: 'add', type: 'interface', thing: at },
];

class Maker {
  private readonly names: Set<string>;
  private readonly dhcpNames: Set<string>;
  private readonly avoided = new Map<string, Avoided>();
  /** By subnet: what is given, and what these lines give. */
  private readonly taken = new Map<string, Set<Ipv4>>();

  constructor(
    private readonly plan: Plan,
    private readonly now: number,
    private readonly kinds: KindsOfList,
    private readonly idOf: (type: 'device' | 'interface') => string,
  ) {
    this.names = new Set(plan.devices.map((device) => device.name));
    this.dhcpNames = dhcpNamesOf(plan);
  }

  make(
    row: ListRow,
    index: number,
    defaults: RowDefaults,
    given: ReadonlySet<string>,
    bad: BadRowCell[],
  ): NewRow | undefined {
    const refuse = (column: ColumnId, issue: Issue): undefined =>
      void bad.push({ row: index, column, text: row[column] ?? '', issue });
    const fields = this.readFields(row, refuse);
    const kind = this.kindOf(row, defaults, refuse);
    const subnet = this.subnetOf(row, fields.at, defaults);
    // An address that cannot be read says nothing of its subnet either: it is the one to mend.
    const typed = readAddress(row.address ?? '', subnet);
    if (subnet) holdVlan(row, subnet, refuse);
    if (!typed.ok && row.address?.trim()) return refuse('address', typed.error);
    if (!subnet) {
      if (fields.isGood('subnet')) refuse('subnet', { code: 'cell.needed', where: 'subnet' });
      return undefined;
    }
    if (!kind) return undefined;
    const way = (fields.device['way'] as Device['way'] | undefined) ?? kind.ways[0]?.way ?? 'bootp';
    const address = this.addressOf(row, subnet, kind, way, given);
    if (address === undefined)
      return refuse('address', { code: 'address.full', where: subnet.name });
    if (typeof address !== 'number') return refuse('address', address);
    return this.newRow(fields, kind, subnet, way, address);
  }

  /** All cells that need nothing but themselves. */
  private readFields(row: ListRow, refuse: Refuse): Fields {
    const device: Record<string, Json> = {};
    const at: Record<string, Json> = {};
    const bad = new Set<ColumnId>();
    for (const [id, text] of Object.entries(row) as [ColumnId, string][]) {
      // The address needs its subnet, the controller the other lines, the kind what else is said of it.
      if (text.trim() === '' || LATER.has(id)) continue;
      const read = columnOf(id).read(text, this.plan, undefined);
      if (!read.ok) {
        refuse(id, read.error);
        bad.add(id);
      } else {
        Object.assign(device, read.value.device);
        Object.assign(at, read.value.at);
      }
    }
    return { device, at, isGood: (id) => !bad.has(id) };
  }

  /** Its kind, with all that the line says of it; undefined where that cannot be, which is told. */
  private kindOf(row: ListRow, { kindId }: RowDefaults, refuse: Refuse): Kind | undefined {
    const said = this.kinds.find(row);
    if (said.kind === 'nothing') {
      const usual = kindId === undefined ? undefined : findKind(this.plan, kindId);
      if (!usual) refuse('kind', { code: 'cell.needed', where: 'kind' });
      return usual;
    }
    if (said.kind === 'found') return said.found;
    return refuse(said.column, said.issue);
  }

  private subnetOf(
    row: ListRow,
    at: Readonly<Record<string, Json>>,
    { subnetId }: RowDefaults,
  ): Subnet | undefined {
    const named = at['subnetId'];
    if (typeof named === 'string') return findSubnet(this.plan, named);
    const byAddress = onlySubnetOf(this.plan, row.address?.trim() ?? '');
    return byAddress ?? (subnetId === undefined ? undefined : findSubnet(this.plan, subnetId));
  }

  private addressOf(
    row: ListRow,
    subnet: Subnet,
    kind: Kind,
    way: Device['way'],
    given: ReadonlySet<string>,
  ): Ipv4 | Issue | undefined {
    const typed = row.address?.trim() ?? '';
    if (typed !== '') {
      const read = readAddress(typed, subnet);
      if (!read.ok) return read.error;
      const parsed = parseIpv4(read.value);
      return parsed.ok ? parsed.value : parsed.error;
    }
    const key = `${subnet.id}|${kind.id}|${way}`;
    let avoided = this.avoided.get(key);
    if (!avoided) {
      const taken = this.takenIn(subnet, given);
      avoided = { ...avoidedFor(this.plan, subnet, { kind, way, now: this.now }), taken };
      this.avoided.set(key, avoided);
    }
    return nextFree(subnet, kind.role, avoided);
  }

  private takenIn(subnet: Subnet, given: ReadonlySet<string>): Set<Ipv4> {
    let taken = this.taken.get(subnet.id);
    if (taken) return taken;
    taken = new Set(givenAddresses(this.plan, subnet.id));
    for (const text of given) {
      const read = readAddress(text, subnet);
      const address = read.ok ? parseIpv4(read.value) : read;
      if (address.ok) taken.add(address.value);
    }
    this.taken.set(subnet.id, taken);
    return taken;
  }

  private newRow(
    fields: Fields,
    kind: Kind,
    subnet: Subnet,
    way: Device['way'],
    address: Ipv4,
  ): NewRow {
    const place = { area: '', cabinet: '', position: '', ...fields.device } as Pick<
      Device,
      'area' | 'cabinet' | 'position'
    >;
    const typed = fields.device['name'];
    const name =
      typeof typed === 'string' ? typed : proposedName(this.plan, place, kind, this.names, address);
    this.names.add(name);
    this.taken.get(subnet.id)?.add(address);
    const id = this.idOf('device');
    const dhcpName = way === 'dhcp-name' ? proposedSwitchName(kind, this.dhcpNames) : undefined;
    const device = toDevice({
      ...{ id, name, way, kindId: kind.id, title: `${kind.name} ${name}`, dhcpName },
    });
    this.dhcpNames.add(dhcpName ?? name);
    const at = toInterface({
      ...{ id: this.idOf('interface'), deviceId: id, subnetId: subnet.id, address },
    });
    return {
      ...{ kind, subnet },
      device: { ...docOf('device', device), ...fields.device },
      at: { ...docOf('interface', at), ...netOf(fields.at, subnet), address: formatIpv4(address) },
    };
  }
}

interface Fields {
  readonly device: Readonly<Record<string, Json>>;
  readonly at: Readonly<Record<string, Json>>;
  readonly isGood: (column: ColumnId) => boolean;
}

type Refuse = (column: ColumnId, issue: Issue) => undefined;

/** Columns that are read after the others. */
const LATER: ReadonlySet<ColumnId> = new Set<ColumnId>(['address', 'controller', 'kind']);

/** A mask and a gateway that are the subnet's own are not written again. */
function netOf(at: Fields['at'], subnet: Subnet): Fields['at'] {
  const { mask, gateway, ...others } = at;
  const own = subnet.gateway === undefined ? 'none' : formatIpv4(subnet.gateway);
  return {
    ...others,
    ...(mask === undefined || mask === formatIpv4(maskOf(subnet.prefix.length)) ? {} : { mask }),
    ...(gateway === undefined || gateway === own ? {} : { gateway }),
  };
}

/** The VLAN is the subnet's: a line that says another is told. */
function holdVlan(row: ListRow, { name, vlan }: Subnet, refuse: Refuse): void {
  const text = row.vlan?.trim() ?? '';
  if (!/^\d{1,4}$/.test(text) || Number(text) === vlan) return;
  refuse('vlan', {
    ...{ code: 'cell.vlan', where: text },
    facts: { subnet: name, planned: vlan ?? '' },
  });
}

/** Controllers may be in the plan or in the list itself, before or after. */
function linkControllers(
  plan: Plan,
  list: readonly ListRow[],
  rows: readonly (NewRow | undefined)[],
  bad: BadRowCell[],
): readonly (NewRow | undefined)[] {
  const byWords = new Map<string, string>();
  const learn = (id: string, title: string, name: string) => {
    if (!byWords.has(title.toLowerCase())) byWords.set(title.toLowerCase(), id);
    byWords.set(name.toLowerCase(), id);
  };
  for (const { id, title, name } of plan.devices) learn(id, title, name);
  for (const row of rows)
    if (row) learn(row.device.id, String(row.device['title']), String(row.device['name']));
  return rows.map((row, index) => {
    const text = list[index]?.controller?.trim() ?? '';
    if (!row || text === '') return row;
    const controllerId = byWords.get(text.toLowerCase());
    if (controllerId !== undefined) return { ...row, device: { ...row.device, controllerId } };
    bad.push({
      ...{ row: index, column: 'controller', text },
      issue: { code: 'cell.device', where: text },
    });
    return row;
  });
}

const UMLAUTS: readonly (readonly [string, string])[] = [
  ['ä', 'ae'],
  ['ö', 'oe'],
  ['ü', 'ue'],
  ['ß', 'ss'],
];

/** A heading in small letters, with one space for what stands between words, umlauts written out. */
const headingWords = (heading: string): string =>
  UMLAUTS.reduce(
    (text, [from, to]) => text.replaceAll(from, to),
    heading
      .toLowerCase()
      .replace(/[\s_/.:()-]+/g, ' ')
      .trim(),
  );

/** Which column each heading of a list means; the first of two that mean the same counts. */
export function matchColumns(
  headings: readonly string[],
  columns: readonly { readonly id: ColumnId; readonly known: readonly string[] }[],
  remembered: ReadonlyMap<string, string> = new Map(),
): readonly (ColumnId | undefined)[] {
  const used = new Set<ColumnId>();
  const words = headings.map(headingWords);
  const take = (id: ColumnId | undefined): ColumnId | undefined => {
    if (id === undefined || used.has(id)) return undefined;
    used.add(id);
    return id;
  };
  return words.map((word, index) => {
    const kept = remembered.get(headings[index] ?? '');
    const known =
      columns.find((one) => one.id === kept) ??
      columns.find((one) => one.known.some((heading) => headingWords(heading) === word));
    return take(known?.id);
  });
}

/** What the columns of a list are by their headings, as this plan has them from lists before; null of those that say nothing. */
export function columnsOfList(
  { settings }: Pick<Plan, 'settings'>,
  headings: readonly string[],
): readonly (ColumnId | null)[] {
  const remembered = new Map(settings.columns.map(({ heading, field }) => [heading, field]));
  return matchColumns(headings, LIST_COLUMNS, remembered).map((one) => one ?? null);
}
