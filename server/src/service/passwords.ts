import { timingSafeEqual } from 'node:crypto';
import { dictionary } from '@zxcvbn-ts/language-common';
import { argon2id, hash, verify } from 'argon2';
import { PASSWORD } from '@ipsonomo/core/api';
import { Turns } from '@ipsonomo/threads';
import { Refusal } from '../store/refusal';

/** What OWASP asks for at least (Password Storage Cheat Sheet: 19 MiB, two passes, one lane); in threads of libuv. */
const STRENGTH = { type: argon2id, memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const;

/** As every keyboard sends it (NFKC: NIST SP 800-63B, 5.1.1.2), spaces and all. */
const plain = (password: string): string => password.normalize('NFKC');

const small = (text: string): string => text.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');

/**
 * What people used and others know, from lists of passwords that were stolen (OWASP ASVS 2.1.7); capitals, signs between
 * and figures behind make it no other.
 */
let known: ReadonlySet<string> | undefined;
function isKnown(password: string): boolean {
  known ??= new Set(dictionary.passwords.map(small));
  const word = small(password);
  return known.has(word) || known.has(word.replace(/\d+$/, ''));
}

/** Few different characters, or a word that everybody tries first and hardly more. */
function isPlain(password: string, name: string): boolean {
  if (isKnown(password)) return true;
  const word = small(password);
  const tried = [small(name), 'ipsonomo'].filter((one) => one !== '' && word.includes(one));
  const isTried = tried.some((one) => word.replaceAll(one, '').length < 4);
  return new Set(password).size < 5 || isTried;
}

/** Refuses with `people.password` or `people.plainPassword`. */
export function checkPassword(password: string, name: string): void {
  const length = [...plain(password)].length;
  const { least, most } = PASSWORD;
  if (length < least || length > most) throw Refusal.of('people.password', '', { least, most });
  if (isPlain(plain(password), name)) throw Refusal.of('people.plainPassword', '');
}

/** One after the other: each fills a thread that files are read in too, and a crew may come in at once. */
const turns = new Turns();

export const hashOf = (password: string): Promise<string> =>
  turns.take(() => hash(plain(password), STRENGTH));

/** What nobody has is looked at for as long as what somebody has: the time tells no stranger who is here. */
let nobody: Promise<string> | undefined;

/** @param stored undefined where there is no such account, or it has no password */
export async function isPassword(password: string, stored: string | undefined): Promise<boolean> {
  const length = Buffer.byteLength(password);
  if (length > PASSWORD.most * 4) return false;
  nobody ??= hashOf('a password that nobody has');
  const against = stored ?? (await nobody);
  const fits = await turns.take(() => verify(against, plain(password)));
  // Both are looked at, whichever is wrong.
  return timingSafeEqual(
    Buffer.from([fits ? 1 : 0, stored === undefined ? 0 : 1]),
    Buffer.from([1, 1]),
  );
}
