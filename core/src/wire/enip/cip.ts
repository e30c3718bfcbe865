import { DecodeError, expect, need, putBytes, u8, type Codec } from '../codec';
import { le16, putLe16 } from '../little';

export const CIP_SERVICE = {
  getAttributesAll: 0x01,
  getAttributeSingle: 0x0e,
  setAttributeSingle: 0x10,
} as const;

/** The data of connections: each instance is one, with its data and, where it tells it, how long they are (from memory). */
export const ASSEMBLY = { classId: 4, data: 3, size: 4 } as const;

/** Where a request goes: class, instance and attribute, each 0 to 65535. */
export interface CipPath {
  readonly classId: number;
  readonly instance: number;
  readonly attribute?: number;
}

/** A request of the automation protocol to one attribute. */
export interface CipRequest {
  readonly service: number;
  readonly path: CipPath;
  readonly data: Uint8Array;
}

/** The answer: `status` 0 is success, anything else a refusal with its additional words. */
export interface CipReply {
  readonly service: number;
  readonly status: number;
  readonly additional: readonly number[];
  readonly data: Uint8Array;
}

type Segment = readonly [logicalType: number, value: number | undefined];

const segmentsOf = (path: CipPath): readonly Segment[] => [
  [0x20, path.classId],
  [0x24, path.instance],
  [0x30, path.attribute],
];

const segmentLength = ([, value]: Segment): number =>
  value === undefined ? 0 : value < 256 ? 2 : 4;

/** A logical path in the padded form: 8-bit segments of two bytes, 16-bit ones of four. */
const cipPath: Codec<CipPath> = {
  length: (path) => segmentsOf(path).reduce((sum, segment) => sum + segmentLength(segment), 0),
  encode(path, bytes, at) {
    let next = at;
    for (const [type, value] of segmentsOf(path)) {
      if (value === undefined) continue;
      bytes[next] = value < 256 ? type : type | 1;
      bytes[next + 1] = value < 256 ? value : 0;
      next = value < 256 ? next + 2 : putLe16(bytes, next + 2, value);
    }
    return next;
  },
  decode(bytes, at, end) {
    const found = new Map<number, number>();
    let next = at;
    while (next < end) {
      const type = u8(bytes, next);
      const wide = (type & 1) !== 0;
      need('cip.segment', next, end, wide ? 4 : 2);
      found.set(type & 0xfe, wide ? le16(bytes, next + 2) : u8(bytes, next + 1));
      next += wide ? 4 : 2;
    }
    const classId = found.get(0x20);
    const instance = found.get(0x24);
    const attribute = found.get(0x30);
    if (classId === undefined || instance === undefined)
      throw new DecodeError('cip.path', at, 4, end - at);
    const value =
      attribute === undefined ? { classId, instance } : { classId, instance, attribute };
    return { value, next };
  },
};

export const cipRequest: Codec<CipRequest> = {
  length: (request) => 2 + cipPath.length(request.path) + request.data.length,
  encode(request, bytes, at) {
    bytes[at] = request.service;
    bytes[at + 1] = cipPath.length(request.path) / 2;
    return putBytes(bytes, cipPath.encode(request.path, bytes, at + 2), request.data);
  },
  decode(bytes, at, end) {
    need('cip.request', at, end, 2);
    const dataAt = at + 2 + u8(bytes, at + 1) * 2;
    need('cip.pathLength', at + 2, end, dataAt - at - 2);
    const path = cipPath.decode(bytes, at + 2, dataAt).value;
    return {
      value: { service: u8(bytes, at), path, data: bytes.subarray(dataAt, end) },
      next: end,
    };
  },
};

const REPLY_BIT = 0x80;

export const cipReply: Codec<CipReply> = {
  length: (reply) => 4 + reply.additional.length * 2 + reply.data.length,
  encode(reply, bytes, at) {
    bytes[at] = reply.service | REPLY_BIT;
    bytes[at + 1] = 0;
    bytes[at + 2] = reply.status;
    bytes[at + 3] = reply.additional.length;
    let next = at + 4;
    for (const word of reply.additional) next = putLe16(bytes, next, word);
    return putBytes(bytes, next, reply.data);
  },
  decode(bytes, at, end) {
    need('cip.reply', at, end, 4);
    expect('cip.replyBit', at, REPLY_BIT, u8(bytes, at) & REPLY_BIT);
    const words = u8(bytes, at + 3);
    need('cip.additional', at + 4, end, words * 2);
    const additional = Array.from({ length: words }, (_, i) => le16(bytes, at + 4 + 2 * i));
    return {
      value: {
        service: u8(bytes, at) & 0x7f,
        status: u8(bytes, at + 2),
        additional,
        data: bytes.subarray(at + 4 + words * 2, end),
      },
      next: end,
    };
  },
};

/** General status codes a pinning may meet (from memory, names as in tshark's dissector). */
export const CIP_STATUS: Readonly<Record<number, string>> = {
  0x00: 'success',
  0x05: 'path destination unknown',
  0x08: 'service not supported',
  0x09: 'invalid attribute value',
  0x0c: 'object state conflict',
  0x0e: 'attribute not settable',
  0x0f: 'privilege violation',
  0x10: 'device state conflict',
  0x13: 'not enough data',
  0x14: 'attribute not supported',
  0x15: 'too much data',
  0x16: 'object does not exist',
};
