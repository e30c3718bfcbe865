import { DecodeError, expect, need, putBytes, u32, u8, type Codec } from './codec';

/** One captured frame. */
export interface PcapRecord {
  /** Microseconds since 1970. */
  readonly at: number;
  readonly frame: Uint8Array;
  /** Length on the wire; above the frame's where the capture cut it. */
  readonly wireLength: number;
}

/** What a file format makes of the bytes that are there: one step, or undefined where more bytes are needed first. */
export interface CaptureStep {
  /** Undefined of what is no frame. */
  readonly record: PcapRecord | undefined;
  /** Where the next step begins. */
  readonly next: number;
}

export type CaptureSteps = (bytes: Uint8Array, at: number) => CaptureStep | undefined;

const MAGIC = 0xa1b2c3d4;
const MAGIC_NANO = 0xa1b23c4d;
const ETHERNET_LINK = 1;
const SNAP_LENGTH = 262144;

/** What the head of a capture says about the records that follow. */
interface PcapHeader {
  readonly littleEndian: boolean;
  /** Units of the fraction of a second: 10^6 or 10^9. */
  readonly ticks: 1_000_000 | 1_000_000_000;
}

const little32 = (bytes: Uint8Array, at: number): number =>
  (u8(bytes, at) |
    (u8(bytes, at + 1) << 8) |
    (u8(bytes, at + 2) << 16) |
    (u8(bytes, at + 3) << 24)) >>>
  0;

/**
 * The head of a capture file in the classic format (libpcap's pcap-savefile manual page), Ethernet
 * only. Reads both byte orders and both clocks; writes little-endian microseconds.
 */
export const pcapHeader: Codec<PcapHeader> = {
  length: () => 24,
  encode(_header, bytes, at) {
    const view = new DataView(bytes.buffer, bytes.byteOffset);
    view.setUint32(at, MAGIC, true);
    view.setUint16(at + 4, 2, true);
    view.setUint16(at + 6, 4, true);
    view.setUint32(at + 8, 0, true);
    view.setUint32(at + 12, 0, true);
    view.setUint32(at + 16, SNAP_LENGTH, true);
    view.setUint32(at + 20, ETHERNET_LINK, true);
    return at + 24;
  },
  decode(bytes, at, end) {
    need('pcap.header', at, end, 24);
    for (const littleEndian of [true, false]) {
      const read = littleEndian ? little32 : u32;
      const magic = read(bytes, at);
      if (magic !== MAGIC && magic !== MAGIC_NANO) continue;
      expect('pcap.link', at + 20, ETHERNET_LINK, read(bytes, at + 20) & 0xffff);
      const ticks = magic === MAGIC ? 1_000_000 : 1_000_000_000;
      return { value: { littleEndian, ticks }, next: at + 24 };
    }
    throw new DecodeError('pcap.magic', at, MAGIC, little32(bytes, at));
  },
};

/** One record of a capture with this header. */
export const pcapRecord = ({ littleEndian, ticks }: PcapHeader): Codec<PcapRecord> => ({
  length: (record) => 16 + record.frame.length,
  encode(record, bytes, at) {
    const view = new DataView(bytes.buffer, bytes.byteOffset);
    view.setUint32(at, Math.floor(record.at / 1e6), littleEndian);
    view.setUint32(at + 4, (record.at % 1e6) * (ticks / 1e6), littleEndian);
    view.setUint32(at + 8, record.frame.length, littleEndian);
    view.setUint32(at + 12, record.wireLength, littleEndian);
    return putBytes(bytes, at + 16, record.frame);
  },
  decode(bytes, at, end) {
    need('pcap.record', at, end, 16);
    const read = littleEndian ? little32 : u32;
    const length = read(bytes, at + 8);
    if (length > SNAP_LENGTH) throw new DecodeError('pcap.length', at + 8, SNAP_LENGTH, length);
    need('pcap.frame', at + 16, end, length);
    const micros = Math.floor(read(bytes, at + 4) / (ticks / 1e6));
    return {
      value: {
        at: read(bytes, at) * 1e6 + micros,
        frame: bytes.subarray(at + 16, at + 16 + length),
        wireLength: read(bytes, at + 12),
      },
      next: at + 16 + length,
    };
  },
});

/** The form Ipsonomo writes. */
export const OWN_PCAP: PcapHeader = { littleEndian: true, ticks: 1_000_000 };
