import { SaxesParser, type SaxesTagPlain } from 'saxes';
import { MOST_UNREAD, type Unread, type UnreadWhy, type XmlElement } from '@ipsonomo/core/describe';
import { fail, ok, refuse, type Issue, type Result } from '@ipsonomo/core/net';
import { decodeText } from '../common/decode-text';

/** So deep may elements stand in one another; a description needs about ten. */
const MOST_DEEP = 64;
const MOST_ELEMENTS = 500_000;

export interface XmlFile {
  readonly root: XmlElement;
  readonly unread: readonly Unread[];
}

interface Open extends XmlElement {
  readonly children: Open[];
}

/**
 * Reads XML to its elements (XML 1.0). Nothing is fetched and nothing of the file's own making is put
 * in: a DOCTYPE with its entities is passed over and told. What is broken is told with its line and the
 * rest is read; what was never closed ends where the file ends.
 * @returns refusals `file.deep`, `file.crowded` and, where there is no element at all, `file.xml`
 */
export function readXml(name: string, bytes: Uint8Array): Result<XmlFile, Issue> {
  const reader = new XmlReader();
  const text = decodeXml(bytes);
  for (let at = 0; at < text.length && !reader.stopped; at += PIECE)
    reader.write(text.slice(at, at + PIECE));
  return reader.end(name);
}

const PIECE = 64 * 1024;

interface PlainTags {
  readonly xmlns: false;
}

class XmlReader {
  stopped: 'file.deep' | 'file.crowded' | undefined;
  private readonly parser = new SaxesParser<PlainTags>({ xmlns: false });
  private readonly unread: Unread[] = [];
  private readonly open: Open[] = [];
  private root: Open | undefined;
  private count = 0;

  constructor() {
    this.parser.on('error', ({ message }) =>
      this.tell('', {
        code: 'broken-xml',
        detail: message.replace(/^\d+:\d+: /, '').replace(/\.$/, ''),
      }),
    );
    this.parser.on('doctype', () => this.tell('<!DOCTYPE', { code: 'doctype' }));
    this.parser.on('opentag', (tag) => this.begin(tag));
    this.parser.on('closetag', () => this.open.pop());
  }

  write(text: string): void {
    this.parser.write(text);
  }

  end(name: string): Result<XmlFile, Issue> {
    if (this.stopped === 'file.crowded') return refuse(this.stopped, name);
    if (this.stopped) return refuse(this.stopped, name, { most: MOST_DEEP });
    this.parser.close();
    if (!this.root)
      return fail({ code: 'file.xml', where: name, facts: { why: this.firstFault() } });
    return ok({ root: this.root, unread: this.unread });
  }

  /** The XML reader's own words. */
  private firstFault(): string {
    const why = this.unread.find((one) => one.why.code === 'broken-xml')?.why;
    return why && 'detail' in why ? why.detail : '';
  }

  private begin({ name, attributes }: SaxesTagPlain): void {
    if (this.stopped) return;
    this.count += 1;
    if (this.open.length >= MOST_DEEP) this.stopped = 'file.deep';
    if (this.count > MOST_ELEMENTS) this.stopped = 'file.crowded';
    const element: Open = {
      ...{ name: name.slice(name.indexOf(':') + 1), line: this.parser.line },
      ...{ attributes, children: [] },
    };
    this.open.at(-1)?.children.push(element);
    this.root ??= element;
    this.open.push(element);
  }

  private tell(text: string, why: UnreadWhy): void {
    if (this.unread.length < MOST_UNREAD)
      this.unread.push({ line: this.parser.line, text: text.slice(0, 80), why });
  }
}

/** By the byte order mark or what the declaration says (XML 1.0, appendix F); else as any text. */
function decodeXml(bytes: Uint8Array): string {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, 200));
  const label = /^(?:\u00ef\u00bb\u00bf)?<\?xml[^>]*encoding\s*=\s*["']([\w.:-]+)["']/.exec(
    head,
  )?.[1];
  if (label === undefined || /^utf-?8$/i.test(label))
    return decodeText(bytes).replace(/^\uFEFF/, '');
  try {
    return new TextDecoder(label).decode(bytes);
  } catch {
    return decodeText(bytes);
  }
}
