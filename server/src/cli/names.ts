import { sentenceOf } from '@ipsonomo/language';
import {
  parseDhcpName,
  parseHostName,
  parseStationName,
  parseVariable,
  toHostName,
  toStationName,
  toVariable,
} from '@ipsonomo/core/names';
import type { Result } from '@ipsonomo/core/net';
import type { OneCommand } from './output';

const verdict = (read: Result<string>, instead?: string) =>
  read.ok
    ? { valid: true }
    : { valid: false, why: sentenceOf(read.error), ...(instead === undefined ? {} : { instead }) };

/** A name in each of its uses: whether it may be one there, why not, and what it could be instead. */
export const names: OneCommand = (name, { print }) => {
  print({
    name,
    host: verdict(parseHostName(name), toHostName(name)),
    station: verdict(parseStationName(name), toStationName(name)),
    dhcp: verdict(parseDhcpName(name)),
    variable: verdict(parseVariable(name), toVariable(name)),
  });
  return true;
};
