import type { Ipv4, MacAddress } from '../../net';
import {
  expect,
  need,
  put16,
  put32,
  putBytes,
  putMac,
  readIpv4,
  readMac,
  u16,
  u32,
  u8,
  type Codec,
} from '../codec';
import {
  decodeOptions,
  encodeOptions,
  findOption,
  OPTION,
  optionsLength,
  type RawOption,
} from './options';

/** RFC 2132 §9.6, in the order of their numbers from 1. */
export const MESSAGE_TYPES = [
  'DISCOVER',
  'OFFER',
  'REQUEST',
  'DECLINE',
  'ACK',
  'NAK',
  'RELEASE',
  'INFORM',
] as const;

export type MessageType = (typeof MESSAGE_TYPES)[number];

export const messageTypeCode = (type: MessageType): number => MESSAGE_TYPES.indexOf(type) + 1;

/** A BOOTP message (RFC 951 §3), with DHCP's options where it has the cookie (RFC 2131 §2). */
export interface DhcpMessage {
  readonly operation: 'request' | 'reply';
  readonly hops: number;
  /** Transaction id, 32 bits. */
  readonly transaction: number;
  /** Seconds since the client began. */
  readonly seconds: number;
  /** Bit 0x8000 asks for a broadcast reply (RFC 1542 §3.1.1). */
  readonly flags: number;
  readonly clientAddress: Ipv4;
  readonly yourAddress: Ipv4;
  readonly serverAddress: Ipv4;
  readonly relayAddress: Ipv4;
  readonly clientMac: MacAddress;
  /** 64 bytes, no more; all zero where option 52 used them up. */
  readonly serverName: Uint8Array;
  /** 128 bytes, no more; all zero where option 52 used them up. */
  readonly bootFile: Uint8Array;
  /** Undefined where the magic cookie is missing: then `vendor` holds the whole field. */
  readonly options: readonly RawOption[] | undefined;
  readonly vendor: Uint8Array;
}

export const BROADCAST_FLAG = 0x8000;
const COOKIE = 0x63825363;
const FIXED = 236;
/** RFC 1542 §2.1: a BOOTP message is at least 300 bytes long. */
const MINIMUM_MESSAGE = 300;
const NONE = new Uint8Array(0);

const bodyLength = (message: DhcpMessage): number =>
  message.options ? 4 + optionsLength(message.options) : message.vendor.length;

/** Messages for Ethernet MACs. Encoding pads to 300 bytes. */
export const dhcpMessage: Codec<DhcpMessage> = {
  length: (message) => Math.max(MINIMUM_MESSAGE, FIXED + bodyLength(message)),
  encode(message, bytes, at) {
    bytes[at] = message.operation === 'request' ? 1 : 2;
    bytes[at + 1] = 1;
    bytes[at + 2] = 6;
    bytes[at + 3] = message.hops;
    put32(bytes, at + 4, message.transaction);
    put16(bytes, at + 8, message.seconds);
    put16(bytes, at + 10, message.flags);
    put32(bytes, at + 12, message.clientAddress);
    put32(bytes, at + 16, message.yourAddress);
    put32(bytes, at + 20, message.serverAddress);
    put32(bytes, at + 24, message.relayAddress);
    putMac(bytes, at + 28, message.clientMac);
    bytes.fill(0, at + 34, at + FIXED);
    if (message.serverName !== EMPTY_NAME) putBytes(bytes, at + 44, message.serverName);
    if (message.bootFile !== EMPTY_FILE) putBytes(bytes, at + 108, message.bootFile);
    const end = message.options
      ? encodeOptions(message.options, bytes, put32(bytes, at + FIXED, COOKIE))
      : putBytes(bytes, at + FIXED, message.vendor);
    const next = Math.max(at + MINIMUM_MESSAGE, end);
    bytes.fill(0, end, next);
    return next;
  },
  decode(bytes, at, end) {
    need('dhcp.fixed', at, end, FIXED);
    const operation = u8(bytes, at);
    if (operation !== 1) expect('dhcp.operation', at, 2, operation);
    expect('dhcp.hardware', at + 1, 1, u8(bytes, at + 1));
    expect('dhcp.macLength', at + 2, 6, u8(bytes, at + 2));
    const hasCookie = end - at >= FIXED + 4 && u32(bytes, at + FIXED) === COOKIE;
    const options: RawOption[] | undefined = hasCookie ? [] : undefined;
    if (options) decodeOptions(bytes, at + FIXED + 4, end, options);
    const overload = takeOverload(bytes, at, options);
    return {
      value: {
        operation: operation === 1 ? 'request' : 'reply',
        hops: u8(bytes, at + 3),
        transaction: u32(bytes, at + 4),
        seconds: u16(bytes, at + 8),
        flags: u16(bytes, at + 10),
        clientAddress: readIpv4(bytes, at + 12),
        yourAddress: readIpv4(bytes, at + 16),
        serverAddress: readIpv4(bytes, at + 20),
        relayAddress: readIpv4(bytes, at + 24),
        clientMac: readMac(bytes, at + 28),
        serverName: overload & 2 ? EMPTY_NAME : bytes.subarray(at + 44, at + 108),
        bootFile: overload & 1 ? EMPTY_FILE : bytes.subarray(at + 108, at + 236),
        options,
        vendor: options ? NONE : bytes.subarray(at + FIXED, end),
      },
      next: end,
    };
  },
};

const EMPTY_NAME = new Uint8Array(64);
const EMPTY_FILE = new Uint8Array(128);

/**
 * Joins what stands in the boot file field, then in the server name field (RFC 3396 §5's order), and
 * takes option 52 itself out: re-encoding lays the options in their own field.
 * @returns bit 1: the file field was used; bit 2: the name field was used
 */
function takeOverload(bytes: Uint8Array, at: number, options: RawOption[] | undefined): number {
  if (!options) return 0;
  const overload = findOption(options, OPTION.overload);
  if (overload === undefined || overload < 1 || overload > 3) return 0;
  options.splice(
    options.findIndex((option) => option.code === OPTION.overload.code),
    1,
  );
  if (overload & 1) decodeOptions(bytes, at + 108, at + 236, options);
  if (overload & 2) decodeOptions(bytes, at + 44, at + 108, options);
  return overload;
}

/** A message type that is there, and none of those of RFC 2132 §9.6: nobody knows how to answer it. */
export type UnknownType = 'UNKNOWN';

/** The DHCP message type; undefined for plain BOOTP, which has no such option at all (RFC 1534 §2). */
export function messageTypeOf(message: DhcpMessage): MessageType | UnknownType | undefined {
  const options = message.options ?? [];
  if (!options.some(({ code }) => code === OPTION.messageType.code)) return undefined;
  return MESSAGE_TYPES[(findOption(options, OPTION.messageType) ?? 0) - 1] ?? 'UNKNOWN';
}

/** `BootP` or the DHCP message type, as a person would say it. */
export const kindOfMessage = (message: DhcpMessage): string =>
  messageTypeOf(message) ?? (message.operation === 'request' ? 'BootP request' : 'BootP reply');

/** A message with zeros for what is not named. */
export const dhcpMessageOf = (
  fields: Pick<DhcpMessage, 'operation' | 'transaction' | 'clientMac'> & Partial<DhcpMessage>,
): DhcpMessage => ({
  hops: 0,
  seconds: 0,
  flags: 0,
  clientAddress: 0 as Ipv4,
  yourAddress: 0 as Ipv4,
  serverAddress: 0 as Ipv4,
  relayAddress: 0 as Ipv4,
  serverName: EMPTY_NAME,
  bootFile: EMPTY_FILE,
  options: undefined,
  vendor: NONE,
  ...fields,
});

export const DHCP_PORT = { server: 67, client: 68 } as const;
