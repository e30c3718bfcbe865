import type { CauseId } from '@ipsonomo/core/causes';
import * as causes from './en/causes';
import { said, words } from './said';

export { SEEN_AT_DEVICE } from './en/causes';
export const COUNTERSIGN_WORDS = words(causes.COUNTERSIGN_WORDS);
export const SIGN_WORDS = words(causes.SIGN_WORDS);
export const causeWords = said((id: CauseId) => causes.CAUSE_WORDS[id]);
