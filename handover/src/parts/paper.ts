import PDFDocument from 'pdfkit';
import { moved, LINE, type Drawing, type Op } from './drawing';
import { linesOf, piecesOf, widthOf, type Face } from './fonts';
import { qrRows } from './qr';

/** Points of PDF in a millimetre (ISO 32000-1 §8.3.2.3: 72 to an inch of 25.4 mm). */
const MM = 72 / 25.4;

export const A4: readonly [number, number] = [210, 297];
const MARGIN = 15;
const LEADING = 1.35;

interface About {
  readonly title: string;
  /** In milliseconds since 1970. */
  readonly at: number;
  readonly page?: readonly [number, number];
  /** Stands at the foot of every page, beside its number. */
  readonly foot?: string;
}

/**
 * A code as an inline image of a bit a module (ISO 32000-1 §8.9.7): a page of labels stays small, and no hair shows
 * between modules. The page counts downwards, an image upwards.
 */
function imageOf({ x, y, side, text }: Extract<Op, { kind: 'qr' }>): string {
  const { size, rows } = qrRows(text);
  const place = [side, 0, 0, -side, x, y + side].map((length) => (length * MM).toFixed(3));
  const image = `/W ${size} /H ${size} /IM true /D [1 0] /F /AHx`;
  return `q 0 g ${place.join(' ')} cm BI ${image} ID ${rows.toString('hex')}> EI Q`;
}

/**
 * A PDF, page by page, in millimetres. Text is text: it can be found and copied, in the application's own fonts, of
 * which only the letters that occur go into the file.
 */
export class Paper {
  private readonly document: PDFKit.PDFDocument;
  private readonly chunks: Buffer[] = [];
  private readonly registered = new Set<string>();
  private readonly whole: Promise<Uint8Array>;
  private readonly page: readonly [number, number];
  private pages = 0;
  /** Where the next line goes. */
  y = MARGIN;
  /** Letters that the fonts have not, since somebody last cleared them. */
  readonly missing = new Set<string>();

  constructor(private readonly about: About) {
    this.page = about.page ?? A4;
    const date = new Date(about.at);
    this.document = new PDFDocument({
      ...{ autoFirstPage: false, margin: 0, font: undefined as unknown as string },
      info: { Title: about.title, Producer: 'Ipsonomo', Creator: 'Ipsonomo', CreationDate: date },
      ...{ lang: 'en', displayTitle: true },
    });
    this.whole = new Promise((resolve, reject) => {
      this.document.on('data', (chunk: Buffer) => this.chunks.push(chunk));
      this.document.on('end', () => resolve(new Uint8Array(Buffer.concat(this.chunks))));
      this.document.on('error', reject);
    });
  }

  get width(): number {
    return this.page[0] - 2 * MARGIN;
  }

  newPage(): void {
    this.document.addPage({ size: [this.page[0] * MM, this.page[1] * MM], margin: 0 });
    this.pages += 1;
    this.y = MARGIN;
    const { foot } = this.about;
    if (foot === undefined) return;
    const at = this.page[1] - MARGIN / 2;
    this.draw({ kind: 'text', x: MARGIN, y: at, size: 2.8, face: 'sans', text: foot });
    const number = String(this.pages);
    this.draw({
      kind: 'text',
      x: this.page[0] - MARGIN,
      y: at,
      size: 2.8,
      face: 'sans',
      text: number,
    });
  }

  /** A new page where so much has no room on this one. */
  need(height: number): void {
    if (this.pages === 0 || this.y + height > this.page[1] - MARGIN) this.newPage();
  }

  /** Lines of text below what stands there; wrapped. @param free so much of the line stays empty */
  words(
    words: string,
    size = 3.6,
    face: Face = 'sans',
    { left = 0, right = 0 }: { readonly left?: number; readonly right?: number } = {},
  ): void {
    for (const line of linesOf(words, face, size, this.width - left - right)) {
      const height = size * LEADING;
      this.need(height);
      this.draw({ kind: 'text', x: MARGIN + left, y: this.y + size, size, face, text: line });
      this.y += height;
    }
  }

  space(height = 3): void {
    this.y += height;
  }

  rule(): void {
    this.need(1);
    this.draw({ kind: 'line', from: [MARGIN, this.y], to: [MARGIN + this.width, this.y] });
    this.y += 1.5;
  }

  /** Cells beside each other, each wrapped in its own width; the line is as high as its highest cell. */
  row(cells: readonly string[], shares: readonly number[], size = 2.9, face: Face = 'sans'): void {
    const sum = shares.reduce((all, one) => all + one, 0);
    const widths = shares.map((share) => (share / sum) * this.width);
    const lines = cells.map((cell, at) => linesOf(cell, face, size, (widths[at] ?? 10) - 1.5));
    const height = Math.max(1, ...lines.map(({ length }) => length)) * size * LEADING + 1;
    this.need(height);
    let x = MARGIN;
    lines.forEach((cell, at) => {
      cell.forEach((text, line) => {
        const y = this.y + size + line * size * LEADING;
        this.draw({ kind: 'text', x, y, size, face, text });
      });
      x += widths[at] ?? 0;
    });
    this.y += height;
  }

  /** A drawing below what stands there. */
  drawing({ ops, height }: Drawing, left = 0): void {
    this.need(height);
    for (const op of ops) this.draw(moved(op, MARGIN + left, this.y));
    this.y += height;
  }

  /** Drawn where it says. */
  draw(op: Op): void {
    const { document } = this;
    switch (op.kind) {
      case 'text':
        return this.letters(op);
      case 'rect':
        document.rect(op.x * MM, op.y * MM, op.width * MM, op.height * MM);
        return this.paint(op.isFilled);
      case 'circle':
        document.circle(op.x * MM, op.y * MM, op.radius * MM);
        return this.paint(op.isFilled);
      case 'line':
        document.moveTo(op.from[0] * MM, op.from[1] * MM).lineTo(op.to[0] * MM, op.to[1] * MM);
        return this.paint(false, op.thick);
      case 'qr':
        return void document.addContent(imageOf(op));
    }
  }

  async end(): Promise<Uint8Array> {
    if (this.pages === 0) this.newPage();
    this.document.end();
    return this.whole;
  }

  private paint(isFilled: boolean, thick = LINE): void {
    // Black is the colour that a page begins with (ISO 32000-1 §8.4.1).
    if (isFilled) this.document.fill();
    else this.document.lineWidth(thick * MM).stroke();
  }

  private letters({ x, y, size, face, text }: Extract<Op, { kind: 'text' }>): void {
    let at = x * MM;
    const points = size * MM;
    for (const { file, bytes, text: piece } of piecesOf(text, face, (one) =>
      this.missing.add(one),
    )) {
      if (!this.registered.has(file)) {
        this.document.registerFont(file, bytes);
        this.registered.add(file);
      }
      this.document.font(file).fontSize(points);
      const textWidth = widthOf(piece, face, points);
      // Said, it is not measured again.
      const known = { textWidth, wordCount: 1 };
      this.document.text(piece, at, y * MM, { lineBreak: false, baseline: 'alphabetic', ...known });
      at += textWidth;
    }
  }
}
