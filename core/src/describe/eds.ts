import { toKind, type Kind } from '../plan';
import { TO_CONFIRM, type Description, type NoDescription, type Unread } from './description';
import { readSections, type EdsEntry, type EdsSections } from './eds-text';

const MILLI = 1000;

/**
 * Reads an electronic data sheet of EtherNet/IP (CIP volume 1, chapter 7; from memory): who made it,
 * its numbers, and how large its connections are. What is missing or broken is told by its line, and
 * the rest is read.
 */
export function readEds(text: string): Description | NoDescription {
  const { sections, unread: broken } = readSections(text);
  const device = sections.get('device');
  if (!device) return 'no-device';
  const unread: Unread[] = [...broken];
  const number = (key: string): number | undefined => numberOf(device.get(key), unread);
  const [vendor, type, product] = [number('vendcode'), number('prodtype'), number('prodcode')];
  if (vendor === undefined || product === undefined) return 'no-identity';
  const word = (key: string): string => device.get(key)?.values[0] ?? '';
  const name = word('prodname') || `Product ${product}`;
  const maker = word('vendname') || `Vendor ${vendor}`;
  const [major, minor] = [word('majrev'), word('minrev')];
  const connections = connectionsOf(sections, unread);
  return {
    unread,
    kinds: [
      toKind({
        id: `eds-${vendor}-${type ?? 0}-${product}`,
        ...{ maker: maker.slice(0, 80), name: name.slice(0, 120) },
        orderNumber: word('catalog').slice(0, 80),
        revision: major === '' ? '' : `${major}.${(minor || '0').padStart(2, '0')}`,
        ...roleOf(type),
        ways: [
          { way: 'bootp', first: [], steps: [] },
          { way: 'dhcp-mac', first: [], steps: [] },
        ],
        factory: { kind: 'asks', by: 'dhcp' },
        pinning: { by: 'tcpip-object', steps: [] },
        services: [{ protocol: 'tcp', port: 44_818, name: 'EtherNet/IP' }],
        identity: { vendor, type: type ?? 0, product },
        roles: [{ protocol: 'EtherNet/IP', side: 'serves' }],
        offeredSizes: connections.sizes,
        mostConnections:
          numberOf(sections.get('capacity')?.get('maxioconnections'), unread) || undefined,
        leastIntervalMillis: connections.leastInterval,
        ports: portsOf(sections),
        note: TO_CONFIRM,
      }),
    ],
  };
}

/** What the sockets are called (Ethernet link class, `InterfaceLabel1 = "X1";`). */
function portsOf(sections: EdsSections): readonly string[] {
  const labels = [...(sections.get('ethernet link class') ?? [])]
    .filter(([key]) => /^interfacelabel\d+$/.test(key))
    .map(([, { values }]) => (values[0] ?? '').trim().slice(0, 40))
    .filter((label) => label !== '');
  return [...new Set(labels)].slice(0, 64);
}

function numberOf(entry: EdsEntry | undefined, unread: Unread[]): number | undefined {
  const text = entry?.values[0]?.trim() ?? '';
  if (!entry || text === '') return undefined;
  const value = /^(0x[0-9a-f]+|\d+)$/i.test(text) ? Number(text) : NaN;
  if (Number.isInteger(value) && value >= 0 && value <= 65_535) return value;
  unread.push({
    line: entry.line,
    text: `${entry.key} = ${text}`,
    why: 'is no number of 0 to 65535',
  });
  return undefined;
}

/** Device profiles by their number (CIP volume 1, chapter 6; from memory). */
const PROFILES: Readonly<Record<number, readonly [role: Kind['role'], stem: string]>> = {
  2: ['drives', 'drive'],
  7: ['io', 'station'],
  12: ['gateways', 'gateway'],
  14: ['controllers', 'controller'],
  24: ['panels', 'panel'],
  27: ['io', 'valves'],
  37: ['drives', 'drive'],
};

function roleOf(type: number | undefined): Pick<Kind, 'role' | 'stem'> {
  const [role, stem] = PROFILES[type ?? -1] ?? ['io', 'device'];
  return { role, stem };
}

/** Fields of a connection entry, counted from 0: O→T interval and size, T→O interval and size. */
const INTERVALS = [2, 5];
const SIZES = [3, 6];

function connectionsOf(sections: EdsSections, unread: Unread[]) {
  const sizes = new Set<number>();
  let least = Infinity;
  for (const [key, entry] of sections.get('connection manager') ?? []) {
    if (!/^connection\d+$/.test(key)) continue;
    for (const at of SIZES) {
      const size = sizeOf(entry, at, sections, unread);
      if (size !== undefined && size > 0 && size <= 65_535) sizes.add(size);
    }
    for (const at of INTERVALS) {
      const from = { sections, entry, unread };
      const micros = resolve(entry.values[at] ?? '', from, PARAMETER_LEAST);
      if (micros !== undefined && micros >= MILLI) least = Math.min(least, micros / MILLI);
    }
  }
  return {
    sizes: [...sizes].sort((a, b) => a - b).slice(0, 200),
    leastInterval: least <= 60_000 ? Math.ceil(least) : undefined,
  };
}

/** So often a value may name another. */
const DEEPEST = 8;

/** Fields of an assembly: its size in bytes, then from the sixth on pairs of a member's bits and what it is. */
const ASSEMBLY_SIZE = 2;
const FIRST_MEMBER = 6;
/** Fields of a parameter: how many bytes its type has, its minimum and its default. */
const PARAMETER_BYTES = 5;
const PARAMETER_LEAST = 9;
const PARAMETER_DEFAULT = 11;

/** Where a value stands, and where what cannot be read of it is told. */
interface From {
  readonly sections: EdsSections;
  readonly entry: EdsEntry;
  readonly unread: Unread[];
}

/** The size of a connection; where it is left out, that of the assembly its format names, the field after it. */
function sizeOf(
  entry: EdsEntry,
  at: number,
  sections: EdsSections,
  unread: Unread[],
): number | undefined {
  const from = { sections, entry, unread };
  const own = entry.values[at]?.trim() ?? '';
  if (own !== '') return resolve(own, from, PARAMETER_DEFAULT);
  const format = entry.values[at + 1]?.trim().toLowerCase() ?? '';
  const assembly = sections.get('assembly')?.get(format);
  return assembly && assemblySize(assembly, from);
}

/** What an assembly says of its size, or else what its members have together, in whole bytes. */
function assemblySize(assembly: EdsEntry, from: From): number | undefined {
  const own = assembly.values[ASSEMBLY_SIZE]?.trim() ?? '';
  if (own !== '') return resolve(own, from, PARAMETER_DEFAULT);
  let bits = 0;
  for (let at = FIRST_MEMBER; at < assembly.values.length; at += 2) {
    const size = assembly.values[at]?.trim() ?? '';
    const member = from.sections
      .get('params')
      ?.get(assembly.values[at + 1]?.trim().toLowerCase() ?? '');
    const bytes = Number(member?.values[PARAMETER_BYTES] ?? 0);
    bits +=
      size === ''
        ? 8 * (Number.isFinite(bytes) ? bytes : 0)
        : (resolve(size, from, PARAMETER_DEFAULT) ?? 0);
  }
  return bits === 0 ? undefined : Math.ceil(bits / 8);
}

/**
 * A number, or what it is by another entry: `Param3` is what a field of that parameter says, `Assem4` that
 * assembly's size, and either may name a further one.
 * @param field of a parameter: its default for a size, its minimum for the least interval
 */
function resolve(
  text: string,
  { sections, entry: from, unread }: From,
  field: number,
): number | undefined {
  let value = text.trim();
  for (let depth = 0; depth < DEEPEST; depth += 1) {
    if (/^(0x[0-9a-f]+|\d+)$/i.test(value)) return Number(value);
    if (value === '') return undefined;
    const key = value.toLowerCase();
    const parameter = sections.get('params')?.get(key);
    const assembly = sections.get('assembly')?.get(key);
    if (parameter) value = parameter.values[field]?.trim() ?? '';
    else if (assembly) value = assembly.values[ASSEMBLY_SIZE]?.trim() ?? '';
    else {
      unread.push({ line: from.line, text: value, why: 'names nothing in this file' });
      return undefined;
    }
  }
  unread.push({
    line: from.line,
    text,
    why: `names something that names another, ${DEEPEST} times`,
  });
  return undefined;
}
