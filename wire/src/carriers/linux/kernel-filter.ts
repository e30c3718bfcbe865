/** A classic BPF instruction: code, jump if true, jump if false, operand. */
type Instruction = readonly [code: number, ifTrue: number, ifFalse: number, operand: number];

const LDW = 0x20; // a word; above 0xfffff000 one that the kernel knows of the frame
const AND = 0x54;
const LDH = 0x28; // half word at a fixed offset
const LDB = 0x30;
const LDX_HEADER = 0xb1; // X = 4 × (low nibble of the byte): the IPv4 header's length
const LDH_X = 0x48; // half word at X + offset
const JEQ = 0x15;
const JGE = 0x35;
const JSET = 0x45;
const RETURN = 0x06;
/** linux/filter.h, SKF_AD_OFF + SKF_AD_VLAN_TAG: the kernel takes a frame's tag off before we see it. */
const VLAN_TAG = 0xfffff000 + 44;

/**
 * What the kernel hands us of all frames on the adapter: ARP, layer-2 discovery, what switches say of
 * themselves (LLDP; frames with a length for a type, as the spanning tree's are), ICMP, and UDP to the BootP/DHCP
 * ports (fragments of later packets excepted). Everything else never wakes us.
 *
 * Frames of a VLAN other than the adapter's own are left out: an answer would go out without the
 * tag, into another network. A tag of VLAN 0 carries only a priority.
 */
const PROGRAM: readonly Instruction[] = [
  [LDW, 0, 0, VLAN_TAG],
  [AND, 0, 0, 0x0fff],
  [JEQ, 0, 16, 0],
  [LDH, 0, 0, 12],
  [JEQ, 13, 0, 0x0806],
  [JEQ, 12, 0, 0x8892],
  [JEQ, 11, 0, 0x88cc],
  [JGE, 0, 10, 0x0600],
  [JEQ, 0, 10, 0x0800],
  [LDB, 0, 0, 23],
  [JEQ, 7, 0, 1],
  [JEQ, 0, 7, 17],
  [LDH, 0, 0, 20],
  [JSET, 5, 0, 0x1fff],
  [LDX_HEADER, 0, 0, 14],
  [LDH_X, 0, 0, 16],
  [JEQ, 1, 0, 67],
  [JEQ, 0, 1, 68],
  [RETURN, 0, 0, 0xffff],
  [RETURN, 0, 0, 0],
];

/** What our own words need; `everything` leaves nothing out. */
export const kernelFilter = (everything = false): Buffer =>
  assemble(everything ? [[RETURN, 0, 0, 0xffff]] : PROGRAM);

/** The first bytes of frames with the tag of another VLAN than the adapter's own, and nothing else. */
export const taggedFilter = (bytes: number): Buffer =>
  assemble([
    [LDW, 0, 0, VLAN_TAG],
    [AND, 0, 0, 0x0fff],
    [JEQ, 1, 0, 0],
    [RETURN, 0, 0, bytes],
    [RETURN, 0, 0, 0],
  ]);

/** A program as an array of `struct sock_filter`, little-endian. */
function assemble(program: readonly Instruction[]): Buffer {
  const bytes = Buffer.alloc(program.length * 8);
  program.forEach(([code, ifTrue, ifFalse, operand], i) => {
    bytes.writeUInt16LE(code, i * 8);
    bytes.writeUInt8(ifTrue, i * 8 + 2);
    bytes.writeUInt8(ifFalse, i * 8 + 3);
    bytes.writeUInt32LE(operand, i * 8 + 4);
  });
  return bytes;
}
