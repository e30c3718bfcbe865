import type { Misfit } from '../net';

/** What neither JSON in a database nor a person's eye can take: controls, and halves of a character. */
const UNSEEN =
  /[\u0000-\u001f\u007f-\u009f]|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g;
/** What already looks like one of our own escapes; its backslash is escaped, so that nothing is lost. */
const LOOKS_ESCAPED = /\\(?=x[0-9A-F]{2}|u[0-9A-F]{4})/g;
const ESCAPED = /\\x([0-9A-F]{2})|\\u([0-9A-F]{4})/g;

function escaped(character: string): string {
  const code = character.charCodeAt(0).toString(16).toUpperCase();
  return code.length <= 2 ? `\\x${code.padStart(2, '0')}` : `\\u${code}`;
}

/**
 * Text from outside as it can be written, stored and seen: what cannot be is spelled as `\x00` or `\uD800`. Nothing is
 * lost, and what has nothing of the kind stays as it is.
 * @example visibleText('drive\0one') // 'drive\x00one', with a backslash
 */
export const visibleText = (text: string): string =>
  text.replace(LOOKS_ESCAPED, '\\x5C').replace(UNSEEN, escaped);

/** The text that `visibleText` made visible. */
export const rawText = (visible: string): string =>
  visible.replace(ESCAPED, (_all, byte: string | undefined, unit: string | undefined) =>
    String.fromCharCode(parseInt(byte ?? unit ?? '', 16)),
  );

/** Why a text cannot be kept as it is; undefined where it can. Line ends and tabs can. */
export function unwritable(text: string): Misfit | undefined {
  const found = /[\u0000-\u0008\u000b\u000c\u000e-\u001f]/.exec(text);
  if (found) return { misfit: 'control', sign: escaped(found[0]), place: found.index + 1 };
  const half = /[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/.exec(text);
  return half
    ? { misfit: 'half-character', sign: escaped(half[0]), place: half.index + 1 }
    : undefined;
}

/** A text somewhere in a value that cannot be kept, and where: `edits.0.to`. */
interface Unwritable {
  readonly where: string;
  readonly why: Misfit;
}

/** The first text in a JSON value, keys included, that cannot be kept as it is. */
export function unwritableIn(value: unknown, where = ''): Unwritable | undefined {
  if (typeof value === 'string') {
    const why = unwritable(value);
    return why === undefined ? undefined : { where, why };
  }
  if (typeof value !== 'object' || value === null) return undefined;
  for (const [key, part] of Object.entries(value)) {
    const inner = where === '' ? visibleText(key) : `${where}.${visibleText(key)}`;
    const keyWhy = unwritable(key);
    const found = keyWhy === undefined ? unwritableIn(part, inner) : { where: inner, why: keyWhy };
    if (found) return found;
  }
  return undefined;
}
