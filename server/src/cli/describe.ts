import { readFileSync } from 'node:fs';
import { basename } from 'node:path';
import { docOf } from '@ipsonomo/core/plan';
import { readDescription } from '../descriptions/read-description';
import { unreadWords } from '@ipsonomo/language';
import { refuseInput, type OneCommand } from './output';

/** The kinds that a description file describes, one a line, then what of it could not be read. */
export const describeFile: OneCommand = (path, output) => {
  let bytes: Buffer;
  try {
    bytes = readFileSync(path);
  } catch {
    return refuseInput(output, { code: 'file.missing', where: path });
  }
  const read = readDescription(basename(path), bytes);
  if (!read.ok) return refuseInput(output, read.error);
  for (const kind of read.value.kinds) output.print(docOf('kind', kind));
  for (const { line, text, why } of read.value.unread)
    output.print({ unread: text, line, why: unreadWords(why) });
  return true;
};
