import type { Ipv4 } from '../../net';
import { fromLatin1, need, put16, put32, putBytes, readIpv4, toLatin1, type Codec } from '../codec';
import { ENIP_PORT, ITEM, packetItems } from './encapsulation';
import { le16, le32, putLe16, putLe32 } from './little';

/** What a device answers to ListIdentity (from memory, confirmed with tshark's dissector). */
export interface Identity {
  /** Where it says it is; its own word, and no proof. */
  readonly address: Ipv4;
  readonly vendor: number;
  readonly type: number;
  readonly product: number;
  readonly revision: readonly [major: number, minor: number];
  /** 16 bits; see `isInUse`. */
  readonly status: number;
  /** 32 bits. */
  readonly serial: number;
  readonly name: string;
  readonly state: number;
}

const OWNED = 0x0001;
/** Bits 4–7 of the status: connections that carry data, in run or in idle (from memory). */
const CONNECTED: readonly number[] = [6, 7];

/** A controller owns the device, or a connection that carries data is open. */
export const isInUse = ({ status }: Pick<Identity, 'status'>): boolean =>
  (status & OWNED) !== 0 || CONNECTED.includes((status >>> 4) & 0xf);

const VERSION = 1;
/** Version, socket address, then the identity up to the length of its name. */
const FIXED = 2 + 16 + 14 + 1;
const AF_INET = 2;

const body: Codec<Identity> = {
  length: ({ name }) => FIXED + Math.min(name.length, 255) + 1,
  encode(identity, bytes, at) {
    putLe16(bytes, at, VERSION);
    // The socket address is the one part that is big-endian.
    bytes.fill(0, at + 2, at + 18);
    bytes[at + 3] = AF_INET;
    put16(bytes, at + 4, ENIP_PORT);
    put32(bytes, at + 6, identity.address);
    putLe16(bytes, at + 18, identity.vendor);
    putLe16(bytes, at + 20, identity.type);
    putLe16(bytes, at + 22, identity.product);
    bytes.set(identity.revision, at + 24);
    putLe16(bytes, at + 26, identity.status);
    putLe32(bytes, at + 28, identity.serial);
    const name = fromLatin1(identity.name.slice(0, 255));
    bytes[at + 32] = name.length;
    const next = putBytes(bytes, at + FIXED, name);
    bytes[next] = identity.state;
    return next + 1;
  },
  decode(bytes, at, end) {
    need('enip.identity', at, end, FIXED);
    const length = bytes[at + 32] ?? 0;
    need('enip.identityName', at + FIXED, end, length + 1);
    const next = at + FIXED + length;
    return {
      value: {
        address: readIpv4(bytes, at + 6),
        vendor: le16(bytes, at + 18),
        type: le16(bytes, at + 20),
        product: le16(bytes, at + 22),
        revision: [bytes[at + 24] ?? 0, bytes[at + 25] ?? 0],
        status: le16(bytes, at + 26),
        serial: le32(bytes, at + 28),
        name: toLatin1(bytes.subarray(at + FIXED, next)),
        state: bytes[next] ?? 0,
      },
      next: next + 1,
    };
  },
};

/** The data of an answer to ListIdentity: one item. */
export const identityAnswer: Codec<Identity> = {
  length: (identity) => packetItems.length([itemOf(identity)]),
  encode: (identity, bytes, at) => packetItems.encode([itemOf(identity)], bytes, at),
  decode(bytes, at, end) {
    const items = packetItems.decode(bytes, at, end);
    const item = items.value.find(({ type }) => type === ITEM.identity);
    need('enip.identityItem', items.next, items.next, item ? 0 : 1);
    const data = item?.data ?? new Uint8Array(0);
    return { value: body.decode(data, 0, data.length).value, next: items.next };
  },
};

function itemOf(identity: Identity) {
  const data = new Uint8Array(body.length(identity));
  body.encode(identity, data, 0);
  return { type: ITEM.identity, data };
}
