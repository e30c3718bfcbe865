import type { HostAddress } from '@ipsonomo/core/host';
import {
  lengthOfMask,
  toPrefixLength,
  toIpv4,
  type Ipv4,
  type MacAddress,
} from '@ipsonomo/core/net';
import {
  BROADCAST_FLAG,
  dhcpMessageOf,
  findOption,
  messageTypeCode,
  messageTypeOf,
  OPTION,
  rawOption,
  type DhcpMessage,
  type MessageType,
  type RawOption,
} from '@ipsonomo/core/wire';

/** What a device says of itself when it asks for an address. */
export interface ClientTraits {
  readonly mac: MacAddress;
  readonly by: 'bootp' | 'dhcp';
  readonly hostName: string | undefined;
  readonly vendorClass: string | undefined;
  readonly longestPause: number;
  readonly wantsBroadcast: boolean;
}

interface Lease {
  readonly address: Ipv4;
  readonly server: Ipv4;
  readonly renewAt: number;
  readonly rebindAt: number;
  readonly endsAt: number;
}

/** A BootP or DHCP client. Times in milliseconds. */
export interface ClientState {
  readonly phase: 'asking' | 'requesting' | 'bound' | 'renewing';
  readonly transaction: number;
  readonly startedAt: number;
  /** When it next sends, Infinity for never. */
  readonly nextAt: number;
  readonly pause: number;
  readonly offered: { readonly address: Ipv4; readonly server: Ipv4 } | undefined;
  readonly lease: Lease | undefined;
}

export type ClientNews =
  | { readonly kind: 'send'; readonly message: DhcpMessage; readonly to: Ipv4 | 'everybody' }
  | { readonly kind: 'take'; readonly address: HostAddress }
  | { readonly kind: 'drop' };

export interface ClientStep {
  readonly state: ClientState;
  readonly news: readonly ClientNews[];
}

const FIRST_PAUSE = 2000;
/** Who waits no time at all between two requests does nothing else. */
const SHORTEST_PAUSE = 500;
/** RFC 2131 §4.1: the pause is doubled up to this. */
const USUAL_LONGEST = 64_000;

/** What its kind says, where it says something. */
const longestPauseOf = ({ longestPause }: ClientTraits): number =>
  longestPause > 0 ? longestPause : USUAL_LONGEST;

export const startClient = (transaction: number, now: number): ClientState => ({
  phase: 'asking',
  transaction,
  startedAt: now,
  nextAt: now,
  pause: FIRST_PAUSE,
  offered: undefined,
  lease: undefined,
});

/** What is due: a first request, a repeat after a doubled pause (RFC 2131 §4.1), a renewal. */
export function runClient(state: ClientState, traits: ClientTraits, now: number): ClientStep {
  if (now < state.nextAt) return { state, news: [] };
  const { lease } = state;
  if (lease && now >= lease.endsAt) {
    const again = runClient(startClient(state.transaction + 1, now), traits, now);
    return { state: again.state, news: [{ kind: 'drop' }, ...again.news] };
  }
  if (lease) return renew({ ...state, phase: 'renewing' }, lease, traits, now);
  const pause = Math.max(SHORTEST_PAUSE, Math.min(state.pause, longestPauseOf(traits)));
  // A server that fell silent between offer and request: begin again.
  const asking: ClientState =
    state.phase === 'requesting' ? { ...state, phase: 'asking', offered: undefined } : state;
  return {
    state: { ...asking, nextAt: now + pause, pause: pause * 2 },
    news: [
      { kind: 'send', message: request(asking, traits, 'DISCOVER', [], now), to: 'everybody' },
    ],
  };
}

function renew(state: ClientState, lease: Lease, traits: ClientTraits, now: number): ClientStep {
  const rebinding = now >= lease.rebindAt;
  const until = rebinding ? lease.endsAt : lease.rebindAt;
  // RFC 2131 §4.4.5: wait half the remaining time, at least a minute.
  const nextAt = now + Math.max(60_000, (until - now) / 2);
  const message = {
    ...request(state, traits, 'REQUEST', [], now),
    clientAddress: lease.address,
  };
  return {
    state: { ...state, nextAt: Math.min(nextAt, lease.endsAt) },
    news: [{ kind: 'send', message, to: rebinding ? 'everybody' : lease.server }],
  };
}

/** Takes a reply; those of other transactions are not for this client. */
export function receiveReply(
  state: ClientState,
  traits: ClientTraits,
  reply: DhcpMessage,
  now: number,
): ClientStep {
  const nothing = { state, news: [] };
  if (reply.operation !== 'reply' || reply.transaction !== state.transaction) return nothing;
  if (reply.clientMac !== traits.mac) return nothing;
  const type = messageTypeOf(reply);
  if (traits.by === 'bootp')
    return type === undefined && state.phase === 'asking' ? take(state, reply, now) : nothing;
  if (type === 'OFFER' && state.phase === 'asking') return choose(state, traits, reply, now);
  const waiting = state.phase === 'requesting' || state.phase === 'renewing';
  if (type === 'ACK' && waiting) return take(state, reply, now);
  if (type === 'NAK' && waiting) {
    const news: readonly ClientNews[] = state.lease ? [{ kind: 'drop' }] : [];
    return {
      state: { ...startClient(state.transaction + 1, now), nextAt: now + FIRST_PAUSE },
      news,
    };
  }
  return nothing;
}

function choose(
  state: ClientState,
  traits: ClientTraits,
  offer: DhcpMessage,
  now: number,
): ClientStep {
  const server = findOption(offer.options ?? [], OPTION.serverId);
  if (server === undefined) return { state, news: [] };
  const offered = { address: offer.yourAddress, server };
  const requesting: ClientState = {
    ...state,
    phase: 'requesting',
    offered,
    nextAt: now + FIRST_PAUSE,
  };
  const chosen = [
    rawOption(OPTION.requestedAddress, offered.address),
    rawOption(OPTION.serverId, server),
  ];
  const message = request(requesting, traits, 'REQUEST', chosen, now);
  return { state: requesting, news: [{ kind: 'send', message, to: 'everybody' }] };
}

function take(state: ClientState, reply: DhcpMessage, now: number): ClientStep {
  const options = reply.options ?? [];
  const mask = findOption(options, OPTION.subnetMask) ?? toIpv4(0xffffff00);
  const gateway = findOption(options, OPTION.routers)?.[0];
  const address: HostAddress = {
    address: reply.yourAddress,
    length: lengthOfMask(mask) ?? toPrefixLength(24),
    ...(gateway === undefined ? {} : { gateway }),
  };
  const seconds = findOption(options, OPTION.leaseTime);
  const lease = leaseOf(reply, seconds, options, now);
  const bound: ClientState = {
    ...state,
    phase: 'bound',
    lease,
    nextAt: lease ? lease.renewAt : Infinity,
  };
  return { state: bound, news: [{ kind: 'take', address }] };
}

function leaseOf(
  reply: DhcpMessage,
  seconds: number | undefined,
  options: readonly RawOption[],
  now: number,
): Lease | undefined {
  const server = findOption(options, OPTION.serverId);
  if (seconds === undefined || seconds === 0xffffffff || server === undefined) return undefined;
  const t1 = findOption(options, OPTION.renewalTime) ?? seconds / 2;
  const t2 = findOption(options, OPTION.rebindingTime) ?? (seconds * 7) / 8;
  return {
    address: reply.yourAddress,
    server,
    renewAt: now + t1 * 1000,
    rebindAt: now + t2 * 1000,
    endsAt: now + seconds * 1000,
  };
}

/** RFC 2131 §4.4.4: the address turned out to be in use. */
export function declineOf(state: ClientState, traits: ClientTraits, now: number): DhcpMessage {
  const lease = state.lease;
  const options = lease
    ? [rawOption(OPTION.requestedAddress, lease.address), rawOption(OPTION.serverId, lease.server)]
    : [];
  return request(state, traits, 'DECLINE', options, now);
}

/**
 * A request as udhcpc of Debian 12 lays it out (DHCP), or bootpc (BootP: cookie and end mark, no
 * option at all). The captures in core/test/data hold both.
 */
function request(
  state: ClientState,
  traits: ClientTraits,
  type: MessageType,
  chosen: readonly RawOption[],
  now: number,
): DhcpMessage {
  return dhcpMessageOf({
    operation: 'request',
    transaction: state.transaction,
    seconds: Math.floor((now - state.startedAt) / 1000),
    flags: traits.wantsBroadcast ? BROADCAST_FLAG : 0,
    clientMac: traits.mac,
    options: traits.by === 'bootp' ? [] : dhcpOptions(traits, type, chosen),
  });
}

function dhcpOptions(
  traits: ClientTraits,
  type: MessageType,
  chosen: readonly RawOption[],
): readonly RawOption[] {
  const options: RawOption[] = [rawOption(OPTION.messageType, messageTypeCode(type)), ...chosen];
  options.push(rawOption(OPTION.maximumSize, 576));
  options.push(rawOption(OPTION.parameterList, Uint8Array.of(1, 3, 6, 12, 15, 28, 42)));
  if (traits.hostName) options.push(rawOption(OPTION.hostName, traits.hostName));
  if (traits.vendorClass) options.push(rawOption(OPTION.vendorClass, traits.vendorClass));
  options.push(rawOption(OPTION.clientId, clientIdOf(traits.mac)));
  return options;
}

/** RFC 2132 §9.14: hardware type 1, then the MAC. */
const clientIdOf = (mac: MacAddress): Uint8Array =>
  Uint8Array.of(
    1,
    ...Array.from({ length: 6 }, (_, i) => Math.floor(mac / 2 ** (40 - 8 * i)) % 256),
  );
