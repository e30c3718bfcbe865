import { UNSPECIFIED, type Ipv4, type MacAddress } from '../net';
import {
  findOption,
  messageTypeOf,
  OPTION,
  toHex,
  type DhcpMessage,
  type MessageType,
  type UnknownType,
} from '../wire';
import { isPort, relayPortOf, type RelayPort } from './recognise';

/** How a client presents itself; two devices seldom agree in all of it. */
interface ClientTraits {
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
  /** What it says: a client may present itself otherwise when it chooses than when it asks. */
  readonly message: MessageType | UnknownType | 'BootP';
  readonly port: RelayPort | undefined;
  /** The last transactions, newest first. */
  readonly transactions: readonly number[];
  readonly lastAt: number;
}

/** Everything heard from one MAC since listening began. Times in milliseconds. */
export interface HeardClient {
  readonly mac: MacAddress;
  readonly traits: ClientTraits;
  readonly message: MessageType | UnknownType | 'BootP';
  /** The switch port it last came in at, where a relay said so. */
  readonly port: RelayPort | undefined;
  /** The address the client says it has or wants. */
  readonly address: Ipv4 | undefined;
  readonly count: number;
  readonly firstAt: number;
  readonly lastAt: number;
  /** It chose an offer under another number than it had asked under (RFC 2131 §4.4.1 wants the same). */
  readonly changesNumber: boolean;
  /** Set while two devices are told apart behind this MAC: what differs between them. */
  readonly twins: readonly TwinDifference[] | undefined;
  /** When it went back to how it had been before, the last ones: one device does so when it restarts, two all the time. */
  readonly returns: readonly Return[];
  /** The different clients behind the MAC, the last to speak first. */
  readonly voices: readonly Voice[];
}

/** A voice that was silent this long is another story; so is a verdict that nothing has borne out since. */
const TWIN_WINDOW = 180_000;
const REMEMBERED = 4;
/** No device restarts in less: from the firmware's last word to the loader's first. Common practice, no source. */
const LEAST_START = 1000;
/** Nobody restarts a device three times in ten minutes without a word; each restart is two returns. */
const MOST_RETURNS = 5;
const RETURN_WINDOW = 600_000;
/** So long after a return it is not answered: if they are two, the other one speaks. */
const SETTLING = 10_000;

/** It spoke as it had spoken before, after it had spoken otherwise. */
interface Return {
  readonly at: number;
  readonly differs: readonly TwinDifference[];
  /** The voice it went back to, as the one of them that it is told by. */
  readonly to: string;
  /** Sooner than any device could have restarted. */
  readonly isQuick: boolean;
}

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
export type TwinDifference = (typeof TRAIT_NAMES)[number] | 'port' | 'transaction';

type Spoken = Pick<Voice, 'traits' | 'message' | 'port'>;

/** What differs between two that say the same; a client that boots by BootP and then by DHCP is one. */
const differences = (a: Spoken, b: Spoken): readonly TwinDifference[] => [
  ...TRAIT_NAMES.filter((name) => a.traits[name] !== b.traits[name]),
  ...(a.port && b.port && !isPort(a.port, b.port) ? (['port'] as const) : []),
];

const isSame = (a: Spoken, b: Spoken): boolean =>
  a.message === b.message &&
  a.traits.protocol === b.traits.protocol &&
  differences(a, b).length === 0;

/**
 * Adds one request to what is known of its MAC.
 *
 * R-TWINS: two devices with one MAC are told only by what one device cannot do. One whose settings were changed never
 * goes back. One that restarts does: its loader and its firmware may ask in turn, each in its own way, and its numbers
 * may begin anew (RFC 2131 §4.4.1 forbids neither); but it needs the time of a start for it. Two go back and forth at
 * once, both ways sooner than a device can start, or more often than anybody restarts one. The verdict ages, and is
 * lifted by `forgetTwins` where a power cut explains what was heard.
 */
export function hear(
  known: HeardClient | undefined,
  message: DhcpMessage,
  now: number,
): HeardClient {
  const spoken: Spoken = {
    traits: traitsOf(message),
    message: messageTypeOf(message) ?? 'BootP',
    port: relayPortOf(message),
  };
  const voices = known?.voices ?? [];
  const own = voices.find((voice) => isSame(voice, spoken));
  const returned = own && returnOf(voices, own, message, now);
  const returns = recentReturns(known?.returns ?? [], returned, now);
  const requested = findOption(message.options ?? [], OPTION.requestedAddress);
  const transactions = remember(own?.transactions ?? [], message.transaction);
  return {
    mac: message.clientMac,
    ...spoken,
    address:
      requested ?? (message.clientAddress === UNSPECIFIED ? undefined : message.clientAddress),
    count: (known?.count ?? 0) + 1,
    firstAt: known?.firstAt ?? now,
    lastAt: now,
    changesNumber: known?.changesNumber === true || isOtherNumber(voices, message),
    twins: verdictOf(known, returns, now),
    returns,
    voices: [
      { ...spoken, transactions, lastAt: now },
      ...voices.filter((voice) => voice !== own),
    ].slice(0, REMEMBERED),
  };
}

const MOST_KEPT = 16;

function recentReturns(
  before: readonly Return[],
  returned: Return | undefined,
  now: number,
): readonly Return[] {
  if (before.length === 0 && !returned) return before;
  return [...before, ...(returned ? [returned] : [])]
    .filter(({ at }) => now - at < RETURN_WINDOW)
    .slice(-MOST_KEPT);
}

/** Whether this request goes back behind another one. */
function returnOf(
  voices: readonly Voice[],
  own: Voice,
  message: DhcpMessage,
  now: number,
): Return | undefined {
  if (now - own.lastAt >= TWIN_WINDOW) return undefined;
  const other = voices
    .slice(0, voices.indexOf(own))
    .find(
      (voice) =>
        voice.message === own.message &&
        voice.traits.protocol === own.traits.protocol &&
        now - voice.lastAt < TWIN_WINDOW,
    );
  const at = now;
  if (other) {
    const isQuick = now - other.lastAt < LEAST_START;
    return { at, differs: differences(own, other), to: JSON.stringify(own.traits), isQuick };
  }
  if (own.transactions.indexOf(message.transaction) <= 0) return undefined;
  const isQuick = now - own.lastAt < LEAST_START;
  return { at, differs: ['transaction'], to: String(message.transaction), isQuick };
}

/** Kept while it is borne out: while the last return is no older than the window. */
function verdictOf(
  known: HeardClient | undefined,
  returns: readonly Return[],
  now: number,
): HeardClient['twins'] {
  const last = returns.at(-1);
  if (!last || now - last.at >= TWIN_WINDOW) return undefined;
  if (known?.twins) return known.twins;
  const quick = new Set(returns.filter(({ isQuick }) => isQuick).map(({ to }) => to));
  return quick.size > 1 || returns.length > MOST_RETURNS ? last.differs : undefined;
}

/** Whether it has gone back so lately that it may be two: who it is shows before it is answered. */
export const mayBeTwins = ({ returns }: HeardClient, now: number): boolean =>
  now - (returns.at(-1)?.at ?? -Infinity) < SETTLING;

/** What was heard is explained by a power cut that was seen or ordered, or by a person: it begins anew. */
export const forgetTwins = (client: HeardClient): HeardClient => ({
  ...client,
  twins: undefined,
  returns: [],
  voices: client.voices.slice(0, 1),
});

/** It asked under one number and now chooses, naming a server, under one it never asked under. */
const isOtherNumber = (voices: readonly Voice[], message: DhcpMessage): boolean => {
  const [last] = voices;
  return (
    last?.message === 'DISCOVER' &&
    findOption(message.options ?? [], OPTION.serverId) !== undefined &&
    messageTypeOf(message) === 'REQUEST' &&
    !last.transactions.includes(message.transaction)
  );
};

const remember = (past: readonly number[], transaction: number): readonly number[] =>
  past[0] === transaction
    ? past
    : [transaction, ...past.filter((one) => one !== transaction)].slice(0, REMEMBERED);
