import type { Ipv4, MacAddress, PrefixLength } from '../net';
import type { DhcpMessage } from '../wire';

/** What the plan says of one bound MAC: the only thing that is ever answered. */
export interface AnswerEntry {
  readonly mac: MacAddress;
  readonly give: Ipv4;
  readonly length: PrefixLength;
  readonly gateway: Ipv4 | undefined;
  readonly hostName: string | undefined;
  readonly leaseSeconds: number;
}

/** Where a reply goes: a MAC stands for "the one the request came from". */
export interface ReplyTarget {
  readonly address: Ipv4;
  readonly port: number;
  readonly hardware: 'everybody' | 'sender';
}

export type ReplyKind = 'BootP reply' | 'OFFER' | 'ACK' | 'NAK';

export type SilentReason =
  /** A request that chose another server (RFC 2131 §4.3.2). */
  | 'chose-other-server'
  /** INFORM or a renewal from an address that is not the planned one and needs no answer. */
  | 'other-address'
  /** The client says the address is in use (RFC 2131 §4.3.3). */
  | 'declined'
  | 'released'
  /** A message type that is none of RFC 2132 §9.6. */
  | 'unknown-type'
  /** A reply, or a message type only servers send. */
  | 'not-a-request';

/** What comes of one request. */
export type Verdict =
  | {
      readonly kind: 'reply';
      readonly reply: ReplyKind;
      readonly message: DhcpMessage;
      readonly to: ReplyTarget;
    }
  | { readonly kind: 'silent'; readonly reason: SilentReason; readonly server?: Ipv4 };
