import {
  containsAddress,
  formatIpv4,
  formatMac,
  formatPrefix,
  ok,
  parseIpv4,
  parseMac,
  maskOf,
  readMask,
  readNetwork,
  refuse,
  toIpv4,
  type Result,
} from '../net';
import {
  findDevice,
  dhcpNameOf,
  findKind,
  findSubnet,
  gatewayOf,
  kindsOf,
  maskLengthOf,
  stationNameOf,
  variableOf,
  WAY_WORDS,
  WAYS,
  type Device,
  type Interface,
  type Json,
  type Kind,
  type Plan,
  type Subnet,
} from '../plan';

/** A line of the sheet: one interface of a device, or a device that has none. */
export interface SheetRow {
  /** The interface's id, or the device's where it has none. */
  readonly id: string;
  readonly device: Device;
  readonly at: Interface | undefined;
}

/** The lines of a plan, in its order. */
export const rowsOf = (plan: Plan): readonly SheetRow[] =>
  plan.devices.flatMap((device): readonly SheetRow[] =>
    device.interfaces.length === 0
      ? [{ id: device.id, device, at: undefined }]
      : device.interfaces.map((at) => ({ id: at.id, device, at })),
  );

/** Fields of the two things a line shows, as text. */
export interface CellChange {
  readonly device?: Readonly<Record<string, Json>>;
  readonly at?: Readonly<Record<string, Json>>;
}

export interface SheetColumn {
  readonly id: ColumnId;
  readonly title: string;
  /** Headings of lists that mean this column, in small letters. */
  readonly known: readonly string[];
  /** Addresses, names and MACs: figures of equal width. */
  readonly figures?: true;
  /** Only lists have it: what a line says of its kind or its subnet, held against the plan. */
  readonly isListed?: true;
  readonly text: (row: SheetRow, plan: Plan) => string;
  /** What a text typed or pasted there changes. @param row undefined for a line that is new */
  readonly read: (text: string, plan: Plan, row: SheetRow | undefined) => Result<CellChange>;
}

export const COLUMN_IDS = [
  'title',
  'kind',
  'subnet',
  'address',
  'name',
  'area',
  'cabinet',
  'position',
  'way',
  'controller',
  'stationName',
  'dhcpName',
  'variable',
  'mac',
  'mask',
  'gateway',
  'serial',
  'note',
  'maker',
  'orderNumber',
  'vlan',
] as const;
export type ColumnId = (typeof COLUMN_IDS)[number];

const same = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();

const ofDevice = (fields: Readonly<Record<string, Json>>): Result<CellChange> =>
  ok({ device: fields });
const ofInterface = (fields: Readonly<Record<string, Json>>): Result<CellChange> =>
  ok({ at: fields });

/** A column of a device's plain text. */
const plain = (
  id: 'area' | 'cabinet' | 'position' | 'serial' | 'note',
  title: string,
  most: number,
  known: readonly string[],
): SheetColumn => ({
  ...{ id, title, known },
  text: ({ device }) => device[id],
  read: (text) =>
    text.trim().length > most
      ? refuse('cell.long', text, { have: text.trim().length, most })
      : ofDevice({ [id]: text.trim() }),
});

/** A name that is made from the host name as long as nobody typed another. */
const derived = (
  id: 'stationName' | 'dhcpName' | 'variable',
  title: string,
  text: (device: Device) => string,
  known: readonly string[],
): SheetColumn => ({
  ...{ id, title, known, figures: true },
  text: ({ device }) => text(device),
  read: (typed, _plan, row) => {
    const name = typed.trim();
    if (name.length > 255) return refuse('cell.long', name, { have: name.length, most: 255 });
    const made = row && text({ ...row.device, [id]: undefined });
    return ofDevice({ [id]: name === '' || name === made ? null : name });
  },
});

/** A kind by its name, with its maker or without, by its order number or its id. */
export const findKindByWords = (plan: Plan, text: string): Kind | undefined =>
  kindsOf(plan).find(
    (kind) =>
      same(kind.id, text) ||
      same(kind.name, text) ||
      same(`${kind.maker} ${kind.name}`, text) ||
      (kind.orderNumber !== '' && same(kind.orderNumber, text)),
  );

/** A subnet by its name, or by a network that is its own. */
function findSubnetByWords(plan: Plan, text: string): Subnet | undefined {
  const named = plan.subnets.find((one) => same(one.name, text));
  if (named) return named;
  const network = readNetwork(text);
  return network.ok
    ? plan.subnets.find((one) => formatPrefix(one.prefix) === formatPrefix(network.value))
    : undefined;
}

const findDeviceByWords = (plan: Plan, text: string): Device | undefined =>
  plan.devices.find((one) => same(one.name, text)) ??
  plan.devices.find((one) => same(one.title, text));

/** An address, or only its last number where the subnet is known: `.37`. */
export function readAddress(
  text: string,
  subnet: Pick<Subnet, 'prefix'> | undefined,
): Result<string> {
  const typed = text.trim();
  const short = /^\.(\d{1,3})$/.exec(typed);
  if (short && subnet && Number(short[1]) <= 255) {
    const base = (subnet.prefix.network & 0xffffff00) >>> 0;
    return ok(formatIpv4(toIpv4(base + Number(short[1]))));
  }
  const read = parseIpv4(typed);
  return read.ok ? ok(formatIpv4(read.value)) : read;
}

/** What a line says of its kind: it helps to find it, and makes the kind where there is none. */
const ofKind = (
  id: 'maker' | 'orderNumber',
  title: string,
  known: readonly string[],
): SheetColumn => ({
  ...{ id, title, known, isListed: true },
  text: ({ device }, plan) => findKind(plan, device.kindId)?.[id] ?? '',
  read: () => ok({}),
});

/** Signs for none, as lists have them (common practice, no source). */
const NO_GATEWAY = ['none', '-', '–', '0.0.0.0', 'keins', 'keiner'];

/** The subnet's own gateway is not written again; what a new line says is settled once its subnet is known. */
function readGateway(text: string, subnet: Subnet | undefined): Result<CellChange> {
  if (text === '') return ofInterface({ gateway: 'subnet' });
  if (NO_GATEWAY.includes(text.toLowerCase())) return ofInterface({ gateway: 'none' });
  const read = readAddress(text, subnet);
  if (!read.ok) return read;
  const own = subnet?.gateway === undefined ? undefined : formatIpv4(subnet.gateway);
  return ofInterface({ gateway: read.value === own ? 'subnet' : read.value });
}

const COLUMNS_BY_ID: Readonly<Record<ColumnId, SheetColumn>> = {
  title: {
    ...{ id: 'title', title: 'device' },
    known: [
      ...['device', 'device name', 'title', 'what people call it', 'description', 'name', 'tag'],
      ...['gerät', 'gerätename', 'bezeichnung', 'benennung', 'betriebsmittelkennzeichen', 'bmk'],
    ],
    text: ({ device }) => device.title,
    read: (text) => {
      const title = text.trim();
      if (title === '') return refuse('cell.empty', 'device');
      if (title.length > 120) return refuse('cell.long', title, { have: title.length, most: 120 });
      return ofDevice({ title });
    },
  },
  kind: {
    ...{
      id: 'kind',
      title: 'kind',
      known: ['kind', 'type', 'model', 'device type', 'typ', 'gerätetyp', 'modell'],
    },
    text: ({ device }, plan) => findKind(plan, device.kindId)?.name ?? device.kindId,
    read: (text, plan) => {
      const kind = findKindByWords(plan, text);
      return kind ? ofDevice({ kindId: kind.id }) : refuse('cell.kind', text.trim());
    },
  },
  subnet: {
    ...{
      id: 'subnet',
      title: 'subnet',
      known: ['subnet', 'network', 'net', 'segment', 'subnetz', 'netz', 'netzwerk'],
    },
    text: ({ at }, plan) => (at ? (findSubnet(plan, at.subnetId)?.name ?? at.subnetId) : ''),
    read: (text, plan) => {
      const subnet = findSubnetByWords(plan, text);
      return subnet ? ofInterface({ subnetId: subnet.id }) : refuse('cell.subnet', text.trim());
    },
  },
  address: {
    ...{ id: 'address', title: 'address', figures: true },
    known: [
      ...['address', 'ip', 'ip address', 'ipv4', 'ipv4 address'],
      ...['adresse', 'ip adresse', 'ipv4 adresse'],
    ],
    text: ({ at }) => (at ? formatIpv4(at.address) : ''),
    read: (text, plan, row) => {
      const read = readAddress(text, row?.at && findSubnet(plan, row.at.subnetId));
      return read.ok ? ofInterface({ address: read.value }) : read;
    },
  },
  name: {
    ...{ id: 'name', title: 'host name', figures: true },
    known: ['host name', 'hostname', 'host', 'dns name', 'rechnername', 'netzwerkname'],
    text: ({ device }) => device.name,
    // What is no legal name is a snag and not a refusal: nothing that was typed is lost.
    read: (text) => {
      const name = text.trim();
      if (name === '') return refuse('cell.empty', 'host name');
      if (name.length > 253) return refuse('cell.long', name, { have: name.length, most: 253 });
      return ofDevice({ name, isNameTyped: true });
    },
  },
  area: plain('area', 'area', 80, [
    ...['area', 'plant area', 'location', 'hall'],
    ...['bereich', 'anlagenteil', 'ort', 'einbauort', 'halle'],
  ]),
  cabinet: plain('cabinet', 'cabinet', 40, [
    ...['cabinet', 'panel', 'enclosure', 'schaltschrank', 'schrank', 'verteiler'],
  ]),
  position: plain('position', 'position', 40, [
    ...['position', 'row', 'slot', 'place', 'platz', 'steckplatz', 'einbauplatz'],
  ]),
  way: {
    ...{
      id: 'way',
      title: 'way',
      known: ['way', 'method', 'assignment', 'ip assignment', 'adressvergabe', 'vergabe'],
    },
    text: ({ device }) => WAY_WORDS[device.way],
    read: (text) => {
      const way = WAYS.find((one) => same(one, text) || same(WAY_WORDS[one], text));
      return way ? ofDevice({ way }) : refuse('cell.way', text.trim());
    },
  },
  controller: {
    ...{
      id: 'controller',
      title: 'controller',
      known: ['controller', 'plc', 'master', 'steuerung', 'sps'],
    },
    text: ({ device }, plan) =>
      device.controllerId === undefined
        ? ''
        : (findDevice(plan, device.controllerId)?.title ?? device.controllerId),
    read: (text, plan) => {
      if (text.trim() === '') return ofDevice({ controllerId: null });
      const found = findDeviceByWords(plan, text);
      return found ? ofDevice({ controllerId: found.id }) : refuse('cell.device', text.trim());
    },
  },
  stationName: derived('stationName', 'station name', stationNameOf, [
    'station name',
    'profinet name',
    'profinet gerätename',
    'profinet device name',
    'stationsname',
    'device name on the wire',
  ]),
  dhcpName: derived('dhcpName', 'DHCP name', dhcpNameOf, ['dhcp name', 'dhcp host name']),
  variable: derived('variable', 'variable', variableOf, [
    ...['variable', 'symbol', 'variable name', 'variablenname'],
  ]),
  mac: {
    ...{ id: 'mac', title: 'MAC', figures: true },
    known: ['mac', 'mac address', 'hardware address', 'ethernet address', 'mac adresse'],
    text: ({ at }) => (at?.mac === undefined ? '' : formatMac(at.mac)),
    read: (text) => {
      if (text.trim() === '') return ofInterface({ mac: null });
      const read = parseMac(text.trim());
      return read.ok ? ofInterface({ mac: formatMac(read.value) }) : read;
    },
  },
  mask: {
    ...{ id: 'mask', title: 'mask', figures: true },
    known: [
      ...['mask', 'subnet mask', 'netmask', 'network mask', 'prefix', 'prefix length'],
      ...['maske', 'subnetzmaske', 'subnetz maske', 'netzmaske'],
    ],
    text: ({ at }, plan) => {
      const subnet = at && findSubnet(plan, at.subnetId);
      return subnet ? formatIpv4(at.mask ?? maskOf(maskLengthOf(at, subnet))) : '';
    },
    // Another mask than the subnet's is kept as it is written, and is a snag.
    read: (text, plan, row) => {
      if (text.trim() === '') return ofInterface({ mask: null });
      const read = readMask(text);
      if (!read.ok) return read;
      const subnet = row?.at && findSubnet(plan, row.at.subnetId);
      const isOwn = !subnet || maskOf(subnet.prefix.length) !== read.value;
      return ofInterface({ mask: isOwn ? formatIpv4(read.value) : null });
    },
  },
  gateway: {
    ...{ id: 'gateway', title: 'gateway', figures: true },
    known: [
      ...['gateway', 'default gateway', 'router', 'gateway address'],
      ...['standardgateway', 'standard gateway', 'gateway adresse'],
    ],
    text: ({ at }, plan) => {
      const subnet = at && findSubnet(plan, at.subnetId);
      const gateway = subnet && gatewayOf(at, subnet);
      return gateway === undefined ? '' : formatIpv4(gateway);
    },
    read: (text, plan, row) => {
      const subnet = row?.at && findSubnet(plan, row.at.subnetId);
      return readGateway(text.trim(), subnet);
    },
  },
  serial: plain('serial', 'serial', 60, [
    ...['serial', 'serial number', 'serial no', 's n', 'seriennummer', 'serien nr'],
  ]),
  note: plain('note', 'note', 2000, [
    ...['note', 'notes', 'comment', 'remark', 'remarks'],
    ...['bemerkung', 'kommentar', 'notiz', 'anmerkung', 'hinweis'],
  ]),
  maker: ofKind('maker', 'maker', [
    ...['maker', 'manufacturer', 'vendor', 'make', 'brand', 'hersteller', 'fabrikat'],
  ]),
  orderNumber: ofKind('orderNumber', 'order number', [
    ...['order number', 'order no', 'article number', 'part number', 'catalog number'],
    ...['bestellnummer', 'bestell nr', 'artikelnummer', 'artikel nr'],
  ]),
  vlan: {
    ...{ id: 'vlan', title: 'VLAN', isListed: true },
    known: ['vlan', 'vlan id'],
    text: ({ at }, plan) => String((at && findSubnet(plan, at.subnetId)?.vlan) ?? ''),
    read: (text) =>
      /^\d{1,4}$/.test(text.trim()) ? ok({}) : refuse('cell.vlanNumber', text.trim()),
  },
};

/** Every column that a list may have. */
export const LIST_COLUMNS: readonly SheetColumn[] = COLUMN_IDS.map((id) => COLUMNS_BY_ID[id]);

/** The columns of a plan's own sheet. */
export const SHEET_COLUMNS: readonly SheetColumn[] = LIST_COLUMNS.filter((one) => !one.isListed);

export const columnOf = (id: ColumnId): SheetColumn => COLUMNS_BY_ID[id];

/** The only subnet of the plan that has this address in it; undefined where none or several have. */
export function onlySubnetOf(plan: Plan, address: string): Subnet | undefined {
  const read = parseIpv4(address);
  if (!read.ok) return undefined;
  const found = plan.subnets.filter((one) => containsAddress(one.prefix, read.value));
  return found.length === 1 ? found[0] : undefined;
}
