import { MOST_SLOT, type ModuleOffer } from '../plan';
import type { GsdmlFile } from './gsdml-file';
import { below, type XmlElement } from './xml';

// Modules of a station and how many bytes of a connection each takes.

/** Bytes of a data item by its type (IEC 61158-6-10; from memory); the rest say their length. */
const TYPE_BYTES: Readonly<Record<string, number>> = {
  Boolean: 1,
  Integer8: 1,
  Integer16: 2,
  Integer32: 4,
  Integer64: 8,
  Unsigned8: 1,
  Unsigned16: 2,
  Unsigned32: 4,
  Unsigned64: 8,
  Float32: 4,
  Float64: 8,
  Date: 7,
  TimeOfDay: 6,
  TimeDifference: 6,
  'Unsigned8+Unsigned8': 2,
  'Float32+Unsigned8': 5,
  'Float32+Status8': 5,
  N2: 2,
  N4: 4,
  V2: 2,
  L2: 2,
  R2: 2,
  T2: 2,
  T4: 4,
  D2: 2,
  E2: 2,
  C4: 4,
  X2: 2,
  X4: 4,
};

const MOST_BYTES = 65_535;

/** The modules that fit this access point, each with the slots it may sit in. */
export function modulesOf(file: GsdmlFile, accessPoint: XmlElement): readonly ModuleOffer[] {
  const titles = new Map<XmlElement, string>();
  return below(accessPoint, 'UseableModules', 'ModuleItemRef').flatMap((ref) => {
    const module = file.named('ModuleItem', ref, 'ModuleItemTarget');
    if (!module) return [];
    const sizes = sizesOf(file, module);
    const title = titleOf(file, module, titles);
    const ident = file.whole(module, 'ModuleIdentNumber', 0xffff_ffff);
    return slotsOf(file, ref).map(([firstSlot, lastSlot]) => ({
      ...{ title, firstSlot, lastSlot, ident },
      ...sizes,
    }));
  });
}

/** Two modules of one name are told apart by their order numbers, or else by their ids. */
function titleOf(file: GsdmlFile, module: XmlElement, titles: Map<XmlElement, string>): string {
  const known = titles.get(module);
  if (known !== undefined) return known;
  const taken = new Set(titles.values());
  const name = file.nameOf(module) ?? module.attributes['ID'] ?? 'module';
  const order = below(module, 'ModuleInfo', 'OrderNumber')[0]?.attributes['Value'];
  const choices = [
    name,
    `${name} ${order ?? ''}`.trim(),
    `${name} ${module.attributes['ID'] ?? ''}`,
  ];
  const title = choices.map((one) => one.slice(0, 120)).find((one) => !taken.has(one));
  const given = title ?? `${name.slice(0, 100)} ${taken.size}`;
  titles.set(module, given);
  return given;
}

function sizesOf(file: GsdmlFile, module: XmlElement): Pick<ModuleOffer, 'inBytes' | 'outBytes'> {
  const parts = [
    ...below(module, 'VirtualSubmoduleList', 'VirtualSubmoduleItem'),
    ...below(module, 'UseableSubmodules', 'SubmoduleItemRef')
      .filter((ref) => ref.attributes['FixedInSubslots'] !== undefined)
      .flatMap((ref) => file.named('SubmoduleItem', ref, 'SubmoduleItemTarget') ?? []),
  ];
  const sum = (way: 'Input' | 'Output') => {
    const bytes = parts
      .flatMap((part) => below(part, 'IOData', way, 'DataItem'))
      .reduce((total, item) => total + bytesOf(file, item), 0);
    return Math.min(bytes, MOST_BYTES);
  };
  return { inBytes: sum('Input'), outBytes: sum('Output') };
}

function bytesOf(file: GsdmlFile, item: XmlElement): number {
  const { DataType: type = '', Length: length } = item.attributes;
  if (length !== undefined) return file.whole(item, 'Length', MOST_BYTES) ?? 0;
  const bytes = TYPE_BYTES[type.split(' ')[0] ?? ''];
  if (bytes === undefined) file.tell(item, `DataType="${type}"`, { code: 'no-size' });
  return bytes ?? 0;
}

type Slots = readonly [first: number, last: number];

/** `1..8 10 12..14`, where a module may be put or is fixed; everywhere where nothing is said. */
function slotsOf(file: GsdmlFile, ref: XmlElement): readonly Slots[] {
  const { AllowedInSlots, FixedInSlots, UsedInSlots } = ref.attributes;
  const text = AllowedInSlots ?? FixedInSlots ?? UsedInSlots;
  if (text === undefined) return [[0, MOST_SLOT]];
  return text
    .trim()
    .split(/[\s;,]+/)
    .flatMap((piece): readonly Slots[] => {
      const range = /^(\d{1,5})(?:\.\.(\d{1,5}))?$/.exec(piece);
      const first = Number(range?.[1]);
      const last = Number(range?.[2] ?? range?.[1]);
      if (range && first <= last && last <= MOST_SLOT) return [[first, last]];
      file.tell(ref, `"${piece}"`, { code: 'no-slot', most: MOST_SLOT });
      return [];
    });
}

/** What the sockets of an access point are called. */
export function portsOf(file: GsdmlFile, accessPoint: XmlElement): readonly string[] {
  const ports = below(accessPoint, 'SystemDefinedSubmoduleList', 'PortSubmoduleItem').map(
    (port, at) => file.text(port.attributes['TextId']) ?? port.attributes['ID'] ?? `${at + 1}`,
  );
  return [...new Set(ports.map((one) => one.slice(0, 40)))].slice(0, 64);
}
