import QRCode from 'qrcode';

interface Code {
  readonly size: number;
  /** 1 where it is dark. */
  readonly dark: Uint8Array;
}

/**
 * The mask that lies over the modules; a code says itself which it is. To try all eight and weigh what comes of each
 * (ISO/IEC 18004 §7.8.3) takes three quarters of the time, for addresses that look like noise under any of them.
 */
const MASK = 3;

/** A label's code stands on its card too: those of a few thousand devices are kept. */
const codes = new Map<string, Code>();
const MOST_CODES = 5000;

/** The dark modules of a QR code (ISO/IEC 18004), row by row, without the quiet zone. */
export function qrOf(text: string): Code {
  const known = codes.get(text);
  if (known) return known;
  // Bytes as they are: what is saved by switching between alphabets costs more than it is worth.
  const bytes = [{ data: Buffer.from(text), mode: 'byte' as const }];
  const { size, data } = QRCode.create(bytes, {
    ...{ errorCorrectionLevel: 'M', maskPattern: MASK },
  }).modules;
  const code = { size, dark: Uint8Array.from(data) };
  if (codes.size >= MOST_CODES) codes.clear();
  codes.set(text, code);
  return code;
}

/** Modules of quiet around a code (ISO/IEC 18004 §5.3.8). */
export const QUIET = 4;

/** Each run of dark modules of a row, in modules. */
export function qrRuns(text: string): {
  readonly size: number;
  readonly runs: readonly { readonly x: number; readonly y: number; readonly length: number }[];
} {
  const { size, dark } = qrOf(text);
  const runs = Array.from({ length: size }, (_, y) => {
    const row: { x: number; y: number; length: number }[] = [];
    for (let x = 0; x < size; x += 1) {
      if (!dark[y * size + x]) continue;
      const last = row.at(-1);
      if (last && last.x + last.length === x) last.length += 1;
      else row.push({ x, y, length: 1 });
    }
    return row;
  }).flat();
  return { size, runs };
}

/** Its rows as bits, 1 where it is dark, each row from a byte of its own on. */
export function qrRows(text: string): { readonly size: number; readonly rows: Buffer } {
  const { size, dark } = qrOf(text);
  const wide = Math.ceil(size / 8);
  const rows = Buffer.alloc(wide * size);
  dark.forEach((isDark, at) => {
    const [x, y] = [at % size, Math.floor(at / size)];
    const byte = y * wide + (x >> 3);
    if (isDark) rows[byte] = (rows[byte] ?? 0) | (0x80 >> (x & 7));
  });
  return { size, rows };
}
