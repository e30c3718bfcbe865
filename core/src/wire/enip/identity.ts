import type { Ipv4 } from '../../net';
import {
  fromLatin1,
  need,
  put16,
  put32,
  putBytes,
  readIpv4,
  toLatin1,
  u8,
  type Codec,
} from '../codec';
import { ENIP_PORT, ITEM, packetItems } from './encapsulation';
import { le16, le32, putLe16, putLe32 } from '../little';

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

/** How it stands with the connections that carry data; `owned`: a controller has it, and none of them is told of. */
export type ConnectionState = 'none' | 'owned' | 'idle' | 'running' | 'faulted';

const OWNED = 0x0001;
/** Bits 4–7 of the status that tell of connections: at least one is so (from memory). */
const TOLD: Readonly<Record<number, ConnectionState>> = { 2: 'faulted', 6: 'running', 7: 'idle' };

/** The state of the connections by the standard status word (CIP Vol. 1, 5-2.2.1.5; from memory). */
export const connectionStateOf = ({ status }: Pick<Identity, 'status'>): ConnectionState =>
  TOLD[(status >>> 4) & 0xf] ?? (status & OWNED ? 'owned' : 'none');

/** A controller owns the device, or a connection that carries data is open. */
export const isInUse = ({ status }: Pick<Identity, 'status'>): boolean =>
  (status & OWNED) !== 0 || ['idle', 'running'].includes(connectionStateOf({ status }));

/** The identity object: class 1, instance 1; asked for all of its attributes by service 1 (from memory, confirmed with tshark). */
export const IDENTITY_OBJECT = { classId: 1, instance: 1 } as const;

/** What the attributes of the identity object say. */
export type IdentityObject = Omit<Identity, 'address' | 'state'>;

const ATTRIBUTES = 15;

/** All attributes of the identity object, as one answer. */
export const identityObject: Codec<IdentityObject> = {
  length: ({ name }) => ATTRIBUTES + Math.min(name.length, 255),
  encode(identity, bytes, at) {
    putLe16(bytes, at, identity.vendor);
    putLe16(bytes, at + 2, identity.type);
    putLe16(bytes, at + 4, identity.product);
    bytes.set(identity.revision, at + 6);
    putLe16(bytes, at + 8, identity.status);
    putLe32(bytes, at + 10, identity.serial);
    const name = fromLatin1(identity.name.slice(0, 255));
    bytes[at + 14] = name.length;
    return putBytes(bytes, at + ATTRIBUTES, name);
  },
  decode(bytes, at, end) {
    need('enip.identity', at, end, ATTRIBUTES);
    const next = at + ATTRIBUTES + u8(bytes, at + 14);
    need('enip.identityName', at + ATTRIBUTES, end, next - at - ATTRIBUTES);
    return {
      value: {
        vendor: le16(bytes, at),
        type: le16(bytes, at + 2),
        product: le16(bytes, at + 4),
        revision: [u8(bytes, at + 6), u8(bytes, at + 7)],
        status: le16(bytes, at + 8),
        serial: le32(bytes, at + 10),
        name: toLatin1(bytes.subarray(at + ATTRIBUTES, next)),
      },
      next,
    };
  },
};

const VERSION = 1;
/** Version and socket address stand before the attributes, the state behind them. */
const BEFORE = 2 + 16;
const AF_INET = 2;

const body: Codec<Identity> = {
  length: (identity) => BEFORE + identityObject.length(identity) + 1,
  encode(identity, bytes, at) {
    putLe16(bytes, at, VERSION);
    // The socket address is the one part that is big-endian.
    bytes.fill(0, at + 2, at + BEFORE);
    bytes[at + 3] = AF_INET;
    put16(bytes, at + 4, ENIP_PORT);
    put32(bytes, at + 6, identity.address);
    const next = identityObject.encode(identity, bytes, at + BEFORE);
    bytes[next] = identity.state;
    return next + 1;
  },
  decode(bytes, at, end) {
    need('enip.socketAddress', at, end, BEFORE);
    const { value, next } = identityObject.decode(bytes, at + BEFORE, end);
    need('enip.state', next, end, 1);
    const address = readIpv4(bytes, at + 6);
    return { value: { ...value, address, state: u8(bytes, next) }, next: next + 1 };
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
