import QRCode from 'qrcode';

/** The dark modules of a QR code (ISO/IEC 18004), row by row, without the quiet zone. */
export function qrOf(text: string): { readonly size: number; readonly dark: readonly boolean[] } {
  const { size, data } = QRCode.create(text, { errorCorrectionLevel: 'M' }).modules;
  return { size, dark: Array.from(data, Boolean) };
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
