import { CODES, type CodeMeaning, type CodeSystem } from './table';

/** One way to read what was typed. */
export interface CodeReading {
  readonly system: CodeSystem;
  readonly value: number;
  /** Undefined where the table does not have it. */
  readonly meaning: CodeMeaning | undefined;
}

const HEX = /^(?:0x|16#)([0-9a-f_]{1,8})$|^([0-9a-f]{1,8})h$/i;

/** What a number may be: what is not marked as hex can be either. */
function valuesOf(text: string): readonly number[] {
  const marked = HEX.exec(text);
  const digits = (marked?.[1] ?? marked?.[2])?.replaceAll('_', '');
  if (digits !== undefined) return digits === '' ? [] : [Number.parseInt(digits, 16)];
  const hex = /^[0-9a-f]{1,8}$/i.test(text) ? [Number.parseInt(text, 16)] : [];
  const decimal = /^\d{1,9}$/.test(text) ? [Number.parseInt(text, 10)] : [];
  return [...new Set([...hex, ...decimal])];
}

/**
 * R-CODE: reads a code as it is displayed: "16#0127", "0x01/0x0315", "1:0127h", "2". Two numbers after status 1 are a general
 * and a connection code.
 * @returns every reading the table knows, or the one it does not; none where there is no number in it
 */
export function readCode(text: string, system: CodeSystem): readonly CodeReading[] {
  const parts = text
    .trim()
    .split(/[\s/:,;]+/)
    .filter((part) => part !== '');
  const last = parts.at(-1);
  if (last === undefined) return [];
  const isPair = parts.length === 2 && system === 'cip';
  const read = isPair ? 'cip-connection' : system;
  const values = valuesOf(last);
  const all = values.map((value): CodeReading => ({
    ...{ system: read, value, meaning: CODES[read][value] },
  }));
  const known = all.filter(({ meaning }) => meaning !== undefined);
  return known.length > 0 ? known : all.slice(0, 1);
}

/** As it is usually displayed. */
export const formatCode = ({ system, value }: Omit<CodeReading, 'meaning'>): string =>
  system === 'cip-connection'
    ? `0x${value.toString(16).padStart(4, '0').toUpperCase()}`
    : system === 'cip'
      ? `0x${value.toString(16).padStart(2, '0').toUpperCase()}`
      : String(value);
