import type { Clock } from '@ipsonomo/core/clock';
import type { Ipv4, MacAddress } from '@ipsonomo/core/net';

export type LinkState = 'up' | 'down' | 'gone';

/** A conversation over TCP, its bytes in order. */
export interface TcpStream {
  /** The time that passes for both ends. */
  readonly clock: Clock;
  write(data: Uint8Array): void;
  close(): void;
  onData(take: (data: Uint8Array) => void): void;
  onClose(done: () => void): void;
  /** Nothing more comes until it is resumed; what cannot wait at the other end waits here. */
  pause(): void;
  resume(): void;
}

/** Why a conversation could not begin. */
export type TcpFailure = 'refused' | 'silent' | 'no-right';

export interface TcpRequest {
  readonly from: Ipv4;
  readonly to: Ipv4;
  readonly port: number;
  readonly timeout: number;
}

/** One datagram that wants an answer. */
export interface UdpQuestion extends TcpRequest {
  readonly data: Uint8Array;
}

/**
 * One adapter: raw Ethernet frames out and in, and conversations. The practice site and a real
 * adapter are the same to everything above.
 */
export interface Carrier {
  /** `practice`, `rehearsal` or `live:eth0`: the source written into evidence. */
  readonly source: string;
  /** The MAC frames are sent from. */
  readonly mac: MacAddress;
  send(frame: Uint8Array): void;
  /** Undefined where conversations go through our own host on the same frames. */
  readonly openTcp: ((request: TcpRequest) => Promise<TcpStream | TcpFailure>) | undefined;
  /** The first answer to a datagram; undefined where it goes through our own host, as conversations do. */
  readonly askUdp: ((question: UdpQuestion) => Promise<Uint8Array | TcpFailure>) | undefined;
  close(): void;
}

/** What a carrier tells its owner. */
export interface CarrierEvents {
  frame(frame: Uint8Array): void;
  /** Frames that were heard in one go are told within `take`; who does not care is told one after the other. */
  readonly together?: (take: () => void) => void;
  link(state: LinkState): void;
}
