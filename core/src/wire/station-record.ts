import {
  DecodeError,
  expect,
  freshBytes,
  need,
  put16,
  put32,
  putBytes,
  u16,
  u32,
  u8,
  type Codec,
} from './codec';
import { le16, le32, putLe16, putLe32 } from './little';

// One record of a station, read without a connection: a remote procedure call over UDP (DCE 1.1 RPC, connectionless;
// IEC 61158-6-10 "read implicit"; from memory, confirmed with tshark's dissector).

/** Where stations listen for such calls. */
export const RECORD_PORT = 34_964;

/** Records that every station has, by their index. */
export const RECORD = { modules: 0xf000, identification: 0xaff0 } as const;

/** Where a record is. */
interface RecordPlace {
  readonly slot: number;
  readonly subslot: number;
  readonly index: number;
}

export interface RecordQuestion extends RecordPlace {
  /** 16 bytes that the answer repeats. */
  readonly activity: Uint8Array;
  readonly sequence: number;
  readonly vendor: number;
  readonly device: number;
  /** The most bytes an answer may have. */
  readonly most: number;
}

export interface RecordAnswer extends RecordPlace {
  readonly activity: Uint8Array;
  readonly sequence: number;
  /** 0, or why it was refused: four bytes (code, decode, code 1, code 2). */
  readonly status: number;
  readonly data: Uint8Array;
}

const HEAD = 80;
const ACTIVITY = 16;
const VERSION = 4;
const TYPE = { request: 0, response: 2 } as const;
const IDEMPOTENT = 0x20;
const LAST = 0x0a;
const LITTLE_ENDIAN = 0x10;
const READ_IMPLICIT = 5;
const NO_HINT = 0xffff_ffff;

/** dea00001-6c97-11d1-8271-00a02442df7d as it is written in little-endian calls. */
const INTERFACE = Uint8Array.from([
  ...[0x01, 0x00, 0xa0, 0xde, 0x97, 0x6c, 0xd1, 0x11],
  ...[0x82, 0x71, 0x00, 0xa0, 0x24, 0x42, 0xdf, 0x7d],
]);
/** dea00000-6c97-11d1-8271, then instance, device and vendor. */
const OBJECT = Uint8Array.from([
  ...[0x00, 0x00, 0xa0, 0xde, 0x97, 0x6c, 0xd1, 0x11, 0x82, 0x71, 0x00, 0x01],
]);

const BLOCK = { read: 0x0009, readAnswer: 0x8009 } as const;
/** Kind, length and version stand before; the length counts from the version on. */
const BLOCK_LENGTH = 64;
/** Five numbers before the blocks. */
const ARGUMENTS = 20;

interface Head {
  readonly type: number;
  readonly flags: number;
  readonly object: Uint8Array;
  readonly activity: Uint8Array;
  readonly sequence: number;
  readonly length: number;
}

function putHead(head: Head, bytes: Uint8Array, at: number): number {
  bytes.fill(0, at, at + HEAD);
  bytes.set([VERSION, head.type, head.flags, 0, LITTLE_ENDIAN], at);
  putBytes(bytes, at + 8, head.object);
  putBytes(bytes, at + 24, INTERFACE);
  putBytes(bytes, at + 40, head.activity.subarray(0, ACTIVITY));
  putLe32(bytes, at + 60, 1);
  putLe32(bytes, at + 64, head.sequence);
  putLe16(bytes, at + 68, READ_IMPLICIT);
  putLe32(bytes, at + 70, NO_HINT);
  putLe16(bytes, at + 74, head.length);
  return at + HEAD;
}

/** @returns where the call's arguments begin and end */
function readHead(bytes: Uint8Array, at: number, end: number, type: number) {
  need('record.head', at, end, HEAD);
  expect('record.version', at, VERSION, u8(bytes, at));
  expect('record.type', at + 1, type, u8(bytes, at + 1));
  expect('record.order', at + 4, LITTLE_ENDIAN, u8(bytes, at + 4));
  expect('record.call', at + 68, READ_IMPLICIT, le16(bytes, at + 68));
  const length = le16(bytes, at + 74);
  need('record.body', at + HEAD, end, length);
  const activity = bytes.slice(at + 40, at + 40 + ACTIVITY);
  const object = bytes.slice(at + 8, at + 24);
  const body = at + HEAD;
  return { activity, object, sequence: le32(bytes, at + 64), body, next: body + length };
}

/** The one part that both blocks share; both are 64 bytes long. */
function putBlock(kind: number, place: RecordPlace, count: number, bytes: Uint8Array, at: number) {
  bytes.fill(0, at, at + BLOCK_LENGTH);
  put16(bytes, at, kind);
  put16(bytes, at + 2, BLOCK_LENGTH - 4);
  bytes[at + 4] = 1;
  put16(bytes, at + 28, place.slot);
  put16(bytes, at + 30, place.subslot);
  put16(bytes, at + 34, place.index);
  put32(bytes, at + 36, count);
  return at + BLOCK_LENGTH;
}

function readBlock(kind: number, bytes: Uint8Array, at: number, end: number) {
  need('record.block', at, end, BLOCK_LENGTH);
  expect('record.blockKind', at, kind, u16(bytes, at));
  const place = { slot: u16(bytes, at + 28), subslot: u16(bytes, at + 30) };
  return { ...place, index: u16(bytes, at + 34), count: u32(bytes, at + 36) };
}

const QUESTION = ARGUMENTS + BLOCK_LENGTH;

export const recordQuestion: Codec<RecordQuestion> = {
  length: () => HEAD + QUESTION,
  encode(question, bytes, at) {
    const object = freshBytes(16);
    putBytes(object, 0, OBJECT);
    put16(object, 12, question.device);
    put16(object, 14, question.vendor);
    const { activity, sequence, most } = question;
    const call = { type: TYPE.request, flags: IDEMPOTENT, length: QUESTION };
    let next = putHead({ ...call, object, activity, sequence }, bytes, at);
    const room = most + BLOCK_LENGTH;
    // Room for the answer, bytes of this question; then of the array: its most, its first, its length.
    for (const word of [room, BLOCK_LENGTH, room, 0, BLOCK_LENGTH])
      next = putLe32(bytes, next, word);
    return putBlock(BLOCK.read, question, most, bytes, next);
  },
  decode(bytes, at, end) {
    const { activity, object, sequence, body, next } = readHead(bytes, at, end, TYPE.request);
    need('record.arguments', body, next, QUESTION);
    const { count, ...place } = readBlock(BLOCK.read, bytes, body + ARGUMENTS, next);
    const station = { device: u16(object, 12), vendor: u16(object, 14) };
    return { value: { ...place, ...station, activity, sequence, most: count }, next };
  },
};

export const recordAnswer: Codec<RecordAnswer> = {
  length: ({ data }) => HEAD + QUESTION + data.length,
  encode(answer, bytes, at) {
    const { activity, sequence, status, data } = answer;
    const length = QUESTION + data.length;
    const call = { type: TYPE.response, flags: LAST | IDEMPOTENT, object: INTERFACE, length };
    let next = putHead({ ...call, activity, sequence }, bytes, at);
    const carried = BLOCK_LENGTH + data.length;
    for (const word of [status, carried, carried, 0, carried]) next = putLe32(bytes, next, word);
    next = putBlock(BLOCK.readAnswer, answer, data.length, bytes, next);
    return putBytes(bytes, next, data);
  },
  decode(bytes, at, end) {
    const { activity, sequence, body, next } = readHead(bytes, at, end, TYPE.response);
    need('record.arguments', body, next, ARGUMENTS);
    const status = le32(bytes, body);
    const from = body + ARGUMENTS;
    // Some that refuse leave the block out.
    if (status !== 0 && next - from < BLOCK_LENGTH) {
      const nowhere = { slot: 0, subslot: 0, index: 0 };
      return { value: { ...nowhere, activity, sequence, status, data: new Uint8Array(0) }, next };
    }
    const { count, ...place } = readBlock(BLOCK.readAnswer, bytes, from, next);
    const dataAt = from + BLOCK_LENGTH;
    need('record.data', dataAt, next, count);
    const data = bytes.slice(dataAt, dataAt + count);
    return { value: { ...place, activity, sequence, status, data }, next };
  },
};

/** A module as a station has it in a slot. */
export interface RealModule {
  readonly slot: number;
  /** As its description file has it. */
  readonly ident: number;
  readonly submodules: readonly { readonly subslot: number; readonly ident: number }[];
}

const REAL = 0x0013;
const MOST_ITEMS = 4096;

/** What is plugged in, slot by slot: block 0x0013 in version 1.1, of the one profile that every station has. */
export const realModules: Codec<readonly RealModule[]> = {
  length: (modules) =>
    modules.reduce((sum, { submodules }) => sum + 8 + 6 * submodules.length, 6 + 2 + 4 + 2),
  encode(modules, bytes, at) {
    const length = realModules.length(modules);
    put16(bytes, at, REAL);
    put16(bytes, at + 2, length - 4);
    bytes.set([1, 1], at + 4);
    let next = put16(bytes, at + 6, 1);
    next = put32(bytes, next, 0);
    next = put16(bytes, next, modules.length);
    for (const { slot, ident, submodules } of modules) {
      next = put16(bytes, next, slot);
      next = put32(bytes, next, ident);
      next = put16(bytes, next, submodules.length);
      for (const one of submodules) next = put32(bytes, put16(bytes, next, one.subslot), one.ident);
    }
    return next;
  },
  decode(bytes, at, end) {
    need('record.modules', at, end, 8);
    expect('record.modulesKind', at, REAL, u16(bytes, at));
    // Older stations write version 1.0, which knows of one profile only and does not name it.
    const isOld = u8(bytes, at + 5) === 0;
    if (!isOld) expect('record.modulesVersion', at + 5, 1, u8(bytes, at + 5));
    const modules: RealModule[] = [];
    let next = at + (isOld ? 6 : 8);
    for (let profiles = isOld ? 1 : u16(bytes, at + 6); profiles > 0; profiles -= 1) {
      const head = isOld ? 2 : 6;
      need('record.profile', next, end, head);
      const slots = u16(bytes, next + head - 2);
      next += head;
      for (let left = slots; left > 0; left -= 1) {
        need('record.slot', next, end, 8);
        const count = u16(bytes, next + 6);
        need('record.subslots', next + 8, end, 6 * count);
        if (modules.length >= MOST_ITEMS) throw new DecodeError('record.slots', next, 0, slots);
        const from = next;
        const submodules = Array.from({ length: count }, (_, i) => ({
          subslot: u16(bytes, from + 8 + 6 * i),
          ident: u32(bytes, from + 10 + 6 * i),
        }));
        modules.push({ slot: u16(bytes, next), ident: u32(bytes, next + 2), submodules });
        next += 8 + 6 * count;
      }
    }
    return { value: modules, next };
  },
};
