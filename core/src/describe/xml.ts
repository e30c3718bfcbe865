/** An element of an XML file, already taken apart; texts between elements are not kept. */
export interface XmlElement {
  /** Without its namespace. */
  readonly name: string;
  /** Where it begins, counted from 1. */
  readonly line: number;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly XmlElement[];
}

/** The children of these names, one below the other: `below(body, 'ModuleList', 'ModuleItem')`. */
export function below(from: XmlElement | undefined, ...names: readonly string[]): XmlElement[] {
  let found = from ? [from] : [];
  for (const name of names)
    found = found.flatMap(({ children }) => children.filter((one) => one.name === name));
  return found;
}

/** Every element of this name, however deep. */
export function within(from: XmlElement, name: string): XmlElement[] {
  const found: XmlElement[] = [];
  const open: XmlElement[] = [from];
  for (let one = open.pop(); one; one = open.pop()) {
    if (one.name === name) found.push(one);
    for (let at = one.children.length - 1; at >= 0; at -= 1) {
      const child = one.children[at];
      if (child) open.push(child);
    }
  }
  return found;
}
