import type { Ipv4 } from '../../net';
import {
  cutBytes,
  DecodeError,
  fromLatin1,
  need,
  putBytes,
  put16,
  put32,
  readIpv4,
  toLatin1,
  u16,
  u32,
  u8,
} from '../codec';

/** An option as it stands on the wire: parts of a split option joined (RFC 3396 §5). */
export interface RawOption {
  readonly code: number;
  readonly data: Uint8Array;
}

/** The meaning of one option's data: RFC 2132 unless another source is named. */
export interface OptionCodec<T> {
  readonly code: number;
  readonly name: string;
  encode(value: T): Uint8Array;
  /** @throws DecodeError where the data has not the length the option demands */
  decode(data: Uint8Array): T;
}

function exactly(name: string, data: Uint8Array, length: number): void {
  if (data.length !== length) throw new DecodeError(`option.${name}`, 0, length, data.length);
}

const address = (code: number, name: string): OptionCodec<Ipv4> => ({
  code,
  name,
  encode(value) {
    const data = new Uint8Array(4);
    put32(data, 0, value);
    return data;
  },
  decode(data) {
    exactly(name, data, 4);
    return readIpv4(data, 0);
  },
});

const addresses = (code: number, name: string): OptionCodec<readonly Ipv4[]> => ({
  code,
  name,
  encode(value) {
    const data = new Uint8Array(4 * value.length);
    value.forEach((item, index) => put32(data, 4 * index, item));
    return data;
  },
  decode(data) {
    if (data.length === 0 || data.length % 4 !== 0)
      throw new DecodeError(`option.${name}`, 0, 4, data.length);
    return Array.from({ length: data.length / 4 }, (_, index) => readIpv4(data, 4 * index));
  },
});

const seconds = (code: number, name: string): OptionCodec<number> => ({
  code,
  name,
  encode(value) {
    const data = new Uint8Array(4);
    put32(data, 0, value);
    return data;
  },
  decode(data) {
    exactly(name, data, 4);
    return u32(data, 0);
  },
});

const text = (code: number, name: string): OptionCodec<string> => ({
  code,
  name,
  encode: fromLatin1,
  // Some clients end the text with a NUL although RFC 2132 §2 says they should not.
  decode: (data) => toLatin1(data).replace(/\0+$/, ''),
});

const bytes = (code: number, name: string): OptionCodec<Uint8Array> => ({
  code,
  name,
  encode: (value) => value,
  decode: (data) => data,
});

const byte = (code: number, name: string): OptionCodec<number> => ({
  code,
  name,
  encode: (value) => Uint8Array.of(value),
  decode(data) {
    exactly(name, data, 1);
    return u8(data, 0);
  },
});

const word = (code: number, name: string): OptionCodec<number> => ({
  code,
  name,
  encode(value) {
    const data = new Uint8Array(2);
    put16(data, 0, value);
    return data;
  },
  decode(data) {
    need(`option.${name}`, 0, data.length, 2);
    return u16(data, 0);
  },
});

/** Every option Ipsonomo reads or writes by meaning; all others are kept as bytes. */
export const OPTION = {
  subnetMask: address(1, 'subnet mask'),
  routers: addresses(3, 'routers'),
  nameServers: addresses(6, 'name servers'),
  hostName: text(12, 'host name'),
  domainName: text(15, 'domain name'),
  broadcastAddress: address(28, 'broadcast address'),
  requestedAddress: address(50, 'requested address'),
  leaseTime: seconds(51, 'lease time'),
  overload: byte(52, 'overload'),
  messageType: byte(53, 'message type'),
  serverId: address(54, 'server identifier'),
  parameterList: bytes(55, 'parameter list'),
  message: text(56, 'message'),
  maximumSize: word(57, 'maximum message size'),
  renewalTime: seconds(58, 'renewal time'),
  rebindingTime: seconds(59, 'rebinding time'),
  vendorClass: text(60, 'vendor class'),
  clientId: bytes(61, 'client identifier'), // echoed: RFC 6842 §3
  relayInformation: bytes(82, 'relay information'), // RFC 3046
} as const;

const byCode = new Map<number, OptionCodec<unknown>>(
  Object.values(OPTION).map((codec) => [codec.code, codec as OptionCodec<unknown>]),
);

/** The name of an option; `option 43` where Ipsonomo knows it only as bytes. */
export const optionName = (code: number): string => byCode.get(code)?.name ?? `option ${code}`;

export const rawOption = <T>(codec: OptionCodec<T>, value: T): RawOption => ({
  code: codec.code,
  data: codec.encode(value),
});

/** The value of an option, undefined where it is absent or its data is malformed. */
export function findOption<T>(options: readonly RawOption[], codec: OptionCodec<T>): T | undefined {
  const raw = options.find((option) => option.code === codec.code);
  if (!raw) return undefined;
  try {
    return codec.decode(raw.data);
  } catch (error) {
    if (error instanceof DecodeError) return undefined;
    throw error;
  }
}

const PAD = 0;
const END = 255;

/** Bytes the options take, split into parts of at most 255 (RFC 3396 §6), the end mark included. */
export const optionsLength = (options: readonly RawOption[]): number =>
  options.reduce(
    (sum, { data }) => sum + data.length + 2 * Math.max(1, Math.ceil(data.length / 255)),
    1,
  );

export function encodeOptions(options: readonly RawOption[], out: Uint8Array, at: number): number {
  let next = at;
  for (const { code, data } of options) {
    let from = 0;
    do {
      const length = Math.min(255, data.length - from);
      out[next] = code;
      out[next + 1] = length;
      next = putBytes(
        out,
        next + 2,
        length === data.length ? data : data.subarray(from, from + length),
      );
      from += 255;
    } while (from < data.length);
  }
  out[next] = END;
  return next + 1;
}

/**
 * Reads one options field into `into`, joining parts of the same code in the order they come.
 * A missing end mark is accepted: clients that fill the field to its last byte leave it out.
 * @throws DecodeError `dhcp.option` where an option reaches beyond the field
 */
export function decodeOptions(field: Uint8Array, at: number, end: number, into: RawOption[]): void {
  let next = at;
  while (next < end) {
    const code = u8(field, next);
    if (code === END) return;
    if (code === PAD) {
      next += 1;
      continue;
    }
    need('dhcp.option', next, end, 2);
    const length = u8(field, next + 1);
    need('dhcp.option', next + 2, end, length);
    append(into, code, cutBytes(field, next + 2, next + 2 + length));
    next += 2 + length;
  }
}

function append(into: RawOption[], code: number, data: Uint8Array): void {
  let index = into.length - 1;
  while (index >= 0 && into[index]?.code !== code) index -= 1;
  const known = into[index];
  if (!known) {
    into.push({ code, data });
    return;
  }
  const joined = new Uint8Array(known.data.length + data.length);
  joined.set(known.data);
  joined.set(data, known.data.length);
  into[index] = { code, data: joined };
}
