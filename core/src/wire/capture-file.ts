import type { Issue } from '../net';
import { DecodeError, type Codec } from './codec';
import {
  pcapHeader,
  pcapRecord,
  type CaptureStep,
  type CaptureSteps,
  type PcapRecord,
} from './pcap';
import { nextGeneration, PCAPNG_MAGIC } from './pcapng';

/** The first word of a file tells which format it has. */
const LEAST = 4;
const NOTHING = new Uint8Array(0);

/**
 * A capture file in pieces of any size, as they come from a disk or over a network: the classic format (pcap-savefile) or
 * the newer one (pcapng), of Ethernet. Frames are told as soon as they are whole, so that a file of any size needs no
 * more room than its longest frame and a piece.
 */
export class CaptureReader {
  private rest: Uint8Array = NOTHING;
  /** How many bytes were read before the rest. */
  private passed = 0;
  private steps: CaptureSteps | undefined;
  private readonly newer = nextGeneration();

  /**
   * The frames that became whole with these bytes.
   * @throws DecodeError where the file is no capture of Ethernet, `at` counted from its beginning
   */
  *push(piece: Uint8Array): Generator<PcapRecord> {
    const bytes = this.rest.length === 0 ? piece : joined(this.rest, piece);
    let at = 0;
    while (at < bytes.length) {
      const step = this.step(bytes, at);
      if (!step) break;
      at = step.next;
      if (step.record) yield step.record;
    }
    this.passed += at;
    this.rest = bytes.subarray(at);
  }

  /**
   * No more bytes come.
   * @throws DecodeError `pcap.cut` where the file ends in the middle of a frame, `pcap.magic` where it is none,
   *   `pcap.link` where none of its frames is Ethernet's
   */
  end(): void {
    if (this.steps === undefined && !isClassic(this.rest, 0))
      throw new DecodeError('pcap.magic', 0, LEAST, this.rest.length);
    if (this.rest.length > 0) throw new DecodeError('pcap.cut', this.passed, 1, this.rest.length);
    this.newer.end();
  }

  private step(bytes: Uint8Array, at: number): CaptureStep | undefined {
    if (this.steps) return this.told(this.steps, bytes, at);
    if (bytes.length - at < LEAST) return undefined;
    if (beginsWith(bytes, at, PCAPNG_MAGIC)) this.steps = this.newer.steps;
    else {
      if (bytes.length - at < CLASSIC_HEAD && isClassic(bytes, at)) return undefined;
      const head = this.placed(() => pcapHeader.decode(bytes, at, bytes.length));
      this.steps = classic(pcapRecord(head.value));
      return { record: undefined, next: head.next };
    }
    return this.told(this.steps, bytes, at);
  }

  private told(steps: CaptureSteps, bytes: Uint8Array, at: number): CaptureStep | undefined {
    return this.placed(() => steps(bytes, at));
  }

  /** Places are told as of the whole file, whatever pieces it came in. */
  private placed<T>(read: () => T): T {
    try {
      return read();
    } catch (error) {
      if (!(error instanceof DecodeError)) throw error;
      throw new DecodeError(error.code, this.passed + error.at, error.need, error.have);
    }
  }
}

const CLASSIC_HEAD = 24;
const RECORD_HEAD = 16;
/** The four forms of its first word: both orders of bytes, both clocks. */
const CLASSIC_MAGICS: readonly (readonly number[])[] = [
  [0xa1, 0xb2, 0xc3, 0xd4],
  [0xd4, 0xc3, 0xb2, 0xa1],
  [0xa1, 0xb2, 0x3c, 0x4d],
  [0x4d, 0x3c, 0xb2, 0xa1],
];

const beginsWith = (bytes: Uint8Array, at: number, magic: readonly number[]): boolean =>
  magic.every((byte, index) => bytes[at + index] === byte);
const isClassic = (bytes: Uint8Array, at: number): boolean =>
  CLASSIC_MAGICS.some((magic) => beginsWith(bytes, at, magic));

/** Whether a file begins as a capture does, whatever it is called. */
export const isCapture = (bytes: Uint8Array): boolean =>
  isClassic(bytes, 0) || beginsWith(bytes, 0, PCAPNG_MAGIC);

const classic =
  (codec: Codec<PcapRecord>): CaptureSteps =>
  (bytes, at) => {
    if (bytes.length - at < RECORD_HEAD) return undefined;
    try {
      const { value, next } = codec.decode(bytes, at, bytes.length);
      return { record: value, next };
    } catch (error) {
      // Its length was read and is sound: only bytes are missing.
      if (error instanceof DecodeError && error.code === 'pcap.frame') return undefined;
      throw error;
    }
  };

function joined(first: Uint8Array, second: Uint8Array): Uint8Array {
  const bytes = new Uint8Array(first.length + second.length);
  bytes.set(first);
  bytes.set(second, first.length);
  return bytes;
}

/**
 * Every frame of a capture file that is there as a whole.
 * @throws DecodeError as `CaptureReader`
 */
export function* framesOfCapture(bytes: Uint8Array): Generator<PcapRecord> {
  const reader = new CaptureReader();
  yield* reader.push(bytes);
  reader.end();
}

/** What is wrong with a capture file, for whoever reads it. */
export function captureIssue(where: string, { code, at }: DecodeError): Issue {
  if (code === 'pcap.link') return { code, where };
  if (code === 'pcap.cut') return { code, where, facts: { at } };
  const isNone = code === 'pcap.magic' || at === 0;
  return isNone ? { code: 'pcap.magic', where } : { code: 'pcap.broken', where, facts: { at } };
}
