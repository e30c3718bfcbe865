import { readKnown } from '@ipsonomo/core/known';
import { stationOfEntry, type HeardStation } from '@ipsonomo/core/heard';
import { ok, type Result } from '@ipsonomo/core/net';
import { KNOWN_WORDS } from '@ipsonomo/language/screens/known';
import type { HeardCapture } from '../../../data';

/** What somebody gave to be held against the plan, wherever it is from. */
export interface Read {
  /** What it was read as. */
  readonly head: string;
  /** As a mark says it of what was found in it. */
  readonly source: string;
  readonly stations: readonly HeardStation[];
  /** What is said of a station beside its addresses, by its place. */
  readonly placeWords: (place: number, said: string) => string;
  readonly isCut: boolean;
}

/** @returns refusal `known.nothing` */
export function readOfText(text: string): Result<Read> {
  const read = readKnown(text);
  if (!read.ok) return read;
  const { kind, entries } = read.value;
  return ok({
    head: KNOWN_WORDS.readAs({ kind, count: entries.length }),
    source: KNOWN_WORDS.sourceOfText({ kind }),
    stations: entries.map(stationOfEntry),
    placeWords: (place, said) => KNOWN_WORDS.lineOfIt({ line: entries[place]?.line ?? 0, said }),
    isCut: false,
  });
}

export const readOfCapture = ({ name, stations, frames, unread, isCut }: HeardCapture): Read => ({
  ...{ source: name, stations, isCut },
  head: KNOWN_WORDS.readAsCapture({ name, count: stations.length, frames, unread }),
  placeWords: (place, said) => KNOWN_WORDS.inFrames({ frames: stations[place]?.frames ?? 0, said }),
});
