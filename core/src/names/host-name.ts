import { ok, refuse, type Result } from '../net';

declare const hostNameBrand: unique symbol;

/** A host name that RFC 952 and RFC 1123 §2.1 allow, lower case. */
type HostName = string & { readonly [hostNameBrand]: true };

const MAX_LABEL = 63;
const MAX_NAME = 253;

/** One label that begins with a letter, as nearly every name in a plan: right at a glance. */
const PLAIN = /^[a-z](?:[a-z0-9-]{0,61}[a-z0-9])?$/;

/**
 * R-HOST-NAME: labels of 1–63 letters, digits and hyphens between dots, no hyphen at a label's
 * ends, 253 in all (RFC 1035 §2.3.4, RFC 1123 §2.1). Capital letters are accepted and made small,
 * since names compare without case (RFC 1035 §2.3.3).
 * @returns refusals `name.empty`, `name.length`, `name.space`, `name.label`, `name.letter`,
 * `name.hyphen`, `name.numeric`; `where` is the label or letter that is wrong.
 */
export function parseHostName(text: string): Result<HostName> {
  if (PLAIN.test(text)) return ok(text as HostName);
  if (text === '') return refuse('name.empty', text);
  if (/\s/.test(text)) return refuse('name.space', text);
  if (text.length > MAX_NAME) return refuse('name.length', text, { have: text.length });
  for (const label of text.split('.')) {
    if (label.length < 1 || label.length > MAX_LABEL)
      return refuse('name.label', text, { have: label.length });
    const letter = /[^a-z0-9-]/i.exec(label)?.[0];
    if (letter !== undefined) return refuse('name.letter', letter, { text });
    if (label.startsWith('-') || label.endsWith('-')) return refuse('name.hyphen', label);
  }
  // RFC 1123 §2.1: what looks like an address is read as an address.
  if (/^[0-9.]+$/.test(text)) return refuse('name.numeric', text);
  return ok(text.toLowerCase() as HostName);
}
