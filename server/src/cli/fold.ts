import { userInfo } from 'node:os';
import { COMMAND_WORDS } from '@ipsonomo/language/terminal';
import { openDatabase } from '../store/database';
import { Store } from '../store/store';
import { whyOf, type Output } from './output';

const DAY = 24 * 3600 * 1000;
const MOST_DAYS = 36_500;

/**
 * Folds old pieces of evidence that say once more that a device asked (R-FOLD), and looks whether all that is left verifies.
 * @param days how old they are at least, as it was typed
 */
export async function fold(
  days: string,
  { print, tell }: Output,
  url = process.env['DATABASE_OWNER_URL'] ?? process.env['DATABASE_URL'],
): Promise<boolean> {
  const count = /^\d{1,5}$/.test(days) ? Number(days) : 0;
  if (count < 1 || count > MOST_DAYS) {
    tell(COMMAND_WORDS.noNumberOfDays({ text: days }));
    return false;
  }
  if (!url) {
    tell(COMMAND_WORDS.whichDatabaseAsOwner);
    return false;
  }
  const database = openDatabase({ url });
  try {
    const { evidence } = new Store(database);
    const folded = await evidence.fold(new Date(Date.now() - count * DAY), userInfo().username);
    for (const one of folded) print(one);
    const all = folded.reduce((sum, one) => sum + one.count, 0);
    tell(
      all === 0
        ? COMMAND_WORDS.nothingToFold({ days: count })
        : COMMAND_WORDS.wereFolded({ count: all }),
    );
    const broken = await evidence.audit(1);
    if (broken.length > 0) tell(COMMAND_WORDS.chainBreaksSee);
    return broken.length === 0;
  } catch (error) {
    tell(COMMAND_WORDS.nothingFolded({ why: whyOf(error) }));
    return false;
  } finally {
    await database.destroy();
  }
}
