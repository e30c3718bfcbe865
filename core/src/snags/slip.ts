import { containsAddress, formatIpv4, parseIpv4, type Ipv4 } from '../net';
import type { Subnet } from '../plan';

/** An address that was probably meant, and the subnet it lies in. */
interface Slip {
  readonly meant: Ipv4;
  readonly subnet: Subnet;
  readonly how: 'swapped' | 'spare' | 'lost' | 'wrong';
}

/**
 * Finds what may have been meant by an address that lies in none of the subnets: neighbouring digits
 * swapped (172.61 for 172.16), a spare digit, a lost one, one wrong digit (common practice, no source).
 * The first subnet in the order given wins, so the interface's own goes first.
 */
export function findSlip(address: Ipv4, subnets: readonly Subnet[]): Slip | undefined {
  const text = formatIpv4(address);
  for (const subnet of subnets)
    for (const [how, candidates] of WAYS_TO_SLIP)
      for (const candidate of candidates(text)) {
        const read = parseIpv4(candidate);
        if (read.ok && containsAddress(subnet.prefix, read.value))
          return { meant: read.value, subnet, how };
      }
  return undefined;
}

const isDigit = (letter: string | undefined): boolean =>
  letter !== undefined && /[0-9]/.test(letter);

function* swapped(text: string): Generator<string> {
  for (let i = 0; i + 1 < text.length; i += 1)
    if (isDigit(text[i]) && isDigit(text[i + 1]))
      yield `${text.slice(0, i)}${text[i + 1]}${text[i]}${text.slice(i + 2)}`;
}

function* spare(text: string): Generator<string> {
  for (let i = 0; i < text.length; i += 1)
    if (isDigit(text[i])) yield text.slice(0, i) + text.slice(i + 1);
}

function* lost(text: string): Generator<string> {
  for (let i = 0; i <= text.length; i += 1)
    for (let digit = 0; digit <= 9; digit += 1) yield `${text.slice(0, i)}${digit}${text.slice(i)}`;
}

function* wrong(text: string): Generator<string> {
  for (let i = 0; i < text.length; i += 1)
    if (isDigit(text[i]))
      for (let digit = 0; digit <= 9; digit += 1)
        yield `${text.slice(0, i)}${digit}${text.slice(i + 1)}`;
}

const WAYS_TO_SLIP: readonly (readonly [Slip['how'], (text: string) => Iterable<string>])[] = [
  ['swapped', swapped],
  ['spare', spare],
  ['lost', lost],
  ['wrong', wrong],
];
