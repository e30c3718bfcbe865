import { LIMITED_BROADCAST, maskOf, UNSPECIFIED, type Ipv4 } from '../net';
import {
  BROADCAST_FLAG,
  DHCP_PORT,
  dhcpMessageOf,
  findOption,
  messageTypeCode,
  messageTypeOf,
  OPTION,
  rawOption,
  type DhcpMessage,
  type MessageType,
  type RawOption,
} from '../wire';
import { serverChosenBy } from './request';
import type { AnswerEntry, ReplyKind, ReplyTarget, SilentReason, Verdict } from './entry';

/**
 * R-REPLY: what a bound client's request is answered with. Pure and without memory: an unbound MAC has no
 * entry, so it cannot be answered.
 *
 * BOOTP by RFC 951 and RFC 1534 §2 (no message type, no lease: the address is for ever on this side);
 * DHCP by RFC 2131 §4.3 (a request that names another server is left alone, a wrong address is
 * refused with NAK). A client without an address is always answered by broadcast (R-BROADCAST), which
 * departs from RFC 2131 §4.1: a client that reads an ordinary socket cannot take a unicast before it has the
 * address.
 *
 * @param server the address Ipsonomo speaks from in the client's subnet
 */
export function decide(entry: AnswerEntry, request: DhcpMessage, server: Ipv4): Verdict {
  if (request.operation !== 'request') return silent('not-a-request');
  const type = messageTypeOf(request);
  switch (type) {
    case undefined:
      return reply('BootP reply', entry, request, server);
    case 'DISCOVER':
      return reply('OFFER', entry, request, server);
    case 'REQUEST':
      return decideRequest(entry, request, server);
    case 'INFORM':
      if (request.clientAddress !== entry.give) return silent('other-address');
      return reply('ACK', entry, request, server);
    case 'DECLINE':
      return silent('declined');
    case 'RELEASE':
      return silent('released');
    case 'UNKNOWN':
      return silent('unknown-type');
    case 'OFFER':
    case 'ACK':
    case 'NAK':
      return silent('not-a-request');
  }
}

const silent = (reason: SilentReason): Verdict => ({ kind: 'silent', reason });

/** RFC 2131 §4.3.2: selecting, init-reboot, renewing or rebinding, told apart by what is filled in. */
function decideRequest(entry: AnswerEntry, request: DhcpMessage, server: Ipv4): Verdict {
  const chosen = serverChosenBy(request);
  if (chosen !== undefined && chosen !== server)
    return { kind: 'silent', reason: 'chose-other-server', server: chosen };
  const wanted =
    findOption(request.options ?? [], OPTION.requestedAddress) ?? request.clientAddress;
  return reply(wanted === entry.give ? 'ACK' : 'NAK', entry, request, server);
}

const DHCP_TYPE: Readonly<Record<ReplyKind, MessageType | undefined>> = {
  'BootP reply': undefined,
  OFFER: 'OFFER',
  ACK: 'ACK',
  NAK: 'NAK',
};

function reply(kind: ReplyKind, entry: AnswerEntry, request: DhcpMessage, server: Ipv4): Verdict {
  const inform = messageTypeOf(request) === 'INFORM';
  const gives = kind !== 'NAK' && !inform;
  const relayedNak = kind === 'NAK' && request.relayAddress !== UNSPECIFIED;
  const message = dhcpMessageOf({
    operation: 'reply',
    transaction: request.transaction,
    clientMac: request.clientMac,
    // RFC 2131 §4.3.2: a relayed NAK asks the relay to broadcast.
    flags: relayedNak ? request.flags | BROADCAST_FLAG : request.flags,
    clientAddress: kind === 'NAK' || kind === 'OFFER' ? UNSPECIFIED : request.clientAddress,
    yourAddress: gives ? entry.give : UNSPECIFIED,
    serverAddress: kind === 'NAK' ? UNSPECIFIED : server,
    relayAddress: request.relayAddress,
    options: optionsOf(kind, entry, request, server, inform),
  });
  return { kind: 'reply', reply: kind, message, to: targetOf(kind, request) };
}

function targetOf(kind: ReplyKind, request: DhcpMessage): ReplyTarget {
  if (request.relayAddress !== UNSPECIFIED)
    return { address: request.relayAddress, port: DHCP_PORT.server, hardware: 'sender' };
  if (request.clientAddress !== UNSPECIFIED && kind !== 'NAK')
    return { address: request.clientAddress, port: DHCP_PORT.client, hardware: 'sender' };
  return { address: LIMITED_BROADCAST, port: DHCP_PORT.client, hardware: 'everybody' };
}

/** R-ECHO: the client's identifier and the relay's information come back as they are. */
function optionsOf(
  kind: ReplyKind,
  entry: AnswerEntry,
  request: DhcpMessage,
  server: Ipv4,
  inform: boolean,
): readonly RawOption[] {
  const options: RawOption[] = [];
  const type = DHCP_TYPE[kind];
  if (type) {
    options.push(rawOption(OPTION.messageType, messageTypeCode(type)));
    options.push(rawOption(OPTION.serverId, server));
    if (kind !== 'NAK' && !inform) options.push(...leaseOptions(entry.leaseSeconds));
  }
  if (kind !== 'NAK') options.push(...networkOptions(entry));
  for (const echoed of [OPTION.clientId, OPTION.relayInformation]) {
    const raw = type && request.options?.find((option) => option.code === echoed.code);
    if (raw) options.push(raw);
  }
  return options;
}

/** RFC 2131 §4.4.5: renewal at half, rebinding at seven eighths of the lease. */
const leaseOptions = (lease: number): readonly RawOption[] => [
  rawOption(OPTION.leaseTime, lease),
  rawOption(OPTION.renewalTime, Math.floor(lease / 2)),
  rawOption(OPTION.rebindingTime, Math.floor((lease * 7) / 8)),
];

function networkOptions(entry: AnswerEntry): readonly RawOption[] {
  const options = [rawOption(OPTION.subnetMask, maskOf(entry.length))];
  if (entry.gateway !== undefined) options.push(rawOption(OPTION.routers, [entry.gateway]));
  if (entry.hostName) options.push(rawOption(OPTION.hostName, entry.hostName));
  return options;
}
