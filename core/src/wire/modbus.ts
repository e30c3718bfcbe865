import { expect, fromLatin1, need, put16, putBytes, toLatin1, u16, u8, type Codec } from './codec';

export const MODBUS_PORT = 502;

/** One message over TCP: a head of seven bytes, then the PDU (Modbus Messaging on TCP/IP V1.0b §3.1.3). */
interface ModbusMessage {
  /** Echoed by the server. */
  readonly transaction: number;
  /** The device behind a gateway; 255 or 0 where there is none. */
  readonly unit: number;
  /** Function code and its data. */
  readonly pdu: Uint8Array;
}

const HEAD = 7;
/** A PDU has at most 253 bytes (Modbus Application Protocol V1.1b3 §4.1). */
const MOST_PDU = 253;

export const modbusMessage: Codec<ModbusMessage> = {
  length: ({ pdu }) => HEAD + pdu.length,
  encode({ transaction, unit, pdu }, bytes, at) {
    put16(bytes, at, transaction);
    put16(bytes, at + 2, 0);
    put16(bytes, at + 4, 1 + pdu.length);
    bytes[at + 6] = unit;
    return putBytes(bytes, at + HEAD, pdu);
  },
  decode(bytes, at, end) {
    need('modbus.head', at, end, HEAD);
    expect('modbus.protocol', at + 2, 0, u16(bytes, at + 2));
    const length = u16(bytes, at + 4) - 1;
    need('modbus.noPdu', at + 4, at + 4 + length, 1);
    need('modbus.longPdu', at + 4, at + 4 + MOST_PDU, length);
    need('modbus.pdu', at + HEAD, end, length);
    const next = at + HEAD + length;
    const pdu = bytes.subarray(at + HEAD, next);
    return { value: { transaction: u16(bytes, at), unit: u8(bytes, at + 6), pdu }, next };
  },
};

/** How many bytes the message that starts here needs; undefined while its head is incomplete. */
export const modbusSize = (bytes: Uint8Array): number | undefined =>
  bytes.length < HEAD ? undefined : HEAD - 1 + Math.max(1, u16(bytes, 4));

/** Function codes that only read (Modbus Application Protocol V1.1b3 §6). */
const MODBUS_FUNCTION = { holding: 0x03, input: 0x04, encapsulated: 0x2b } as const;

/** MEI type of Read Device Identification (§6.21). */
const IDENTIFICATION = 0x0e;
const EXCEPTION_BIT = 0x80;
const MORE = 0xff;

/** What is asked of a device. */
export type ModbusRequest =
  | {
      readonly kind: 'registers';
      readonly area: 'holding' | 'input';
      /** Counted from 0. */
      readonly start: number;
      /** 1 to 125. */
      readonly count: number;
    }
  /** Read Device Identification: the basic objects (`code` 1) from `object` on. */
  | { readonly kind: 'identification'; readonly code: number; readonly object: number };

export const modbusRequest: Codec<ModbusRequest> = {
  length: ({ kind }) => (kind === 'registers' ? 5 : 4),
  encode(request, bytes, at) {
    if (request.kind === 'identification') {
      const { code, object } = request;
      return putBytes(
        bytes,
        at,
        Uint8Array.of(MODBUS_FUNCTION.encapsulated, IDENTIFICATION, code, object),
      );
    }
    bytes[at] = MODBUS_FUNCTION[request.area];
    return put16(bytes, put16(bytes, at + 1, request.start), request.count);
  },
  decode(bytes, at, end) {
    need('modbus.request', at, end, 4);
    if (u8(bytes, at) === MODBUS_FUNCTION.encapsulated) {
      expect('modbus.mei', at + 1, IDENTIFICATION, u8(bytes, at + 1));
      const asked = { code: u8(bytes, at + 2), object: u8(bytes, at + 3) };
      return { value: { kind: 'identification', ...asked }, next: at + 4 };
    }
    const area = u8(bytes, at) === MODBUS_FUNCTION.input ? 'input' : 'holding';
    expect('modbus.function', at, MODBUS_FUNCTION[area], u8(bytes, at));
    need('modbus.registers', at, end, 5);
    const asked = { start: u16(bytes, at + 1), count: u16(bytes, at + 3) };
    return { value: { kind: 'registers', area, ...asked }, next: at + 5 };
  },
};

/** One object of a device identification: 0 maker, 1 product code, 2 revision (§6.21, table 3). */
interface ModbusObject {
  readonly id: number;
  readonly text: string;
}

export const MODBUS_OBJECT = { maker: 0, product: 1, revision: 2 } as const;

/** What a device answers. */
export type ModbusReply =
  | {
      readonly kind: 'registers';
      readonly area: 'holding' | 'input';
      readonly values: readonly number[];
    }
  | {
      readonly kind: 'identification';
      readonly code: number;
      readonly level: number;
      /** There is more: ask again from this object on. */
      readonly next: number | undefined;
      readonly objects: readonly ModbusObject[];
    }
  | { readonly kind: 'exception'; readonly function: number; readonly code: number };

type Identification = Extract<ModbusReply, { kind: 'identification' }>;

export const modbusReply: Codec<ModbusReply> = {
  length(reply) {
    if (reply.kind === 'exception') return 2;
    if (reply.kind === 'registers') return 2 + 2 * reply.values.length;
    return reply.objects.reduce((sum, { text }) => sum + 2 + text.length, 7);
  },
  encode(reply, bytes, at) {
    if (reply.kind === 'exception')
      return putBytes(bytes, at, Uint8Array.of(reply.function | EXCEPTION_BIT, reply.code));
    if (reply.kind === 'identification') return putIdentification(reply, bytes, at);
    bytes[at] = MODBUS_FUNCTION[reply.area];
    bytes[at + 1] = 2 * reply.values.length;
    return reply.values.reduce((next, value) => put16(bytes, next, value), at + 2);
  },
  decode(bytes, at, end) {
    need('modbus.reply', at, end, 2);
    const code = u8(bytes, at);
    if ((code & EXCEPTION_BIT) !== 0) {
      const said = { function: code & ~EXCEPTION_BIT, code: u8(bytes, at + 1) };
      return { value: { kind: 'exception', ...said }, next: at + 2 };
    }
    if (code === MODBUS_FUNCTION.encapsulated) return readIdentification(bytes, at, end);
    const area = code === MODBUS_FUNCTION.input ? 'input' : 'holding';
    expect('modbus.function', at, MODBUS_FUNCTION[area], code);
    const length = u8(bytes, at + 1);
    expect('modbus.oddLength', at + 1, 0, length % 2);
    need('modbus.values', at + 2, end, length);
    const values = Array.from({ length: length / 2 }, (_, i) => u16(bytes, at + 2 + 2 * i));
    return { value: { kind: 'registers', area, values }, next: at + 2 + length };
  },
};

function putIdentification(reply: Identification, bytes: Uint8Array, at: number): number {
  const { code, level, next: more, objects } = reply;
  const head = [MODBUS_FUNCTION.encapsulated, IDENTIFICATION, code, level];
  let next = putBytes(
    bytes,
    at,
    Uint8Array.of(...head, more === undefined ? 0 : MORE, more ?? 0, objects.length),
  );
  for (const { id, text } of objects) {
    bytes[next] = id;
    bytes[next + 1] = text.length;
    next = putBytes(bytes, next + 2, fromLatin1(text));
  }
  return next;
}

function readIdentification(bytes: Uint8Array, at: number, end: number) {
  need('modbus.identification', at, end, 7);
  expect('modbus.mei', at + 1, IDENTIFICATION, u8(bytes, at + 1));
  const more = u8(bytes, at + 4) === MORE ? u8(bytes, at + 5) : undefined;
  const objects: ModbusObject[] = [];
  let next = at + 7;
  for (let left = u8(bytes, at + 6); left > 0; left -= 1) {
    need('modbus.object', next, end, 2);
    const length = u8(bytes, next + 1);
    need('modbus.objectText', next + 2, end, length);
    const text = toLatin1(bytes.subarray(next + 2, next + 2 + length));
    objects.push({ id: u8(bytes, next), text });
    next += 2 + length;
  }
  const value: ModbusReply = {
    ...{ kind: 'identification', code: u8(bytes, at + 2), level: u8(bytes, at + 3) },
    ...{ next: more, objects },
  };
  return { value, next };
}
