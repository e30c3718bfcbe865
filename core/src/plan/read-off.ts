import {
  formatIpv4,
  formatMac,
  isDeviceMac,
  judgeLabel,
  parseIpv4,
  parseMac,
  type Ipv4,
  type LabelVerdict,
  type MacAddress,
} from '../net';

// What a person reads off a device and types, or copies from its page, held against the plan. It is
// weaker than what was seen on the wire and stronger than a tick.

/** How one address came to be another when a person typed it (common practice, no source). */
type TypingSlip = 'swapped' | 'lost' | 'spare' | 'digit';

/** @returns undefined where the two are the same, or differ by more than one slip of the hand */
export function typingSlip(typed: string, meant: string): TypingSlip | undefined {
  const last = Math.min(typed.length, meant.length);
  let at = 0;
  while (at < last && typed[at] === meant[at]) at += 1;
  if (at === last && typed.length === meant.length) return undefined;
  const rest = (text: string, skip: number) => text.slice(at + skip);
  if (rest(typed, 0) === rest(meant, 1)) return 'lost';
  if (rest(typed, 1) === rest(meant, 0)) return 'spare';
  if (rest(typed, 1) === rest(meant, 1)) return 'digit';
  const areSwapped = typed[at] === meant[at + 1] && typed[at + 1] === meant[at];
  return areSwapped && rest(typed, 2) === rest(meant, 2) ? 'swapped' : undefined;
}

/** How a name in a device differs from the planned one, where it is so little that it was meant. */
export const nameSlip = (name: string, planned: string): TypingSlip | 'capitals' | undefined =>
  name !== planned && name.toLowerCase() === planned.toLowerCase()
    ? 'capitals'
    : typingSlip(name, planned);

/** Values found in a text copied from a device's page or display. */
interface ReadValues {
  readonly macs: readonly MacAddress[];
  readonly addresses: readonly Ipv4[];
  readonly serial: string | undefined;
  readonly firmware: string | undefined;
}

const MAC_TEXT =
  /\b(?:[0-9a-f]{2}(?:[:-][0-9a-f]{2}){5}|[0-9a-f]{4}(?:\.[0-9a-f]{4}){2}|[0-9a-f]{12})\b/gi;
const IPV4_TEXT = /(?<![\d.])\d{1,3}(?:\.\d{1,3}){3}(?![\d.])/g;
const SERIAL_TEXT = /\bserial(?:[ -]?(?:number|no\.?|nr\.?))?[\s:=#]*([A-Z0-9][\w./-]{2,40})/i;
const FIRMWARE_TEXT =
  /\b(?:firmware|fw|software)(?:[ -]?(?:version|revision|rev\.?))?[\s:=]*(v?\d[\w.-]{0,20})/i;

/** Every MAC in some texts, in their order and each once: what barcodes of a label say. */
export const labelsIn = (texts: readonly string[]): readonly MacAddress[] => [
  ...new Set(texts.flatMap((text) => readValues(text).macs)),
];

/** Picks out what can be held against the plan; what is no such value is left alone. */
export function readValues(text: string): ReadValues {
  const macs = [...text.matchAll(MAC_TEXT)]
    .map(([found]) => parseMac(found))
    .flatMap((one) => (one.ok && isDeviceMac(one.value) ? [one.value] : []));
  const addresses = [...text.matchAll(IPV4_TEXT)]
    .map(([found]) => parseIpv4(found))
    .flatMap((one) => (one.ok ? [one.value] : []));
  return {
    macs: [...new Set(macs)],
    addresses: [...new Set(addresses)],
    serial: SERIAL_TEXT.exec(text)?.[1],
    firmware: FIRMWARE_TEXT.exec(text)?.[1],
  };
}

/** What was read, held against the plan. */
interface ReadVerdict extends ReadValues {
  /** The MAC read against the one that is bound; undefined where one of the two is missing. */
  readonly mac: LabelVerdict | undefined;
  /** The planned address is among those read. */
  readonly hasPlanned: boolean;
  /** How the nearest address that was read differs from the planned one, where it is one slip. */
  readonly slip: TypingSlip | undefined;
}

/** R-READ-OFF: the MAC nearest to the bound one counts, and any address that is the planned one. */
export function judgeRead(
  text: string,
  planned: { readonly address: Ipv4; readonly mac: MacAddress | undefined },
): ReadVerdict {
  const values = readValues(text);
  const { mac: bound, address } = planned;
  const verdicts = bound === undefined ? [] : values.macs.map((mac) => judgeLabel(mac, bound));
  const RANK = { same: 0, alike: 1, near: 2, other: 3 } as const;
  const [mac] = verdicts.sort((a, b) => RANK[a.kind] - RANK[b.kind]);
  const hasPlanned = values.addresses.includes(address);
  const meant = formatIpv4(address);
  const slip = hasPlanned
    ? undefined
    : values.addresses.map((one) => typingSlip(formatIpv4(one), meant)).find(Boolean);
  return { ...values, mac, hasPlanned, slip };
}

/** The values as facts of evidence. */
export const factsOfRead = (read: ReadVerdict): Readonly<Record<string, string>> => ({
  ...(read.macs.length > 0 ? { mac: read.macs.map(formatMac).join(', ') } : {}),
  ...(read.addresses.length > 0 ? { address: read.addresses.map(formatIpv4).join(', ') } : {}),
  ...(read.serial === undefined ? {} : { serial: read.serial }),
  ...(read.firmware === undefined ? {} : { firmware: read.firmware }),
  ...(read.mac === undefined ? {} : { macIs: read.mac.kind }),
  ...(read.slip === undefined ? {} : { slip: read.slip }),
});
