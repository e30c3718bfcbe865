import type { Ipv4 } from '../net';
import { TCP_FLAG, type TcpSegment } from '../wire';

/**
 * One end of a TCP connection (RFC 9293 §3.10) for a wire that loses and reorders nothing: there is
 * no retransmission and no window beyond one announcement. Conversations on a real adapter go through
 * the operating system's sockets instead.
 */
export interface TcpConnection {
  readonly id: string;
  readonly localPort: number;
  readonly remote: Ipv4;
  readonly remotePort: number;
  readonly phase: 'syn-sent' | 'syn-received' | 'open' | 'fin-sent' | 'last-ack' | 'gone';
  /** Next sequence number to send, 32 bits. */
  readonly sendNext: number;
  /** Next sequence number expected. */
  readonly receiveNext: number;
}

export type TcpNews =
  | { readonly kind: 'opened'; readonly id: string }
  | {
      readonly kind: 'accepted';
      readonly id: string;
      readonly localPort: number;
      readonly remote: Ipv4;
    }
  | { readonly kind: 'refused'; readonly id: string }
  | { readonly kind: 'received'; readonly id: string; readonly data: Uint8Array }
  | { readonly kind: 'closed'; readonly id: string };

export interface TcpStep {
  readonly connection: TcpConnection;
  readonly segments: readonly TcpSegment[];
  readonly news: readonly TcpNews[];
}

const NONE = new Uint8Array(0);
/** Maximum segment size option of 1460 bytes (RFC 9293 §3.7.1). */
const MSS_OPTION = Uint8Array.of(2, 4, 0x05, 0xb4);
const SEGMENT_SIZE = 1460;
const WINDOW = 65535;

const plus = (sequence: number, count: number): number => (sequence + count) >>> 0;

function segmentOf(
  connection: TcpConnection,
  flags: number,
  payload: Uint8Array = NONE,
): TcpSegment {
  return {
    fromPort: connection.localPort,
    toPort: connection.remotePort,
    sequence: connection.sendNext,
    acknowledgment: flags & TCP_FLAG.ack ? connection.receiveNext : 0,
    flags,
    window: WINDOW,
    options: flags & TCP_FLAG.syn ? MSS_OPTION : NONE,
    payload,
  };
}

/** Begins a connection: the SYN. `initial` is the first sequence number. */
export function openTcpConnection(
  ends: Pick<TcpConnection, 'id' | 'localPort' | 'remote' | 'remotePort'>,
  initial: number,
): TcpStep {
  const connection: TcpConnection = {
    ...ends,
    phase: 'syn-sent',
    sendNext: initial >>> 0,
    receiveNext: 0,
  };
  return {
    connection: { ...connection, sendNext: plus(connection.sendNext, 1) },
    segments: [segmentOf(connection, TCP_FLAG.syn)],
    news: [],
  };
}

/** Answers a SYN to a port that listens. */
export function acceptTcp(id: string, remote: Ipv4, syn: TcpSegment, initial: number): TcpStep {
  const connection: TcpConnection = {
    id,
    localPort: syn.toPort,
    remote,
    remotePort: syn.fromPort,
    phase: 'syn-received',
    sendNext: initial >>> 0,
    receiveNext: plus(syn.sequence, 1),
  };
  return {
    connection: { ...connection, sendNext: plus(connection.sendNext, 1) },
    segments: [segmentOf(connection, TCP_FLAG.syn | TCP_FLAG.ack)],
    news: [],
  };
}

/** The reset that refuses a segment nobody expects (RFC 9293 §3.10.7.1). */
export const refusalOf = (segment: TcpSegment): TcpSegment => {
  const acknowledged = (segment.flags & TCP_FLAG.ack) !== 0;
  const occupied = segment.payload.length + (segment.flags & TCP_FLAG.syn ? 1 : 0);
  return {
    fromPort: segment.toPort,
    toPort: segment.fromPort,
    sequence: acknowledged ? segment.acknowledgment : 0,
    acknowledgment: acknowledged ? 0 : plus(segment.sequence, occupied),
    flags: acknowledged ? TCP_FLAG.rst : TCP_FLAG.rst | TCP_FLAG.ack,
    window: 0,
    options: NONE,
    payload: NONE,
  };
};

/** Sends data; nothing happens on a connection that is not open. */
export function sendTcp(connection: TcpConnection, data: Uint8Array): TcpStep {
  if (connection.phase !== 'open') return { connection, segments: [], news: [] };
  let next = connection;
  const segments: TcpSegment[] = [];
  for (let at = 0; at < data.length; at += SEGMENT_SIZE) {
    const part = data.subarray(at, at + SEGMENT_SIZE);
    segments.push(segmentOf(next, TCP_FLAG.psh | TCP_FLAG.ack, part));
    next = { ...next, sendNext: plus(next.sendNext, part.length) };
  }
  return { connection: next, segments, news: [] };
}

/** Ends our side. */
export function closeTcp(connection: TcpConnection): TcpStep {
  if (connection.phase !== 'open')
    return { connection: { ...connection, phase: 'gone' }, segments: [], news: [] };
  return {
    connection: { ...connection, phase: 'fin-sent', sendNext: plus(connection.sendNext, 1) },
    segments: [segmentOf(connection, TCP_FLAG.fin | TCP_FLAG.ack)],
    news: [],
  };
}

/** Takes one segment of this connection. Segments out of order are dropped. */
export function receiveTcp(connection: TcpConnection, segment: TcpSegment): TcpStep {
  const { id, phase } = connection;
  const gone: TcpConnection = { ...connection, phase: 'gone' };
  if (segment.flags & TCP_FLAG.rst) {
    const news: TcpNews = { kind: phase === 'syn-sent' ? 'refused' : 'closed', id };
    return { connection: gone, segments: [], news: [news] };
  }
  if (phase === 'syn-sent') return receiveSynAck(connection, segment);
  if (segment.sequence !== connection.receiveNext) return { connection, segments: [], news: [] };
  if (phase === 'last-ack') return { connection: gone, segments: [], news: [] };
  return receiveOpen(connection, segment);
}

function receiveSynAck(connection: TcpConnection, segment: TcpSegment): TcpStep {
  const both = TCP_FLAG.syn | TCP_FLAG.ack;
  if ((segment.flags & both) !== both || segment.acknowledgment !== connection.sendNext)
    return { connection, segments: [], news: [] };
  const open: TcpConnection = {
    ...connection,
    phase: 'open',
    receiveNext: plus(segment.sequence, 1),
  };
  return {
    connection: open,
    segments: [segmentOf(open, TCP_FLAG.ack)],
    news: [{ kind: 'opened', id: connection.id }],
  };
}

function receiveOpen(connection: TcpConnection, segment: TcpSegment): TcpStep {
  const { id } = connection;
  const news: TcpNews[] = [];
  let next = connection;
  if (next.phase === 'syn-received') {
    next = { ...next, phase: 'open' };
    news.push({ kind: 'accepted', id, localPort: next.localPort, remote: next.remote });
  }
  const length = segment.payload.length;
  if (length > 0) {
    next = { ...next, receiveNext: plus(next.receiveNext, length) };
    news.push({ kind: 'received', id, data: segment.payload });
  }
  if ((segment.flags & TCP_FLAG.fin) === 0) {
    const segments = length > 0 ? [segmentOf(next, TCP_FLAG.ack)] : [];
    return { connection: next, segments, news };
  }
  next = { ...next, receiveNext: plus(next.receiveNext, 1) };
  news.push({ kind: 'closed', id });
  if (next.phase === 'fin-sent') {
    // Both ends at once (RFC 9293 §3.6, case 3): ours may not be acknowledged yet.
    const acknowledged = segment.acknowledgment === next.sendNext;
    const phase = acknowledged ? 'gone' : 'last-ack';
    return { connection: { ...next, phase }, segments: [segmentOf(next, TCP_FLAG.ack)], news };
  }
  return {
    connection: { ...next, phase: 'last-ack', sendNext: plus(next.sendNext, 1) },
    segments: [segmentOf(next, TCP_FLAG.fin | TCP_FLAG.ack)],
    news,
  };
}
