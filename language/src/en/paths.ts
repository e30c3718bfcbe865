import { formatCode } from '@ipsonomo/core/codes';
import type { FactsOf } from '@ipsonomo/core/plan';
import { codeWords } from './codes';

/** What came back along a route path, as a clause. */
export function pathWords(facts: FactsOf<'path-asked'>): string {
  const { how, via, from, product, serial, what, expected, found, why } = facts;
  const path = `asked along ${via} from ${from}`;
  switch (how) {
    case 'reached':
      return `${path}: it is there, ${product}, serial number ${serial}`;
    case 'other':
      return `${path}: the path leads somewhere, but to another device: ${
        what === 'serial' ? 'serial number' : 'maker / type / product'
      } ${found} instead of ${expected} (${product})`;
    case 'refused':
      return `${path}: refused. ${refusalOf(facts)}`;
    default:
      return `${path}: no answer${why === undefined ? '' : ` (${why})`}`;
  }
}

/** The code in plain words: what it means on a route path, and what to look at. */
function refusalOf({ status, extended }: FactsOf<'path-asked'>): string {
  const reading =
    extended === undefined
      ? ({ system: 'cip', value: Number(status) } as const)
      : ({ system: 'cip-connection', value: extended } as const);
  const words = codeWords(reading.system, reading.value);
  const code = formatCode(reading);
  return words ? `${code}: ${words.means} ${words.look}` : `Its code is ${code}`;
}
