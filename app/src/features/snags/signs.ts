import type { Severity } from '@ipsonomo/core/snags';

/** Each severity has a sign as well as a colour. */
export const SIGNS: Readonly<Record<Severity, string>> = { wrong: '×', doubtful: '!', hint: '·' };
