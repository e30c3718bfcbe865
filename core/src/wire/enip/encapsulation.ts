import { need, putBytes, type Codec } from '../codec';
import { le16, le32, putLe16, putLe32 } from '../little';

/** Commands of the encapsulation protocol (from memory, confirmed with tshark's dissector). */
export const ENIP_COMMAND = {
  listIdentity: 0x0063,
  registerSession: 0x0065,
  unregisterSession: 0x0066,
  sendRrData: 0x006f,
} as const;

export const ENIP_PORT = 44818;

/** One message of the encapsulation protocol: a head of 24 bytes and its data. */
export interface Encapsulation {
  readonly command: number;
  readonly session: number;
  readonly status: number;
  /** Eight bytes that the target echoes. */
  readonly context: Uint8Array;
  readonly data: Uint8Array;
}

const HEAD = 24;

export const encapsulation: Codec<Encapsulation> = {
  length: (message) => HEAD + message.data.length,
  encode(message, bytes, at) {
    putLe16(bytes, at, message.command);
    putLe16(bytes, at + 2, message.data.length);
    putLe32(bytes, at + 4, message.session);
    putLe32(bytes, at + 8, message.status);
    bytes.fill(0, at + 12, at + HEAD);
    putBytes(bytes, at + 12, message.context.subarray(0, 8));
    return putBytes(bytes, at + HEAD, message.data);
  },
  decode(bytes, at, end) {
    need('enip.head', at, end, HEAD);
    const length = le16(bytes, at + 2);
    need('enip.data', at + HEAD, end, length);
    return {
      value: {
        command: le16(bytes, at),
        session: le32(bytes, at + 4),
        status: le32(bytes, at + 8),
        context: bytes.subarray(at + 12, at + 20),
        data: bytes.subarray(at + HEAD, at + HEAD + length),
      },
      next: at + HEAD + length,
    };
  },
};

/** How many bytes the message that starts here needs; undefined while its head is incomplete. */
export const encapsulationSize = (bytes: Uint8Array): number | undefined =>
  bytes.length < 4 ? undefined : HEAD + le16(bytes, 2);

/** One item of the common packet format. */
interface PacketItem {
  readonly type: number;
  readonly data: Uint8Array;
}

export const ITEM = { nullAddress: 0x0000, identity: 0x000c, unconnectedData: 0x00b2 } as const;

/** The item list of the common packet format: a count, then type, length and data of each. */
export const packetItems: Codec<readonly PacketItem[]> = {
  length: (items) => items.reduce((sum, item) => sum + 4 + item.data.length, 2),
  encode(items, bytes, at) {
    let next = putLe16(bytes, at, items.length);
    for (const item of items) {
      next = putLe16(bytes, next, item.type);
      next = putLe16(bytes, next, item.data.length);
      next = putBytes(bytes, next, item.data);
    }
    return next;
  },
  decode(bytes, at, end) {
    need('enip.items', at, end, 2);
    const items: PacketItem[] = [];
    let next = at + 2;
    for (let left = le16(bytes, at); left > 0; left -= 1) {
      need('enip.item', next, end, 4);
      const length = le16(bytes, next + 2);
      need('enip.itemData', next + 4, end, length);
      const data = bytes.subarray(next + 4, next + 4 + length);
      items.push({ type: le16(bytes, next), data });
      next += 4 + length;
    }
    return { value: items, next };
  },
};

/** The data of SendRRData: interface handle 0, a timeout in seconds, and one unconnected message. */
export const unconnected: Codec<{ readonly timeout: number; readonly message: Uint8Array }> = {
  length: ({ message }) => 6 + packetItems.length(itemsFor(message)),
  encode({ timeout, message }, bytes, at) {
    putLe32(bytes, at, 0);
    putLe16(bytes, at + 4, timeout);
    return packetItems.encode(itemsFor(message), bytes, at + 6);
  },
  decode(bytes, at, end) {
    need('enip.unconnected', at, end, 6);
    const items = packetItems.decode(bytes, at + 6, end);
    const message = items.value.find((item) => item.type === ITEM.unconnectedData);
    need('enip.unconnectedItem', items.next, items.next, message ? 0 : 1);
    const timeout = le16(bytes, at + 4);
    return { value: { timeout, message: message?.data ?? new Uint8Array(0) }, next: items.next };
  },
};

const itemsFor = (message: Uint8Array): readonly PacketItem[] => [
  { type: ITEM.nullAddress, data: new Uint8Array(0) },
  { type: ITEM.unconnectedData, data: message },
];
