import { fail, ok, parseIpv4, readMask, type Ipv4, type Issue, type Result } from '../net';
import {
  changeOf,
  docOf,
  findDoc,
  interfacesOf,
  nameSlip,
  toDevice,
  type ConnectionEnd,
  type Device,
  type Edit,
  type Plan,
  type PlanDoc,
} from '../plan';
import { plannedName } from './three-ways';

/** One line of what stands in a controller's project. */
interface EnteredLine {
  /** Counted from 1 in what was pasted. */
  readonly line: number;
  readonly name: string;
  readonly address: Ipv4 | undefined;
  readonly mask: Ipv4 | undefined;
  readonly gateway: Ipv4 | undefined;
  readonly revision: string;
  readonly inSize: number | undefined;
  readonly outSize: number | undefined;
  /** What the sizes are counted in; undefined: as the controller's end has it so far. */
  readonly unitBits: ConnectionEnd['unitBits'] | undefined;
  readonly inInstance: number | undefined;
  readonly outInstance: number | undefined;
  readonly configInstance: number | undefined;
  readonly intervalMillis: number | undefined;
}

/** What was pasted: its lines, and what of it is not read. */
export interface EnteredTable {
  readonly lines: readonly EnteredLine[];
  /** Headings of columns that mean nothing here, as they stand there. */
  readonly unread: readonly string[];
}

/** A line and whose it is. */
interface PlacedLine {
  readonly line: EnteredLine;
  /** Undefined where the plan has neither its name nor its address. */
  readonly device: Device | undefined;
  /** It differs from the planned name by a slip of the hand, or was found by its address alone. */
  readonly by: 'name' | 'address' | 'slip' | 'nothing';
}

type Column =
  | ('name' | 'address' | 'mask' | 'gateway' | 'revision' | 'in' | 'out' | 'unit')
  | ('in-instance' | 'out-instance' | 'config-instance' | 'interval');

/** Headings as projects write them, the narrower ones first (common practice, no source). */
const HEADINGS: readonly (readonly [Column, RegExp])[] = [
  ['mask', /\bmask\b|netmask|maske\b/i],
  ['gateway', /gateway|^router/i],
  ['name', /^(device ?)?name|^station|^variable|^tag|ger(ä|ae)tename/i],
  ['address', /^(?!.*\b(mac|hardware|ethernet)\b).*(address|adresse)|^ip\b/i],
  ['revision', /revision|version|firmware|^rev\b/i],
  [
    'config-instance',
    /^[ck]onf.*(instance|instanz|assembly)|(instance|instanz|assembly).*[ck]onf/i,
  ],
  [
    'in-instance',
    /^(in|eing).*(instance|instanz|assembly)|(instance|instanz|assembly).*\b(in|eing)/i,
  ],
  [
    'out-instance',
    /^(out|ausg).*(instance|instanz|assembly)|(instance|instanz|assembly).*\b(out|ausg)/i,
  ],
  ['unit', /\bunits?\b|^bits\b|einheit/i],
  ['in', /^in\b|^input|^size in|^eing(ä|ae)nge|^eingang/i],
  ['out', /^out\b|^output|^size out|^ausg(ä|ae)nge|^ausgang/i],
  ['interval', /interval|cycle|^rpi\b|update|zyklus|zykluszeit/i],
];

const columnOf = (heading: string): Column | undefined =>
  HEADINGS.find(([, pattern]) => pattern.test(heading.trim()))?.[0];

/**
 * R-ENTERED: what was pasted, by its first line: headings if it has some, else name, address, revision, size in, size
 * out, interval in this order. Units of sizes and instances are read where a heading names them; a column that means
 * nothing here is named.
 * @returns every line that is wrong, each with its place
 */
export function readEntered(
  cells: readonly (readonly string[])[],
): Result<EnteredTable, readonly Issue[]> {
  const [first = []] = cells;
  const headed = first.map(columnOf);
  const hasHead = headed.filter(Boolean).length >= 2 && !first.some((cell) => parseIpv4(cell).ok);
  const columns: readonly (Column | undefined)[] = hasHead
    ? headed
    : (['name', 'address', 'revision', 'in', 'out', 'interval'] as const);
  const issues: Issue[] = [];
  const lines = cells.flatMap((row, at): readonly EnteredLine[] => {
    if ((hasHead && at === 0) || row.every((cell) => cell.trim() === '')) return [];
    const cell = (column: Column) => row[columns.indexOf(column)]?.trim() ?? '';
    const line = at + 1;
    const address = (column: Column, read = parseIpv4) =>
      addressIn(cell(column), read, `line ${line}`, issues);
    const number = (column: Column) => numberIn(cell(column), `line ${line}`, issues);
    return [
      {
        ...{ line, name: cell('name'), revision: cell('revision') },
        ...{ address: address('address'), gateway: address('gateway') },
        mask: address('mask', readMask),
        ...{ inSize: number('in'), outSize: number('out'), intervalMillis: number('interval') },
        ...{ inInstance: number('in-instance'), outInstance: number('out-instance') },
        configInstance: number('config-instance'),
        unitBits: unitIn(cell('unit'), `line ${line}`, issues),
      },
    ];
  });
  if (lines.length === 0) issues.push({ code: 'entered.empty', where: '' });
  const unread = hasHead ? first.filter((cell, at) => cell.trim() !== '' && !headed[at]) : [];
  return issues.length > 0 ? fail(issues) : ok({ lines, unread });
}

function addressIn(
  text: string,
  parse: (text: string) => Result<Ipv4>,
  where: string,
  issues: Issue[],
): Ipv4 | undefined {
  if (text === '') return undefined;
  const read = parse(text);
  if (read.ok) return read.value;
  issues.push({ ...read.error, where: `${where}: ${text}` });
  return undefined;
}

function numberIn(text: string, where: string, issues: Issue[]): number | undefined {
  if (text === '') return undefined;
  const value = /^\d{1,6}$/.test(text) ? Number(text) : NaN;
  if (!Number.isNaN(value)) return value;
  issues.push({ code: 'entered.number', where: `${where}: ${text}` });
  return undefined;
}

const UNITS: Readonly<Record<string, ConnectionEnd['unitBits']>> = {
  ...({ '8': '8', byte: '8', bytes: '8', '16': '16', word: '16', words: '16' } as const),
  ...({ '32': '32', 'double word': '32', 'double words': '32', dword: '32' } as const),
};

function unitIn(
  text: string,
  where: string,
  issues: Issue[],
): ConnectionEnd['unitBits'] | undefined {
  if (text === '') return undefined;
  const unit = UNITS[text.toLowerCase().replace(/ ?bits?$/, '')];
  if (unit === undefined) issues.push({ code: 'entered.unit', where: `${where}: ${text}` });
  return unit;
}

/** Whose each line is: by its name letter by letter, else by its address, else by a name that is nearly the same. */
export function placeEntered(plan: Plan, lines: readonly EnteredLine[]): readonly PlacedLine[] {
  const names = new Map(plan.devices.map((device) => [plannedName(device), device]));
  const addresses = new Map(interfacesOf(plan).map(({ device, at }) => [at.address, device]));
  return lines.map((line) => {
    const named = names.get(line.name);
    if (named) return { line, device: named, by: 'name' };
    const there = line.address === undefined ? undefined : addresses.get(line.address);
    if (there) return { line, device: there, by: 'address' };
    const near = plan.devices.find((device) => nameSlip(line.name, plannedName(device)));
    return near ? { line, device: near, by: 'slip' } : { line, device: undefined, by: 'nothing' };
  });
}

const withoutUnsaid = (said: {
  readonly [K in keyof ConnectionEnd]?: ConnectionEnd[K] | undefined;
}): Partial<ConnectionEnd> =>
  Object.fromEntries(Object.entries(said).filter(([, value]) => value !== undefined));

/** The lines as one change of the plan: what the controller has of each device. */
export const enteredEdits = (doc: PlanDoc, placed: readonly PlacedLine[]): readonly Edit[] =>
  placed.flatMap(({ line, device }) => {
    const thing = device && findDoc(doc, 'device', device.id);
    if (!device || !thing) return [];
    const { line: _line, name, address, mask, gateway, revision, ...said } = line;
    const { connection } = device;
    const next = toDevice({
      ...device,
      entered: { name, address, mask, gateway, revision },
      connection: connection && {
        ...connection,
        // What the list does not say stays as it was.
        controller: { ...connection.controller, ...withoutUnsaid(said) },
      },
    });
    return changeOf('device', thing, docOf('device', next));
  });
