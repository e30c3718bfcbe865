import { formatIpv4, formatMac, formatPrefix } from '../net';
import { stationNameOf, type Plan } from '../plan';
import { macDigitsOf, wordsOf } from './words';

// R-FIND: one field for everything of a job: a part of any name, of an address, of a MAC in any notation, of a place.

export type FoundKind = 'device' | 'subnet' | 'cabinet' | 'page' | 'snag';

/** One thing that can be found. */
export interface Findable {
  readonly kind: FoundKind;
  readonly id: string;
  readonly title: string;
  /** What stands beside its title. */
  readonly detail: string;
  /** All that it goes by, in small letters; a space between two. */
  readonly text: string;
  /** Digits of its MACs without separators; empty where it has none. */
  readonly macs: string;
}

export type Found = Omit<Findable, 'text' | 'macs'>;

/** What of a job can be found, made once for each state of its plan. */
export class FindBook {
  readonly all: readonly Findable[];

  /** @param others what is no thing of the plan: pages, acts */
  constructor(plan: Plan, others: readonly Findable[] = []) {
    this.all = [...others, ...subnetsOf(plan), ...cabinetsOf(plan), ...devicesOf(plan)];
  }

  /** @param most as many as are shown */
  find(wanted: string, most: number): { readonly found: readonly Found[]; readonly count: number } {
    return findIn(this.all, wanted, most);
  }
}

/**
 * All words have to be in what a thing goes by. What begins with the words stands before what only has them in it.
 * @returns as many as are wanted, and how many there are
 */
export function findIn(
  all: readonly Findable[],
  wanted: string,
  most: number,
): { readonly found: readonly Found[]; readonly count: number } {
  const words = wordsOf(wanted);
  if (words.length === 0) return { found: [], count: 0 };
  const mac = macDigitsOf(wanted);
  const ranks: Found[][] = [[], [], []];
  let count = 0;
  for (const one of all) {
    const rank = rankOf(one, words, mac);
    if (rank === undefined) continue;
    count += 1;
    const { kind, id, title, detail } = one;
    if ((ranks[rank]?.length ?? most) < most) ranks[rank]?.push({ kind, id, title, detail });
  }
  return { found: ranks.flat().slice(0, most), count };
}

/** 0: its title begins so; 1: something that it goes by does; 2: it is somewhere in it. */
function rankOf(
  { title, text, macs }: Findable,
  words: readonly string[],
  mac: string | undefined,
): 0 | 1 | 2 | undefined {
  if (mac !== undefined && macs.includes(mac)) return 1;
  if (!words.every((word) => text.includes(word))) return undefined;
  // Side by side they are more likely meant than each by itself.
  const phrase = words.join(' ');
  if (title.toLowerCase().startsWith(phrase)) return 0;
  return text.includes(phrase) && ` ${text}`.includes(` ${phrase}`) ? 1 : 2;
}

const textOf = (...parts: readonly (string | undefined)[]): string =>
  parts
    .filter((part) => part !== undefined && part !== '')
    .join(' ')
    .toLowerCase();

const subnetsOf = ({ subnets }: Plan): readonly Findable[] =>
  subnets.map(({ id, name, prefix, vlan, purpose }) => {
    const network = formatPrefix(prefix);
    const text = textOf(name, network, vlan === undefined ? '' : `vlan ${vlan}`, purpose);
    return { kind: 'subnet', id, title: name, detail: network, text, macs: '' };
  });

const cabinetsOf = ({ devices }: Plan): readonly Findable[] =>
  [...new Set(devices.map(({ cabinet }) => cabinet))]
    .filter((cabinet) => cabinet !== '')
    .map((cabinet) => ({
      ...({ kind: 'cabinet', id: cabinet, title: cabinet, detail: '' } as const),
      ...{ text: textOf(cabinet), macs: '' },
    }));

const devicesOf = ({ devices }: Plan): readonly Findable[] =>
  devices.map((device) => {
    const addresses = device.interfaces.map(({ address }) => formatIpv4(address));
    const { id, title, name, cabinet, position, area, serial, note, dhcpName } = device;
    const names = textOf(title, name, stationNameOf(device), dhcpName, ...addresses);
    return {
      ...({ kind: 'device', id, title, detail: addresses.join(', ') } as const),
      text: textOf(names, cabinet, position, area, serial, note),
      macs: device.interfaces
        .flatMap(({ mac }) => (mac === undefined ? [] : formatMac(mac).replaceAll(':', '')))
        .join(' '),
    };
  });
