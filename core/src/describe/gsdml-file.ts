import { MOST_UNREAD, type Unread, type UnreadWhy } from './description';
import { below, within, type XmlElement } from './xml';

/** A GSDML file with its texts and what its references lead to; collects what cannot be read. */
export class GsdmlFile {
  readonly unread: Unread[] = [];
  private readonly told = new Set<string>();
  private readonly texts = new Map<string, string>();
  private readonly byId = new Map<string, XmlElement>();

  constructor(readonly root: XmlElement) {
    for (const type of ['ModuleItem', 'SubmoduleItem'])
      for (const one of within(root, type)) this.note(type, one);
    const [language] = within(root, 'PrimaryLanguage');
    for (const text of below(language, 'Text')) {
      const { TextId = '', Value = '' } = text.attributes;
      if (!this.texts.has(TextId)) this.texts.set(TextId, Value.trim());
      else this.tell(text, `TextId="${TextId}"`, { code: 'twice' });
    }
  }

  private note(type: string, one: XmlElement): void {
    const { ID } = one.attributes;
    if (ID === undefined) return this.tell(one, type, { code: 'no-id' });
    const key = `${type}|${ID}`;
    if (this.byId.has(key)) this.tell(one, `${type} "${ID}"`, { code: 'twice' });
    else this.byId.set(key, one);
  }

  tell({ line }: XmlElement, text: string, why: UnreadWhy): void {
    const key = `${line}|${text}|${why.code}`;
    // A module that fits two access points is read twice.
    if (this.told.has(key)) return;
    this.told.add(key);
    if (this.unread.length < MOST_UNREAD) this.unread.push({ line, text: text.slice(0, 80), why });
  }

  /** What a reference leads to; where it leads nowhere, that is told. */
  named(type: 'ModuleItem' | 'SubmoduleItem', ref: XmlElement, by: string): XmlElement | undefined {
    const target = ref.attributes[by] ?? '';
    const found = this.byId.get(`${type}|${target}`);
    if (!found) this.tell(ref, `${by}="${target}"`, { code: 'names-nothing' });
    return found;
  }

  /** A text of the primary language. */
  text(id: string | undefined): string | undefined {
    const text = id === undefined ? undefined : this.texts.get(id);
    return text === '' ? undefined : text;
  }

  /** The name that a module or an access point gives itself. */
  nameOf(item: XmlElement): string | undefined {
    const [name] = below(item, 'ModuleInfo', 'Name');
    const text = this.text(name?.attributes['TextId']);
    if (name && text === undefined)
      this.tell(name, `TextId="${name.attributes['TextId'] ?? ''}"`, {
        code: 'names-no-text',
      });
    return text;
  }

  /** A whole number, decimal or as `0x…`; undefined where there is none, told where it is not one. */
  whole(item: XmlElement, attribute: string, most: number): number | undefined {
    const text = item.attributes[attribute]?.trim();
    if (text === undefined || text === '') return undefined;
    const value = /^(0x[0-9a-f]+|\d+)$/i.test(text) ? Number(text) : NaN;
    if (Number.isInteger(value) && value <= most) return value;
    this.tell(item, `${attribute}="${text}"`, { code: 'no-number', most });
    return undefined;
  }
}
