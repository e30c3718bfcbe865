import { DecodeError } from '@ipsonomo/core/wire';

/** What a device answers to what arrived on one of its connections. */
export interface Answered {
  readonly bytes: Uint8Array;
  /** Bytes that wait for the rest of their message. */
  readonly rest: Uint8Array;
  /** It hangs up: the client said so, or sent what is no message. */
  readonly ends: boolean;
}

/**
 * Answers every whole message of a stream.
 * @param sizeOf how many bytes the message at the start needs; undefined while that cannot be told
 * @param answer undefined where it hangs up
 */
export function answerEach(
  received: Uint8Array,
  sizeOf: (bytes: Uint8Array) => number | undefined,
  answer: (message: Uint8Array) => Uint8Array | undefined,
): Answered {
  const replies: Uint8Array[] = [];
  let rest = received;
  let ends = false;
  for (let size = sizeOf(rest); size !== undefined && size <= rest.length && !ends;) {
    try {
      const reply = answer(rest.subarray(0, size));
      if (reply) replies.push(reply);
      else ends = true;
    } catch (error) {
      if (!(error instanceof DecodeError)) throw error;
      ends = true;
    }
    rest = rest.subarray(size);
    size = sizeOf(rest);
  }
  return { bytes: join(replies), rest: rest.slice(), ends };
}

const join = (parts: readonly Uint8Array[]): Uint8Array => {
  const out = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  return out;
};
