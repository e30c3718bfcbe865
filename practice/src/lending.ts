import type { HostAddress } from '@ipsonomo/core/host';
import { LIMITED_BROADCAST, maskOf, toIpv4, type Ipv4, type MacAddress } from '@ipsonomo/core/net';
import {
  BROADCAST_FLAG,
  DHCP_PORT,
  dhcpFrame,
  DecodeError,
  decodeWith,
  dhcpMessage,
  dhcpMessageOf,
  findOption,
  messageTypeCode,
  messageTypeOf,
  OPTION,
  rawOption,
  type DhcpMessage,
} from '@ipsonomo/core/wire';

/** Addresses a DHCP server lends to whoever asks. */
export interface Pool {
  readonly first: Ipv4;
  readonly count: number;
}

/** A small DHCP server as it sits in a router somebody brought: it answers everybody. */
export class Lending {
  private readonly lent = new Map<MacAddress, Ipv4>();

  constructor(private readonly pool: Pool) {}

  /** The reply to what came to port 67; undefined where it says nothing. */
  private answer(payload: Uint8Array, own: HostAddress): DhcpMessage | undefined {
    const asked = read(payload);
    const type = asked && messageTypeOf(asked);
    if (!asked || asked.operation !== 'request') return undefined;
    if (type === 'DISCOVER') return this.reply('OFFER', asked, own);
    if (type === 'INFORM') return this.reply('ACK', asked, own);
    if (type !== 'REQUEST') return undefined;
    const chosen = findOption(asked.options ?? [], OPTION.serverId);
    return chosen === undefined || chosen === own.address
      ? this.reply('ACK', asked, own)
      : undefined;
  }

  /** The same as a frame to everybody; undefined where it says nothing. */
  frame(payload: Uint8Array, own: HostAddress, mac: MacAddress): Uint8Array | undefined {
    const reply = this.answer(payload, own);
    const ends = { from: own.address, fromPort: DHCP_PORT.server, toPort: DHCP_PORT.client };
    return reply && dhcpFrame(mac, { ...ends, to: LIMITED_BROADCAST }, reply);
  }

  private reply(type: 'OFFER' | 'ACK', asked: DhcpMessage, own: HostAddress): DhcpMessage {
    const informs = messageTypeOf(asked) === 'INFORM';
    return dhcpMessageOf({
      ...{ operation: 'reply', transaction: asked.transaction, clientMac: asked.clientMac },
      ...{ flags: BROADCAST_FLAG, serverAddress: own.address },
      yourAddress: informs ? toIpv4(0) : this.addressFor(asked.clientMac),
      options: [
        rawOption(OPTION.messageType, messageTypeCode(type)),
        rawOption(OPTION.serverId, own.address),
        ...(informs ? [] : [rawOption(OPTION.leaseTime, 3600)]),
        rawOption(OPTION.subnetMask, maskOf(own.length)),
      ],
    });
  }

  private addressFor(mac: MacAddress): Ipv4 {
    const known = this.lent.get(mac);
    if (known !== undefined) return known;
    const next = toIpv4(this.pool.first + (this.lent.size % this.pool.count));
    this.lent.set(mac, next);
    return next;
  }
}

function read(payload: Uint8Array): DhcpMessage | undefined {
  try {
    return decodeWith(dhcpMessage, payload);
  } catch (error) {
    if (error instanceof DecodeError) return undefined;
    throw error;
  }
}
