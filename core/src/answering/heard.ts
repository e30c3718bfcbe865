import { UNSPECIFIED, type Ipv4, type MacAddress } from '../net';
import {
  findOption,
  messageTypeOf,
  OPTION,
  toHex,
  type DhcpMessage,
  type MessageType,
} from '../wire';
import { relayPortOf, type RelayPort } from './recognise';

/** How a client presents itself; two devices seldom agree in all of it. */
export interface ClientTraits {
  readonly protocol: 'BootP' | 'DHCP';
  readonly hostName: string | undefined;
  /** Hex, as sent. */
  readonly clientId: string | undefined;
  readonly vendorClass: string | undefined;
  /** Hex of option 55. */
  readonly parameters: string | undefined;
}

interface Voice {
  readonly traits: ClientTraits;
  /** The last transactions, newest first. */
  readonly transactions: readonly number[];
  readonly lastAt: number;
}

/** Everything heard from one MAC since listening began. Times in milliseconds. */
export interface HeardClient {
  readonly mac: MacAddress;
  readonly traits: ClientTraits;
  readonly message: MessageType | 'BootP';
  /** The switch port it last came in at, where a relay said so. */
  readonly port: RelayPort | undefined;
  /** The address the client says it has or wants. */
  readonly address: Ipv4 | undefined;
  readonly count: number;
  readonly firstAt: number;
  readonly lastAt: number;
  /** It chose an offer under another number than it had asked under (RFC 2131 §4.4.1 wants the same). */
  readonly changesNumber: boolean;
  /** Set once two devices were told apart behind this MAC: what differs between them. */
  readonly twins: readonly TwinDifference[] | undefined;
  /** The different clients behind the MAC, the last to speak first. */
  readonly voices: readonly Voice[];
}

/** Two voices count as speaking side by side within this time. */
const TWIN_WINDOW = 180_000;
const REMEMBERED = 4;

export const traitsOf = (message: DhcpMessage): ClientTraits => {
  const options = message.options ?? [];
  const clientId = findOption(options, OPTION.clientId);
  const parameters = findOption(options, OPTION.parameterList);
  return {
    protocol: messageTypeOf(message) ? 'DHCP' : 'BootP',
    hostName: findOption(options, OPTION.hostName) || undefined,
    clientId: clientId && toHex(clientId),
    vendorClass: findOption(options, OPTION.vendorClass) || undefined,
    parameters: parameters && toHex(parameters),
  };
};

const TRAIT_NAMES = ['hostName', 'clientId', 'vendorClass', 'parameters'] as const;

/** `transaction` where nothing differs but that both carry on transactions of their own. */
export type TwinDifference = (typeof TRAIT_NAMES)[number] | 'transaction';

const sameTraits = (a: ClientTraits, b: ClientTraits): boolean =>
  a.protocol === b.protocol && TRAIT_NAMES.every((name) => a[name] === b[name]);

/**
 * Adds one request to what is known of its MAC.
 *
 * R-TWINS: two devices with one MAC show themselves in that the first speaks again after the second did: in
 * the same protocol with other traits, or with a transaction it had already left behind. One device
 * whose settings were changed never goes back.
 */
export function hear(
  known: HeardClient | undefined,
  message: DhcpMessage,
  now: number,
): HeardClient {
  const traits = traitsOf(message);
  const voices = known?.voices ?? [];
  const place = voices.findIndex((voice) => sameTraits(voice.traits, traits));
  const own = voices[place];
  const between = place < 0 ? [] : voices.slice(0, place);
  const other = between.find(
    (voice) => voice.traits.protocol === traits.protocol && now - voice.lastAt < TWIN_WINDOW,
  );
  const fresh = own !== undefined && now - own.lastAt < TWIN_WINDOW;
  const back = fresh && own.transactions.indexOf(message.transaction) > 0;
  const twins =
    known?.twins ??
    (fresh && other
      ? differences(traits, other.traits)
      : back
        ? ['transaction' as const]
        : undefined);
  const requested = findOption(message.options ?? [], OPTION.requestedAddress);
  return {
    mac: message.clientMac,
    traits,
    message: messageTypeOf(message) ?? 'BootP',
    port: relayPortOf(message),
    address:
      requested ?? (message.clientAddress === UNSPECIFIED ? undefined : message.clientAddress),
    count: (known?.count ?? 0) + 1,
    firstAt: known?.firstAt ?? now,
    lastAt: now,
    changesNumber: known?.changesNumber === true || isOtherNumber(known, own, message),
    twins,
    voices: [
      { traits, transactions: remember(own?.transactions ?? [], message.transaction), lastAt: now },
      ...voices.filter((voice) => voice !== own),
    ].slice(0, REMEMBERED),
  };
}

/** It asked under one number and now chooses, naming a server, under one it never asked under. */
const isOtherNumber = (
  known: HeardClient | undefined,
  own: Voice | undefined,
  message: DhcpMessage,
): boolean =>
  known?.message === 'DISCOVER' &&
  own !== undefined &&
  findOption(message.options ?? [], OPTION.serverId) !== undefined &&
  messageTypeOf(message) === 'REQUEST' &&
  !own.transactions.includes(message.transaction);

const differences = (a: ClientTraits, b: ClientTraits): readonly TwinDifference[] =>
  TRAIT_NAMES.filter((name) => a[name] !== b[name]);

const remember = (past: readonly number[], transaction: number): readonly number[] =>
  past[0] === transaction
    ? past
    : [transaction, ...past.filter((one) => one !== transaction)].slice(0, REMEMBERED);
