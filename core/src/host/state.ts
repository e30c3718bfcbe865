import type { Ipv4, MacAddress, PrefixLength } from '../net';
import type { Dissected, DroppedEcho, Ipv4Packet } from '../wire';
import type { TcpConnection, TcpNews } from './tcp-endpoint';

/** Milliseconds of a clock that only goes forward; `core` never reads one itself. */
export type Millis = number;

/** An address with the subnet it stands in. */
export interface HostAddress {
  readonly address: Ipv4;
  readonly length: PrefixLength;
  readonly gateway?: Ipv4;
}

/** How an address is claimed (RFC 5227 §1.1 names the constants). */
export interface ClaimTiming {
  readonly probes: number;
  readonly interval: Millis;
  /** From the last probe to the claim. */
  readonly wait: Millis;
}

/** RFC 5227 §1.1: three probes 1–2 s apart, 2 s of listening after the last. */
export const RFC_5227_TIMING: ClaimTiming = { probes: 3, interval: 1500, wait: 2000 };

/** What a host is and does not change by itself. */
export interface HostTraits {
  readonly mac: MacAddress;
  readonly answersPing: boolean;
  /** Hands packets for others to the caller instead of dropping them: a router's interface. */
  readonly forwards: boolean;
  readonly tcpPorts: readonly number[];
}

interface Claim {
  readonly wanted: HostAddress;
  readonly timing: ClaimTiming;
  readonly probesLeft: number;
  readonly nextAt: Millis;
}

interface Waiting {
  readonly nextHop: Ipv4;
  readonly packet: Ipv4Packet;
  readonly asks: number;
  readonly nextAt: Millis;
}

/** One small IP host with one interface. */
export interface HostState {
  readonly traits: HostTraits;
  readonly configured: HostAddress | undefined;
  readonly claim: Claim | undefined;
  readonly neighbours: ReadonlyMap<Ipv4, MacAddress>;
  /** Packets held back until their next hop's MAC is known. */
  readonly waiting: readonly Waiting[];
  readonly connections: ReadonlyMap<string, TcpConnection>;
  /** Counts packets sent: their identification, and the source of port numbers. */
  readonly sent: number;
  readonly defendedAt: Millis | undefined;
}

/** What can happen to a host. */
export type HostInput =
  | { readonly kind: 'frame'; readonly frame: Dissected }
  | { readonly kind: 'tick' }
  | { readonly kind: 'configure'; readonly to: HostAddress | undefined }
  | { readonly kind: 'claim'; readonly wanted: HostAddress; readonly timing: ClaimTiming }
  | { readonly kind: 'ask-arp'; readonly target: Ipv4 }
  | {
      readonly kind: 'ping';
      readonly to: Ipv4;
      readonly identifier: number;
      readonly sequence: number;
      /** Routers it may pass before it is given up; as many as usual where none is said. */
      readonly timeToLive?: number | undefined;
    }
  | {
      readonly kind: 'send-udp';
      readonly to: Ipv4;
      readonly fromPort: number;
      readonly toPort: number;
      readonly payload: Uint8Array;
    }
  | { readonly kind: 'send-packet'; readonly packet: Ipv4Packet }
  | { readonly kind: 'connect'; readonly id: string; readonly to: Ipv4; readonly port: number }
  | { readonly kind: 'write'; readonly id: string; readonly data: Uint8Array }
  | { readonly kind: 'close'; readonly id: string };

/** What a host tells its owner. */
export type HostNews =
  | { readonly kind: 'claimed'; readonly address: Ipv4 }
  /** Somebody else has the address we probe for or have. */
  | { readonly kind: 'conflict'; readonly address: Ipv4; readonly mac: MacAddress }
  | {
      readonly kind: 'pong';
      readonly from: Ipv4;
      readonly identifier: number;
      readonly sequence: number;
    }
  /** An echo request of ours was given up on its way, and by whom. */
  | ({ readonly kind: 'dropped'; readonly from: Ipv4 } & DroppedEcho)
  | {
      readonly kind: 'udp';
      readonly from: Ipv4;
      readonly fromPort: number;
      readonly toPort: number;
      readonly payload: Uint8Array;
    }
  | { readonly kind: 'transit'; readonly packet: Ipv4Packet }
  /** No answer to ARP for the next hop. */
  | { readonly kind: 'unreachable'; readonly to: Ipv4; readonly nextHop: Ipv4 }
  | TcpNews;

export interface HostStep {
  readonly state: HostState;
  readonly frames: readonly Uint8Array[];
  readonly news: readonly HostNews[];
}

/** A host as it is at power-up: no address, no memory. */
export const newHost = (traits: HostTraits, configured?: HostAddress): HostState => ({
  traits,
  configured,
  claim: undefined,
  neighbours: new Map(),
  waiting: [],
  connections: new Map(),
  sent: 0,
  defendedAt: undefined,
});
