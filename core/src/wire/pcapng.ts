import { DecodeError } from './codec';
import type { CaptureStep, CaptureSteps } from './pcap';

// The newer form of a capture, which most programs write today (draft-ietf-opsawg-pcapng; confirmed with tshark's
// editcap). A file is blocks; only those that hold frames of an Ethernet interface are told of.

/** The type of the block that a section begins with; it reads the same in both orders of bytes. */
export const PCAPNG_MAGIC: readonly number[] = [0x0a, 0x0d, 0x0d, 0x0a];

const BLOCK = { section: 0x0a0d0d0a, interface: 1, simple: 3, enhanced: 6 } as const;
const ORDER = 0x1a2b3c4d;
const ETHERNET = 1;
const OPTION = { end: 0, resolution: 9, offset: 14 } as const;
/** Type and length before a body, the length once more behind it. */
const AROUND = 12;
/** Longer ones are none: nobody writes them, and a wrong length would wait for the whole file. */
const MOST_BLOCK = 16 * 1024 * 1024;
const MICROS = 1_000_000;

interface Port {
  readonly link: number;
  /** 0: without limit. */
  readonly snap: number;
  /** Units in a second. */
  readonly resolution: number;
  /** Seconds that are added to each time. */
  readonly offset: number;
}

interface Section {
  readonly little: boolean;
  readonly ports: Port[];
}

/** Reads a file block by block; `end` says whether there was anything of Ethernet in it. */
export function nextGeneration(): { readonly steps: CaptureSteps; readonly end: () => void } {
  let section: Section | undefined;
  let other: number | undefined;
  let hasEthernet = false;
  const steps: CaptureSteps = (bytes, at) => {
    const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.length);
    if (bytes.length - at < AROUND) return undefined;
    const isSection = view.getUint32(at) === BLOCK.section;
    if (isSection) section = { little: orderOf(view, at), ports: [] };
    if (!section) throw new DecodeError('pcap.magic', at, BLOCK.section, view.getUint32(at));
    const { little } = section;
    const length = view.getUint32(at + 4, little);
    if (length < AROUND || length % 4 !== 0 || length > MOST_BLOCK)
      throw new DecodeError('pcap.length', at + 4, AROUND, length);
    if (bytes.length - at < length) return undefined;
    const body: Body = { view, bytes, little, from: at + 8, to: at + length - 4 };
    const step = { record: undefined, next: at + length };
    const type = view.getUint32(at, little);
    if (type === BLOCK.interface) section.ports.push(portOf(body));
    if (type !== BLOCK.enhanced && type !== BLOCK.simple) return step;
    const port = section.ports[type === BLOCK.simple ? 0 : word(body, 0)];
    if (!port) throw new DecodeError('pcap.interface', at + 8, section.ports.length, 0);
    if (port.link !== ETHERNET) {
      other = port.link;
      return step;
    }
    hasEthernet = true;
    return { ...step, record: type === BLOCK.simple ? simple(body, port) : enhanced(body, port) };
  };
  const end = () => {
    if (other !== undefined && !hasEthernet) throw new DecodeError('pcap.link', 0, ETHERNET, other);
  };
  return { steps, end };
}

interface Body {
  readonly view: DataView;
  readonly bytes: Uint8Array;
  readonly little: boolean;
  readonly from: number;
  readonly to: number;
}

/** @throws DecodeError where so much does not fit into the block */
function word({ view, little, from, to }: Body, at: number): number {
  if (from + at + 4 > to) throw new DecodeError('pcap.block', from + at, 4, to - from - at);
  return view.getUint32(from + at, little);
}

function orderOf(view: DataView, at: number): boolean {
  if (view.getUint32(at + 8, true) === ORDER) return true;
  if (view.getUint32(at + 8, false) === ORDER) return false;
  throw new DecodeError('pcap.magic', at + 8, ORDER, view.getUint32(at + 8, true));
}

function portOf(body: Body): Port {
  const { view, little, from, to } = body;
  let resolution = MICROS;
  let offset = 0;
  for (let at = from + 8; at + 4 <= to;) {
    const code = view.getUint16(at, little);
    const length = view.getUint16(at + 2, little);
    if (code === OPTION.end || at + 4 + length > to) break;
    if (code === OPTION.resolution && length === 1) {
      const said = view.getUint8(at + 4);
      resolution = said & 0x80 ? 2 ** (said & 0x7f) : 10 ** said;
    }
    if (code === OPTION.offset && length === 8) offset = Number(view.getBigInt64(at + 4, little));
    at += 4 + length + (-length & 3);
  }
  // Both words are there, or the second would not be read.
  const snap = word(body, 4);
  return { link: view.getUint16(from, little), snap, resolution, offset };
}

function enhanced(body: Body, { resolution, offset }: Port): CaptureStep['record'] {
  const [high, low] = [word(body, 4), word(body, 8)];
  const [captured, wireLength] = [word(body, 12), word(body, 16)];
  return {
    at: offset * MICROS + microsOf(high, low, resolution),
    ...{ frame: cut(body, 20, captured), wireLength },
  };
}

/** It has no time of its own. */
function simple(body: Body, { snap }: Port): CaptureStep['record'] {
  const wireLength = word(body, 0);
  const most = snap === 0 ? wireLength : Math.min(snap, wireLength);
  return { at: 0, frame: cut(body, 4, most), wireLength };
}

function cut({ bytes, from, to }: Body, at: number, length: number): Uint8Array {
  if (from + at + length > to)
    throw new DecodeError('pcap.block', from + at, length, to - from - at);
  return bytes.subarray(from + at, from + at + length);
}

/** A finer time than microseconds has more digits than a number holds. */
function microsOf(high: number, low: number, resolution: number): number {
  if (resolution === MICROS) return high * 2 ** 32 + low;
  const ticks = (BigInt(high) << 32n) | BigInt(low);
  const perSecond = BigInt(Math.round(resolution));
  return Number((ticks * BigInt(MICROS)) / perSecond);
}
