import { messageTypeOf, type DhcpMessage } from '@ipsonomo/core/wire';

/** How a device of the practice site can be other than it should be. */
export type Quirk =
  /** A controller uses it. */
  | 'owned'
  /** Its hardware is of another revision than the kind stands for. */
  | 'other-revision'
  /** The module in its last slot is one of another number. */
  | 'other-module'
  /** Its data are twice as long as they should be. */
  | 'other-size'
  /** Its answers over layer 2 end in the middle of a block. */
  | 'cut-answer'
  /** It tells its name in capital letters. */
  | 'capital-name'
  /** It answers under the number of another question. */
  | 'other-transaction'
  /** Its requests for an address end before the options begin. */
  | 'cut-request'
  /** It is gone for a few seconds, again and again. */
  | 'drops-out'
  /** It chooses an offer under another number than it asked under. */
  | 'other-number';

const DROPS_EVERY = 40_000;
const DROPS_FOR = 3000;

/** Is it one that drops out, and out just now? */
export const isAway = (quirks: ReadonlySet<Quirk>, now: number): boolean =>
  quirks.has('drops-out') && now % DROPS_EVERY < DROPS_FOR;

/** Where a discovery message has its transaction: after Ethernet, frame id, service and type. */
const TRANSACTION_AT = 18;
const CUT = 5;
/** What stands before the options of a request (RFC 951 §3). */
const FIXED = 236;

/** A frame over layer 2 as such a device sends it. */
export function spoil(frame: Uint8Array, quirks: ReadonlySet<Quirk>): Uint8Array {
  if (quirks.has('cut-answer')) {
    // Without the filling of a short frame, or nothing would be missing.
    const end = Math.min(frame.length, lastByteOf(frame)) - CUT;
    return frame.slice(0, end);
  }
  if (!quirks.has('other-transaction')) return frame;
  const spoiled = frame.slice();
  spoiled[TRANSACTION_AT] = (spoiled[TRANSACTION_AT] ?? 0) ^ 0xff;
  return spoiled;
}

/** A message under the number such a device chooses under. */
export const renumbered = (message: DhcpMessage, quirks: ReadonlySet<Quirk>): DhcpMessage =>
  quirks.has('other-number') && messageTypeOf(message) === 'REQUEST'
    ? { ...message, transaction: (message.transaction ^ 0xffff) >>> 0 }
    : message;

/** A request for an address as such a device sends it. */
export function spoilRequest(request: Uint8Array, quirks: ReadonlySet<Quirk>): Uint8Array {
  return quirks.has('cut-request') ? request.slice(0, FIXED - CUT) : request;
}

/** Where the message says that it ends: its length stands after transaction and delay. */
function lastByteOf(frame: Uint8Array): number {
  const length = ((frame[TRANSACTION_AT + 6] ?? 0) << 8) | (frame[TRANSACTION_AT + 7] ?? 0);
  return TRANSACTION_AT + 8 + length;
}
