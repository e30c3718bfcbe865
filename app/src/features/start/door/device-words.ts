import { DOOR_WORDS } from '@ipsonomo/language/screens/door';

/** What a browser says it is (RFC 9110 §10.1.5), as far as a person would tell it: system and browser. */
export function deviceWords(agent: string): string {
  const system = SYSTEMS.find(([mark]) => agent.includes(mark))?.[1];
  const browser = BROWSERS.find(([mark]) => agent.includes(mark))?.[1];
  return [browser, system].filter(Boolean).join(' on ') || DOOR_WORDS.aBrowserThatDoesNotSay;
}

// The more particular first: all of them call themselves by the names of others as well.
const SYSTEMS = [
  ['iPhone', DOOR_WORDS.aPhoneIos],
  ['iPad', DOOR_WORDS.aTabletIpados],
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
