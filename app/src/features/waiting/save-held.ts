import { WAITING_WORDS } from '@ipsonomo/language/screens/waiting';
import { saveText, type WaitingAct } from '../../data';

/** All that waits as one file, for whoever cannot send it from here. */
export const saveHeld = (held: readonly WaitingAct[]): void =>
  saveText(WAITING_WORDS.fileName, 'application/json', JSON.stringify(held, null, 1));
