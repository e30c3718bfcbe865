import type { Unread } from './description';
import type { EdsEntry, EdsSections } from './eds-text';

// What a value of an electronic data sheet comes to: a number, or what another entry says that it names.

/** A number of a data sheet has 16 bits. */
const MOST = 65_535;

/** The number of an entry, 0 to 65535; one that is none is told by its line. */
export function numberOf(entry: EdsEntry | undefined, unread: Unread[]): number | undefined {
  const text = entry?.values[0]?.trim() ?? '';
  if (!entry || text === '') return undefined;
  const value = /^(0x[0-9a-f]+|\d+)$/i.test(text) ? Number(text) : NaN;
  if (Number.isInteger(value) && value >= 0 && value <= MOST) return value;
  unread.push({
    line: entry.line,
    text: `${entry.key} = ${text}`,
    why: { code: 'no-number', most: MOST },
  });
  return undefined;
}

/** So often a value may name another. */
const DEEPEST = 8;

/** Fields of an assembly: its size in bytes, then from the sixth on pairs of a member's bits and what it is. */
const ASSEMBLY_SIZE = 2;
const FIRST_MEMBER = 6;
/** Fields of a parameter: how many bytes its type has, its minimum and its default. */
const PARAMETER_BYTES = 5;
export const PARAMETER_LEAST = 9;
export const PARAMETER_DEFAULT = 11;

/** Where a value stands, and where what cannot be read of it is told. */
export interface From {
  readonly sections: EdsSections;
  readonly entry: EdsEntry;
  readonly unread: Unread[];
}

/** The size of a connection; where it is left out, that of the assembly its format names, the field after it. */
export function sizeOf(at: number, from: From): number | undefined {
  const { entry, sections } = from;
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
export function resolve(
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
      unread.push({ line: from.line, text: value, why: { code: 'names-nothing' } });
      return undefined;
    }
  }
  unread.push({
    line: from.line,
    text,
    why: { code: 'too-far', most: DEEPEST },
  });
  return undefined;
}
