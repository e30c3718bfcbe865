import { ok, refuse, type Result } from '../net';

const MAX_DHCP_BYTES = 255;

/** The bytes of a text as UTF-8 has them (RFC 3629 §3), counted without making them. */
function utf8Length(text: string): number {
  let bytes = 0;
  for (const letter of text) {
    const code = letter.codePointAt(0) ?? 0;
    bytes += code < 0x80 ? 1 : code < 0x800 ? 2 : code < 0x10000 ? 3 : 4;
  }
  return bytes;
}

/**
 * R-DHCP-NAME: a name as a device sends it in option 12 or 61 (RFC 2132 §3.14, §9.14): any bytes,
 * 1–255 of them, compared exactly. It need not be a legal host name.
 */
export function parseDhcpName(text: string): Result<string> {
  if (text === '') return refuse('dhcpName.empty', text);
  const have = utf8Length(text);
  return have > MAX_DHCP_BYTES ? refuse('dhcpName.length', text, { have }) : ok(text);
}

/**
 * R-VARIABLE: an identifier of a controller's project (IEC 61131-3, from memory): a letter or an
 * underscore first, then letters, digits, single underscores, none at the end.
 * @param most the longest that the controller's kind takes
 */
export function parseVariable(text: string, most = 128): Result<string> {
  if (text === '') return refuse('variable.empty', text);
  const letter = /[^A-Za-z0-9_]/.exec(text)?.[0];
  if (letter !== undefined) return refuse('variable.letter', letter, { text });
  if (/^[0-9]/.test(text)) return refuse('variable.digit', text);
  if (/__/.test(text) || text.endsWith('_')) return refuse('variable.underscore', text);
  if (text.length > most) return refuse('variable.length', text, { have: text.length, most });
  return ok(text);
}
