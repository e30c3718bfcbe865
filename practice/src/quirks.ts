/** How a device of the practice site can be other than it should be. */
export type Quirk =
  /** A controller uses it. */
  | 'owned'
  /** Its hardware is of another revision than the kind stands for. */
  | 'other-revision'
  /** Its answers over layer 2 end in the middle of a block. */
  | 'cut-answer'
  /** It tells its name in capital letters. */
  | 'capital-name'
  /** It answers under the number of another question. */
  | 'other-transaction';

/** Where a discovery message has its transaction: after Ethernet, frame id, service and type. */
const TRANSACTION_AT = 18;
const CUT = 5;

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

/** Where the message says that it ends: its length stands after transaction and delay. */
function lastByteOf(frame: Uint8Array): number {
  const length = ((frame[TRANSACTION_AT + 6] ?? 0) << 8) | (frame[TRANSACTION_AT + 7] ?? 0);
  return TRANSACTION_AT + 8 + length;
}
