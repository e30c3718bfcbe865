import { inflateSync } from 'node:zlib';

// A font as a web page has it (W3C WOFF 1.0 §3–5), unpacked to a plain one (ISO/IEC 14496-22 §4.5).

/**
 * How letters are moved together or become one. A list sets them one after the other, as `widthOf` counts them, and
 * looking for pairs is most of the work of setting a line.
 */
const NOT_NEEDED: ReadonlySet<string> = new Set(['GSUB', 'GPOS', 'GDEF', 'kern']);

interface Table {
  readonly tag: string;
  readonly checksum: number;
  readonly bytes: Buffer;
}

const HEADER = 44;
const ENTRY = 20;

function tablesOf(woff: Buffer): readonly Table[] {
  return Array.from({ length: woff.readUInt16BE(12) }, (_, index) => {
    const at = HEADER + index * ENTRY;
    const offset = woff.readUInt32BE(at + 4);
    const packed = woff.subarray(offset, offset + woff.readUInt32BE(at + 8));
    const length = woff.readUInt32BE(at + 12);
    return {
      tag: woff.toString('latin1', at, at + 4),
      checksum: woff.readUInt32BE(at + 16),
      // What would not become smaller is as it was.
      bytes: packed.length === length ? packed : inflateSync(packed),
    };
  }).filter(({ tag }) => !NOT_NEEDED.has(tag));
}

/** @throws Error where it is no WOFF 1.0 */
export function sfntOf(woff: Buffer): Buffer {
  if (woff.toString('latin1', 0, 4) !== 'wOFF') throw new Error('this font is no WOFF 1.0');
  const tables = tablesOf(woff);
  const head = Buffer.alloc(12 + tables.length * 16);
  const power = Math.floor(Math.log2(tables.length));
  head.writeUInt32BE(woff.readUInt32BE(4), 0);
  head.writeUInt16BE(tables.length, 4);
  head.writeUInt16BE(2 ** power * 16, 6);
  head.writeUInt16BE(power, 8);
  head.writeUInt16BE(tables.length * 16 - 2 ** power * 16, 10);
  const parts = [head];
  let offset = head.length;
  tables.forEach(({ tag, checksum, bytes }, index) => {
    const at = 12 + index * 16;
    head.write(tag, at, 'latin1');
    head.writeUInt32BE(checksum, at + 4);
    head.writeUInt32BE(offset, at + 8);
    head.writeUInt32BE(bytes.length, at + 12);
    const padded = Buffer.concat([bytes, Buffer.alloc(-bytes.length & 3)]);
    parts.push(padded);
    offset += padded.length;
  });
  return Buffer.concat(parts);
}
