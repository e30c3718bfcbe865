import { UNSPECIFIED, type Ipv4 } from '../net';
import { findOption, messageTypeOf, OPTION, type DhcpMessage } from '../wire';

/**
 * Does the client begin from nothing: a BOOTP request, a DISCOVER, or a REQUEST of the INIT-REBOOT
 * state (RFC 2131 §4.3.2: no server identifier, no client address)? Then whatever address it had is
 * not stored in it. A renewal, or a request that follows an offer, is no such beginning.
 */
export function asksAnew(message: DhcpMessage): boolean {
  if (message.operation !== 'request') return false;
  switch (messageTypeOf(message)) {
    case undefined:
    case 'DISCOVER':
      return true;
    case 'REQUEST':
      return message.clientAddress === UNSPECIFIED && serverChosenBy(message) === undefined;
    default:
      return false;
  }
}

/** The server a REQUEST names (option 54): whoever's offer the client took. */
export const serverChosenBy = (message: DhcpMessage): Ipv4 | undefined =>
  messageTypeOf(message) === 'REQUEST'
    ? findOption(message.options ?? [], OPTION.serverId)
    : undefined;
