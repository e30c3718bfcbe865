import {
  checksumAdd,
  checksumFold,
  DecodeError,
  need,
  put16,
  putBytes,
  u16,
  u8,
  type Codec,
} from './codec';

/** An ICMP message (RFC 792): echo with its numbers, anything else as bytes. */
export type IcmpMessage =
  | {
      readonly kind: 'echo-request' | 'echo-reply';
      readonly identifier: number;
      readonly sequence: number;
      readonly data: Uint8Array;
    }
  | {
      readonly kind: 'other';
      readonly type: number;
      readonly code: number;
      /** Everything after the checksum. */
      readonly data: Uint8Array;
    };

const ECHO_REPLY = 0;
const ECHO_REQUEST = 8;

export const icmp: Codec<IcmpMessage> = {
  length: (message) => (message.kind === 'other' ? 4 : 8) + message.data.length,
  encode(message, bytes, at) {
    let body = at + 4;
    if (message.kind === 'other') {
      bytes[at] = message.type;
      bytes[at + 1] = message.code;
    } else {
      bytes[at] = message.kind === 'echo-request' ? ECHO_REQUEST : ECHO_REPLY;
      bytes[at + 1] = 0;
      put16(bytes, at + 4, message.identifier);
      body = put16(bytes, at + 6, message.sequence);
    }
    put16(bytes, at + 2, 0);
    const next = putBytes(bytes, body, message.data);
    put16(bytes, at + 2, checksumFold(checksumAdd(bytes, at, next)));
    return next;
  },
  decode(bytes, at, end) {
    need('icmp.header', at, end, 4);
    const sum = checksumFold(checksumAdd(bytes, at, end));
    if (sum !== 0) throw new DecodeError('icmp.checksum', at + 2, 0, sum);
    const type = u8(bytes, at);
    const code = u8(bytes, at + 1);
    if ((type !== ECHO_REQUEST && type !== ECHO_REPLY) || code !== 0)
      return { value: { kind: 'other', type, code, data: bytes.subarray(at + 4, end) }, next: end };
    need('icmp.echo', at, end, 8);
    return {
      value: {
        kind: type === ECHO_REQUEST ? 'echo-request' : 'echo-reply',
        identifier: u16(bytes, at + 4),
        sequence: u16(bytes, at + 6),
        data: bytes.subarray(at + 8, end),
      },
      next: end,
    };
  },
};
