import { MOST_UNREAD, type Unread, type UnreadWhy } from './description';

export interface EdsEntry {
  /** As it was written. */
  readonly key: string;
  readonly line: number;
  readonly values: readonly string[];
}

/** Sections and entries by their names in small letters. */
export type EdsSections = ReadonlyMap<string, ReadonlyMap<string, EdsEntry>>;

const LONGEST = 80;

/**
 * Takes a data sheet apart: `[Section]`, then `Key = value, "text", …;`. A `$` begins a comment outside
 * of quotes, texts side by side are one, an entry may go on over lines. An entry whose end is missing
 * ends where the next one begins; a section that comes twice goes on where it was.
 */
export function readSections(text: string): {
  readonly sections: EdsSections;
  readonly unread: readonly Unread[];
} {
  const reader = new EdsReader();
  let line = 0;
  for (const raw of text.replace(/^\uFEFF/, '').split(/\r\n|\r|\n/)) reader.take(raw, (line += 1));
  reader.endEntry(line, true);
  return { sections: reader.sections, unread: reader.unread };
}

class EdsReader {
  readonly sections = new Map<string, Map<string, EdsEntry>>();
  readonly unread: Unread[] = [];
  private section: Map<string, EdsEntry> | undefined;
  private open: { readonly key: string; readonly line: number; text: string } | undefined;

  take(raw: string, line: number): void {
    const text = withoutComment(raw).trim();
    if (text === '') return;
    const head = /^\[\s*([^\]]+?)\s*\]$/.exec(text);
    if (head) {
      this.endEntry(line, true);
      this.begin(head[1] ?? '', line);
      return;
    }
    const inText = this.open !== undefined && isInText(this.open.text);
    for (const piece of piecesOf(text, inText)) this.takePiece(piece, line);
  }

  private takePiece(text: string, line: number): void {
    const entry = /^([A-Za-z_][\w ]*?)\s*=(.*)$/s.exec(text);
    if (entry && (!this.open || !isInText(this.open.text))) {
      this.endEntry(line, true);
      this.open = { key: entry[1] ?? '', line, text: entry[2] ?? '' };
    } else if (this.open) this.open.text += ` ${text}`;
    else this.tell(line, text, { code: 'no-entry' });
    if (this.open && isComplete(this.open.text)) this.endEntry(line, false);
  }

  endEntry(_line: number, isCut: boolean): void {
    const { open } = this;
    this.open = undefined;
    if (!open) return;
    if (isCut) this.tell(open.line, open.key, { code: 'no-end' });
    if (!this.section) return this.tell(open.line, open.key, { code: 'no-section' });
    const key = open.key.toLowerCase().replace(/\s+/g, '');
    if (this.section.has(key)) return this.tell(open.line, open.key, { code: 'twice' });
    const values = valuesOf(open.text.trim().replace(/;$/, ''));
    this.section.set(key, { key: open.key, line: open.line, values });
  }

  private begin(name: string, line: number): void {
    const key = name.toLowerCase().replace(/\s+/g, ' ');
    this.section = this.sections.get(key);
    if (this.section) this.tell(line, `[${name}]`, { code: 'section-twice' });
    else this.sections.set(key, (this.section = new Map()));
  }

  private tell(line: number, text: string, why: UnreadWhy): void {
    if (this.unread.length < MOST_UNREAD)
      this.unread.push({ line, text: text.slice(0, LONGEST), why });
  }
}

/** A line may end one entry and begin the next. */
function piecesOf(text: string, startsInText: boolean): readonly string[] {
  const pieces: string[] = [];
  let from = 0;
  let inText = startsInText;
  for (let at = 0; at < text.length; at += 1) {
    if (inText && text[at] === '\\') at += 1;
    else if (text[at] === '"') inText = !inText;
    else if (text[at] === ';' && !inText) {
      pieces.push(text.slice(from, at + 1).trim());
      from = at + 1;
    }
  }
  const rest = text.slice(from).trim();
  return rest === '' ? pieces : [...pieces, rest];
}

/** Is the end within a quoted text? Within one, a backslash takes the letter after it as it is. */
const isInText = (text: string): boolean => {
  let inText = false;
  for (let at = 0; at < text.length; at += 1) {
    if (inText && text[at] === '\\') at += 1;
    else if (text[at] === '"') inText = !inText;
  }
  return inText;
};

const isComplete = (text: string): boolean => text.trimEnd().endsWith(';') && !isInText(text);

function withoutComment(line: string): string {
  const at = line.indexOf('$');
  if (at < 0) return line;
  let inText = false;
  for (let i = 0; i < line.length; i += 1) {
    if (inText && line[i] === '\\') i += 1;
    else if (line[i] === '"') inText = !inText;
    else if (line[i] === '$' && !inText) return line.slice(0, i);
  }
  return line;
}

/** What a backslash in a text makes of the letter after it. */
const ESCAPES: Readonly<Record<string, string>> = { '"': '"', '\\': '\\', n: ' ', t: ' ' };

/** Values between commas; texts in quotes without them, several side by side as one. */
function valuesOf(text: string): readonly string[] {
  const values: string[] = [];
  let value = '';
  let inText = false;
  let isText = false;
  let isEscaped = false;
  for (const letter of text) {
    if (isEscaped) {
      value += ESCAPES[letter] ?? `\\${letter}`;
      isEscaped = false;
    } else if (inText && letter === '\\') isEscaped = true;
    else if (letter === '"') {
      if (!isText) value = value.trim();
      inText = !inText;
      isText = true;
    } else if (letter === ',' && !inText) {
      values.push(isText ? value : value.trim());
      value = '';
      isText = false;
    } else if (inText || !isText || letter.trim() !== '') value += letter;
  }
  values.push(isText ? value : value.trim());
  return values;
}
