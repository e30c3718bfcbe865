import type { ConnectionOffer } from '../plan';
import type { Unread } from './description';
import type { EdsEntry, EdsSections } from './eds-text';
import { PARAMETER_LEAST, resolve, sizeOf, type From } from './eds-values';

// The connections of an electronic data sheet (CIP volume 1, chapter 7; from memory): two intervals, two sizes with
// their formats, two parts of configuration, a name, a help text, a path.

/** Fields of a connection entry, counted from 0: the controller's side first (O→T), then the device's (T→O). */
const FIELD = {
  ...{ outInterval: 2, outSize: 3, inInterval: 5, inSize: 6 },
  ...{ configSize: 8, moreConfigSize: 10, title: 12, path: 14 },
} as const;

const MILLI = 1000;
const LONGEST_INTERVAL = 60_000;
const MOST_SIZE = 65_535;
const MOST_OFFERS = 200;

/** What the connections of a sheet come to: each of them, the sizes of all, and the least interval. */
export interface EdsConnections {
  readonly offers: readonly ConnectionOffer[];
  readonly sizes: readonly number[];
  readonly leastInterval: number | undefined;
}

export function connectionsOf(sections: EdsSections, unread: Unread[]): EdsConnections {
  const offers = [...(sections.get('connection manager') ?? [])].flatMap(([key, entry]) =>
    /^connection\d+$/.test(key) ? [offerOf({ sections, entry, unread })] : [],
  );
  const sizes = offers.flatMap(({ inBytes, outBytes }) => [outBytes, inBytes]);
  const whole = sizes.filter((size) => size !== undefined && size > 0) as readonly number[];
  const intervals = offers.flatMap(({ intervalMillis }) => intervalMillis ?? []);
  return {
    offers: offers.slice(0, MOST_OFFERS),
    sizes: [...new Set(whole)].sort((a, b) => a - b).slice(0, 200),
    leastInterval: intervals.length > 0 ? Math.min(...intervals) : undefined,
  };
}

function offerOf(from: From): ConnectionOffer {
  const { entry } = from;
  const size = (at: number): number | undefined => inRange(sizeOf(at, from));
  const path = pathOf(entry);
  return {
    title: (entry.values[FIELD.title]?.trim() || entry.key).slice(0, 120),
    protocol: 'EtherNet/IP',
    ...{ inInstance: path.points[1], outInstance: path.points[0], configInstance: path.config },
    ...{ inBytes: size(FIELD.inSize), outBytes: size(FIELD.outSize), configBytes: configOf(from) },
    intervalMillis: intervalOf(from),
  };
}

const inRange = (size: number | undefined): number | undefined =>
  size !== undefined && size >= 0 && size <= MOST_SIZE ? size : undefined;

/** Both parts of the configuration together; undefined where neither says its size. */
function configOf(from: From): number | undefined {
  const parts = [FIELD.configSize, FIELD.moreConfigSize].flatMap((at) => sizeOf(at, from) ?? []);
  return parts.length === 0 ? undefined : inRange(parts.reduce((sum, one) => sum + one, 0));
}

/** The shorter of the two, in whole milliseconds; what is shorter than one is none that anybody plans. */
function intervalOf(from: From): number | undefined {
  const all = [FIELD.outInterval, FIELD.inInterval].flatMap((at) => {
    const micros = resolve(from.entry.values[at] ?? '', from, PARAMETER_LEAST);
    return micros !== undefined && micros >= MILLI ? [micros / MILLI] : [];
  });
  const least = Math.ceil(Math.min(...all));
  return least <= LONGEST_INTERVAL ? least : undefined;
}

/** Segments of a path: an instance, and a connection point, of eight bits or of sixteen (CIP volume 1, appendix C). */
const INSTANCE = 0x24;
const POINT = 0x2c;
const WIDE = 0x01;

interface ConnectionPath {
  /** Of the configuration: the instance that the path begins with. */
  readonly config: number | undefined;
  /** What the controller sends, then what the device sends. */
  readonly points: readonly number[];
}

/** The instances that a path names; a path with a parameter in it names none that could be told here. */
function pathOf(entry: EdsEntry): ConnectionPath {
  const words = (entry.values[FIELD.path] ?? '').trim().split(/\s+/);
  const bytes = words.map((word) => (/^[0-9a-f]{2}$/i.test(word) ? parseInt(word, 16) : NaN));
  let config: number | undefined;
  const points: number[] = [];
  for (let at = 0; at + 1 < bytes.length;) {
    const segment = bytes[at] ?? NaN;
    const isWide = (segment & WIDE) === 1;
    const value = isWide
      ? (bytes[at + 2] ?? NaN) + 256 * (bytes[at + 3] ?? NaN)
      : (bytes[at + 1] ?? NaN);
    if (Number.isNaN(segment) || Number.isNaN(value)) break;
    const type = segment & ~WIDE;
    if (type === INSTANCE) config ??= value;
    if (type === POINT) points.push(value);
    at += isWide ? 4 : 2;
  }
  return { config, points };
}
