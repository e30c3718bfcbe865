import type { LeftOut } from '@ipsonomo/core/api';
import { FILE_WORDS, leftOutWords, stateLines } from '@ipsonomo/language/hand-over-files';
import type { Material } from '../format';
import { oneLine } from './text';

/** As people here write it, and spreadsheets read it; the time of the place where the server stands. */
export const localTime = (at: number): string =>
  new Date(at).toLocaleString('sv-SE', { dateStyle: 'short', timeStyle: 'short' });

/** Which job and which state of it a file is of, and what is wrong in that. */
export const stateOf = ({ job, revision, at, snags, person }: Material): readonly string[] => {
  const wrong = snags.filter(({ severity }) => severity === 'wrong').length;
  return stateLines({ job, revision, at: localTime(at), wrong, people: person }).map(oneLine);
};

/** The first lines of a text file, to be made comments of. */
export const headOf = (material: Material, ...words: readonly string[]): readonly string[] => [
  ...words,
  ...stateOf(material),
];

/** What is not in it, a line each; none where all of it is. */
export const listLeft = (left: readonly LeftOut[]): readonly string[] =>
  left.length === 0
    ? []
    : [`${FILE_WORDS.notHere}:`, ...left.map((one) => `  ${oneLine(leftOutWords(one))}`)];

/** The lines as comments. @param mark what a comment begins with */
export const comments = (lines: readonly string[], mark: string): readonly string[] =>
  lines.map((line) => `${mark} ${line}`);
