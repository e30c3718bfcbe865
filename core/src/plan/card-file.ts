import {
  formatIpv4,
  formatMac,
  formatPrefix,
  maskOf,
  ok,
  refuse,
  UNSPECIFIED,
  type Result,
} from '../net';
import type { Kind } from './kind';
import {
  findSubnet,
  gatewayOf,
  maskLengthOf,
  type Device,
  type Interface,
  type Plan,
  type Subnet,
} from './model';
import { stationNameOf } from './naming';

// The file that a memory card needs, where the kind says what stands in it.

/** What a card's file can be made of: words in braces. */
export const CARD_WORDS = [
  ...(['address', 'mask', 'length', 'network', 'gateway', 'name', 'station', 'mac'] as const),
] as const;

type CardWord = (typeof CARD_WORDS)[number];
export type CardForm = NonNullable<Kind['card']>;

export interface CardFile {
  readonly name: string;
  readonly text: string;
  /** Where on the card it goes; empty where the kind does not say it. */
  readonly where: string;
}

/**
 * R-CARD: the file of a memory card for one interface, by the form that its kind gives. Without a gateway 0.0.0.0 stands
 * for none (common practice, no source).
 * @returns refusals `card.word` for a word that means nothing, `card.unknown` for a value that nobody knows yet,
 * `card.name` for a name that is no name of a file
 */
export function cardFile(
  plan: Plan,
  form: CardForm,
  device: Device,
  at: Interface,
): Result<CardFile> {
  const subnet = findSubnet(plan, at.subnetId);
  if (!subnet) return refuse('card.unknown', 'network', { device: device.title });
  const values = valuesOf(subnet, device, at);
  const name = filled(form.file, values, device);
  if (!name.ok) return name;
  if (!/^[^/\\:*?"<>|]+$/.test(name.value) || /^\.+$/.test(name.value))
    return refuse('card.name', name.value);
  const text = filled(form.content, values, device);
  if (!text.ok) return text;
  const lines = text.value.replace(/\r\n?/g, '\n');
  const end = form.lineEnd === 'crlf' ? lines.replace(/\n/g, '\r\n') : lines;
  return ok({ name: name.value, text: end, where: form.where });
}

const valuesOf = (
  subnet: Subnet,
  device: Device,
  at: Interface,
): Readonly<Record<CardWord, string>> => {
  const length = maskLengthOf(at, subnet);
  return {
    address: formatIpv4(at.address),
    mask: formatIpv4(maskOf(length)),
    length: String(length),
    network: formatPrefix(subnet.prefix),
    gateway: formatIpv4(gatewayOf(at, subnet) ?? UNSPECIFIED),
    name: device.name,
    station: stationNameOf(device),
    mac: at.mac === undefined ? '' : formatMac(at.mac),
  };
};

/** Every word in braces with its value; what is no word in braces stays as it is. */
function filled(
  form: string,
  values: Readonly<Record<CardWord, string>>,
  device: Device,
): Result<string> {
  for (const [, word = ''] of form.matchAll(WORD)) {
    const known = CARD_WORDS.find((one) => one === word);
    if (!known) return refuse('card.word', word, { words: CARD_WORDS.join(', ') });
    if (values[known] === '') return refuse('card.unknown', word, { device: device.title });
  }
  return ok(form.replace(WORD, (_, word: CardWord) => values[word]));
}

const WORD = /\{([a-z]+)\}/g;
