/** What a browser says it is (RFC 9110 §10.1.5), as far as a person would tell it: system and browser. */
export function deviceWords(agent: string): string {
  const system = SYSTEMS.find(([mark]) => agent.includes(mark))?.[1];
  const browser = BROWSERS.find(([mark]) => agent.includes(mark))?.[1];
  return [browser, system].filter(Boolean).join(' on ') || 'a browser that does not say what it is';
}

// The more particular first: all of them call themselves by the names of others as well.
const SYSTEMS = [
  ['iPhone', 'a phone (iOS)'],
  ['iPad', 'a tablet (iPadOS)'],
  ['Android', 'Android'],
  ['Windows', 'Windows'],
  ['Macintosh', 'macOS'],
  ['Linux', 'Linux'],
] as const;
const BROWSERS = [
  ['Firefox/', 'Firefox'],
  ['Edg/', 'Edge'],
  ['Chrome/', 'Chromium'],
  ['Safari/', 'Safari'],
] as const;
