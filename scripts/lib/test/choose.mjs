// What the words after `npm test --` mean: a step by a part of its name, a test file by a part of its path, or a
// test by a part of its title.
import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { ROOMS } from '../rooms.mjs';
import { ROOT } from '../steps.mjs';

/** Which runner has which files. */
const RUNNERS = [
  { step: 'unit tests', folders: ROOMS.map((room) => `${room}/test`) },
  { step: 'browser tests', folders: ['e2e'] },
  { step: 'wire tests', folders: ['e2e/wire'] },
];
const IS_TEST = {
  'unit tests': /\.test\.tsx?$/,
  'browser tests': /\.spec\.ts$/,
  'wire tests': /\.wire\.ts$/,
};

function* filesUnder(path) {
  for (const entry of readdirSync(path, { withFileTypes: true }))
    if (entry.isDirectory()) yield* filesUnder(join(path, entry.name));
    else yield join(path, entry.name);
}

const testFiles = () =>
  RUNNERS.flatMap(({ step, folders }) =>
    folders
      .flatMap((folder) => [...filesUnder(join(ROOT, folder))])
      .filter((file) => IS_TEST[step].test(file))
      .map((file) => ({ step, file: relative(ROOT, file) })),
  );

/**
 * @param words none: everything
 * @param names of all steps
 * @returns {{ steps: Set<string>, only: Map<string, { files: string[], title?: string }> } | { unknown: string }}
 */
export function choose(words, names) {
  const steps = new Set(words.length === 0 ? names : []);
  const only = new Map();
  for (const word of words) {
    const named = names.filter((name) => name.includes(word));
    if (named.length > 0) {
      for (const name of named) steps.add(name);
      continue;
    }
    const all = testFiles();
    const byPath = all.filter(({ file }) => file.includes(word));
    const found = byPath.length > 0 ? byPath : all.filter((one) => hasTitle(one, word));
    if (found.length === 0) return { unknown: word };
    for (const { step, file } of found) {
      steps.add(step);
      const { files = [] } = only.get(step) ?? {};
      only.set(step, { files: [...files, file], ...(byPath.length > 0 ? {} : { title: word }) });
    }
  }
  return { steps, only };
}

/** Titles are found where they are written, or in a table where only their beginning is. */
function hasTitle({ file }, title) {
  const text = readFileSync(join(ROOT, file), 'utf8').replace(/\\'/g, "'");
  return text.includes(title);
}
