import { parseHostName } from './host-name';
import { parseStationName } from './station-name';
import { parseVariable } from './other-names';

// One name made from another, visibly. A conversion gives a legal name or undefined; two names that
// become one are found by whoever has all of them (`collisionsOf`).

/** Letters with marks as plain ones, the way people write them without (common practice, no source). */
const PLAIN: Readonly<Record<string, string>> = {
  ...{ ä: 'ae', ö: 'oe', ü: 'ue', ß: 'ss', æ: 'ae', ø: 'oe', å: 'aa', œ: 'oe', ð: 'd', þ: 'th' },
  ł: 'l',
};

// Nearly every name is plain already, and there are thousands of them.
const ASCII = /^[ -~]*$/;

const plain = (text: string): string =>
  ASCII.test(text) ? text.toLowerCase() : withoutMarks(text);

const withoutMarks = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[äöüßæøåœðþł]/g, (letter) => PLAIN[letter] ?? letter)
    .normalize('NFD')
    .replace(/\p{M}/gu, '');

/** @example toHostLabel('Rührwerk 2, links') // 'ruehrwerk-2-links' */
export const toHostLabel = (text: string): string =>
  plain(text)
    .replace(/[^a-z0-9]+/g, '-')
    .slice(0, 63)
    .replace(/^-+|-+$/g, '');

/** A text as host name, dots kept between labels. */
export function toHostName(text: string): string | undefined {
  const name = text.split('.').map(toHostLabel).filter(Boolean).join('.');
  return parseHostName(name).ok ? name : undefined;
}

/**
 * A host name as station name: nearly all are one already.
 * @example toStationName('FH2-Drive--1') // 'fh2-drive-1'
 */
export function toStationName(host: string): string | undefined {
  const name = host
    .split('.')
    .map((label) => {
      const small = toHostLabel(label);
      return small.startsWith('xn--') ? small : small.replace(/-{2,}/g, '-');
    })
    .filter(Boolean)
    .join('.');
  return parseStationName(name).ok ? name : undefined;
}

/** @example toVariable('fh2-drive-1') // 'fh2_drive_1' */
export function toVariable(host: string, most = 128): string | undefined {
  const words = plain(host)
    .replace(/[^a-z0-9]+/g, '_')
    .replace(/^_+|_+$/g, '');
  const name = /^[0-9]/.test(words) ? `_${words}` : words;
  return parseVariable(name, most).ok ? name : undefined;
}

/** Names that more than one origin became, with their origins. */
export function collisionsOf(
  origins: readonly string[],
  convert: (origin: string) => string | undefined,
): ReadonlyMap<string, readonly string[]> {
  const made = new Map<string, string[]>();
  for (const origin of new Set(origins)) {
    const name = convert(origin);
    if (name === undefined) continue;
    const list = made.get(name);
    if (list) list.push(origin);
    else made.set(name, [origin]);
  }
  return new Map([...made].filter(([, list]) => list.length > 1));
}
