import fc from 'fast-check';
import { DecodeError, tryDissect, type Codec } from '../../src/wire';
import { frames, samples } from './samples';
import { cases } from '../cases';

const decodeOrError = (codec: Codec<never>, bytes: Uint8Array): unknown => {
  try {
    return codec.decode(bytes, 0, bytes.length).value;
  } catch (error) {
    if (error instanceof DecodeError) return error;
    throw error;
  }
};

/** What is decoded up to this end, or why it is not. */
const outcomeOf = (codec: Codec<never>, bytes: Uint8Array, end: number): unknown => {
  try {
    return codec.decode(bytes, 0, end);
  } catch (error) {
    if (error instanceof DecodeError) return error.message;
    throw error;
  }
};

describe.each(samples)('%s', (_name, codec, sample) => {
  const value = sample as never;
  const bytes = new Uint8Array(codec.length(value) + 2).fill(0xee);
  const next = codec.encode(value, bytes, 1);

  test('encodes exactly its length and nothing around it', () => {
    expect(next).toBe(1 + codec.length(value));
    expect([bytes[0], bytes[next]]).toEqual([0xee, 0xee]);
  });

  test('decodes to what was encoded', () => {
    const decoded = codec.decode(bytes, 1, next);
    expect(decoded).toEqual({ value: sample, next });
  });

  test('every truncation is a value or a DecodeError', () => {
    for (let end = 1; end < next; end += 1) decodeOrError(codec, bytes.slice(1, end));
  });

  test('what stands behind the end makes no difference', () => {
    // As in a frame: other bytes follow, and none of them is this one's.
    const within = new Uint8Array(next + 64).fill(0xff);
    within.set(bytes.subarray(1, next));
    for (let end = 0; end < next - 1; end += 1) {
      const alone = outcomeOf(codec, bytes.slice(1, 1 + end), end);
      expect([end, outcomeOf(codec, within, end)]).toEqual([end, alone]);
    }
  });
});

test('seeded random buffers give a value or a DecodeError in every codec', () => {
  const buffer = fc.uint8Array({ maxLength: 400 });
  fc.assert(
    fc.property(buffer, (bytes) => {
      for (const [, codec] of samples) decodeOrError(codec, bytes);
      tryDissect(bytes);
    }),
    { numRuns: cases(2000), seed: 2131 },
  );
});

test('frames with one wrong byte or a cut end never throw anything else', () => {
  const change = fc.record({
    frame: fc.constantFrom(...Object.values(frames)),
    at: fc.nat(400),
    byte: fc.nat(255),
    cut: fc.nat(400),
  });
  fc.assert(
    fc.property(change, ({ frame, at, byte, cut }) => {
      const bytes = frame.slice(0, Math.max(cut, 14));
      bytes[at % bytes.length] = byte;
      tryDissect(bytes);
    }),
    { numRuns: cases(5000), seed: 951 },
  );
});
