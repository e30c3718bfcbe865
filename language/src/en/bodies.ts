import type { IssueFacts, Misfit, Unread } from '@ipsonomo/core/net';

/** What is asked of a value that does not fit its place, or what it has too many of. */
export function misfitWords(facts: Misfit): string {
  switch (facts.misfit) {
    case 'integer':
      return `must be a whole number from ${facts.least} to ${facts.most}`;
    case 'too-long':
      return `has ${facts.have} characters; ${facts.most} is the most`;
    case 'too-many':
      return `has ${facts.have} entries; ${facts.most} is the most`;
    case 'choice':
      return `must be one of: ${facts.options}`;
    case 'control':
      return `has a character that cannot be written (${facts.sign}) at place ${facts.place}`;
    case 'half-character':
      return `has half a character (${facts.sign}) at place ${facts.place}`;
    default:
      return MISFITS[facts.misfit];
  }
}

const MISFITS = {
  text: 'must be a text',
  id: 'must be an id: letters, digits, . _ : -, at most 80',
  'sha-256': 'must be a SHA-256: 64 hex digits in small letters',
  base64: 'must be base64',
  boolean: 'must be true or false',
  list: 'must be a list',
  object: 'must be an object',
  unknown: 'is no field of this',
  missing: 'is missing',
};

const UNREAD: Readonly<Record<Unread, string>> = {
  address: 'has a % that stands for nothing',
  body: 'cannot be read',
  'not-json': 'is not JSON',
  packing: 'is packed in a way that is not known here',
  'packed-wrongly': 'is not packed as it says',
  'character-set': 'is written in a character set that is not known here',
  'broken-off': 'was broken off',
  length: 'is not as long as it says',
  parts: 'has too many parts',
  'other-site': 'is another site',
};

/** What is wrong with what was sent. */
export const bodyWords = (facts: IssueFacts['body.invalid']): string =>
  'misfit' in facts ? misfitWords(facts) : 'unread' in facts ? UNREAD[facts.unread] : facts.why;
