import { closeSync } from 'node:fs';
import { withTag } from '@ipsonomo/core/wire';
import { taggedFilter } from './kernel-filter';
import { libc, pointerTo } from './libc';
import { openPacketSocket } from './packet-socket';

const MSG_DONTWAIT = 0x40;
const SOL_PACKET = 263;
const PACKET_AUXDATA = 8;
/** linux/if_packet.h: the kernel took a tag off this frame, and here it is. */
const TP_STATUS_VLAN_VALID = 1 << 4;

/** More than a few frames say no more about which VLANs there are. */
const BUFFER = 64 * 1024;
const MOST = 64;
const FRAME = 128;
/** struct cmsghdr, 64 bit: length, level, type, then the data. */
const CONTROL_HEAD = 16;
const CONTROL = 64;

/**
 * Hears frames of other VLANs than the adapter's own, a few of them whenever somebody looks: they tell which
 * network the socket belongs to, and are never answered. The kernel takes the tag off a frame and hands it
 * over beside it (packet(7), PACKET_AUXDATA).
 */
export class TaggedEars {
  private readonly fd: number;
  private readonly bytes = Buffer.alloc(FRAME);
  private readonly control = Buffer.alloc(CONTROL);
  private readonly message: Buffer;
  private readonly part: Buffer;

  /** Refuses as `openPacketSocket` does. */
  constructor(adapter: string) {
    this.fd = openPacketSocket(adapter, taggedFilter(FRAME), BUFFER);
    this.part = Buffer.alloc(16);
    this.part.writeBigUInt64LE(pointerTo(this.bytes), 0);
    this.part.writeBigUInt64LE(BigInt(FRAME), 8);
    this.message = Buffer.alloc(56);
    this.message.writeBigUInt64LE(pointerTo(this.part), 16);
    this.message.writeBigUInt64LE(1n, 24);
    this.message.writeBigUInt64LE(pointerTo(this.control), 32);
  }

  /** The heads of what waits, each with its tag where it stood on the wire. */
  *take(): Iterable<Uint8Array> {
    for (let taken = 0; taken < MOST; taken += 1) {
      this.message.writeBigUInt64LE(BigInt(CONTROL), 40);
      const count = libc().recvmsg(this.fd, this.message, MSG_DONTWAIT);
      if (count <= 0) return;
      const tag = this.tag();
      if (tag !== undefined) yield withTag(this.bytes.subarray(0, Math.min(count, FRAME)), tag);
    }
  }

  close(): void {
    closeSync(this.fd);
  }

  /** The control information of the tag, from `struct tpacket_auxdata`. */
  private tag(): number | undefined {
    const { control } = this;
    if (control.readInt32LE(8) !== SOL_PACKET || control.readInt32LE(12) !== PACKET_AUXDATA)
      return undefined;
    const isTagged = (control.readUInt32LE(CONTROL_HEAD) & TP_STATUS_VLAN_VALID) !== 0;
    return isTagged ? control.readUInt16LE(CONTROL_HEAD + 16) : undefined;
  }
}
