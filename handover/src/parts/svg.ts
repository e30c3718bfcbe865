import { LINE, type Drawing, type Op } from './drawing';
import { piecesOf } from './fonts';
import { qrRuns } from './qr';

// A drawing as SVG 1.1. Letters are outlines of the fonts, so that it looks the same on a machine that lacks them; what
// they say stands in its title.

/** @param title what it says, for whoever does not see it */
export function svgOf({ width, height, ops }: Drawing, title: string): string {
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ${height}">`,
    `<title>${escaped(title)}</title>`,
    `<rect width="${width}" height="${height}" fill="#fff"/>`,
    ...ops.map(elementOf),
    '</svg>',
    '',
  ].join('\n');
}

/** As text of XML; what XML cannot hold is left out. */
export const escaped = (words: string): string =>
  words
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '')
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;');

const short = (value: number): string => String(Math.round(value * 1000) / 1000);

function elementOf(op: Op): string {
  switch (op.kind) {
    case 'text':
      return outlines(op);
    case 'rect': {
      const { x, y, width, height } = op;
      return `<rect x="${short(x)}" y="${short(y)}" width="${short(width)}" height="${short(height)}" ${lookOf(op.isFilled)}/>`;
    }
    case 'circle':
      return `<circle cx="${short(op.x)}" cy="${short(op.y)}" r="${short(op.radius)}" ${lookOf(op.isFilled)}/>`;
    case 'line': {
      const [[x1, y1], [x2, y2]] = [op.from, op.to];
      return `<path d="M${short(x1)} ${short(y1)}L${short(x2)} ${short(y2)}" stroke="#000" stroke-width="${op.thick ?? LINE}"/>`;
    }
    case 'qr': {
      const { size, runs } = qrRuns(op.text);
      const path = runs.map(({ x, y, length }) => `M${x} ${y}h${length}v1h-${length}z`).join('');
      const scale = op.side / size;
      return `<path transform="translate(${short(op.x)} ${short(op.y)}) scale(${scale})" d="${path}" shape-rendering="crispEdges"/>`;
    }
  }
}

const lookOf = (isFilled: boolean): string =>
  isFilled ? 'fill="#000"' : `fill="none" stroke="#000" stroke-width="${LINE}"`;

/** Outlines by font and glyph: a sheet of labels has the same few. */
const paths = new Map<object, Map<number, string>>();

function pathOf(
  font: object,
  glyph: { readonly id: number; readonly path: { toSVG(): string } },
): string {
  const known = paths.get(font) ?? new Map<number, string>();
  paths.set(font, known);
  const path = known.get(glyph.id) ?? glyph.path.toSVG();
  known.set(glyph.id, path);
  return path;
}

function outlines({ x, y, size, face, text }: Extract<Op, { kind: 'text' }>): string {
  let at = x;
  const paths: string[] = [];
  for (const { font, text: piece } of piecesOf(text, face)) {
    const scale = size / font.unitsPerEm;
    const run = font.layout(piece);
    run.glyphs.forEach((glyph, index) => {
      const path = pathOf(font, glyph);
      if (path !== '')
        paths.push(
          `<path transform="translate(${short(at)} ${short(y)}) scale(${scale} ${-scale})" d="${path}"/>`,
        );
      at += (run.positions[index]?.xAdvance ?? 0) * scale;
    });
  }
  return paths.join('');
}
