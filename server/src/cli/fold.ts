import { userInfo } from 'node:os';
import { openDatabase } from '../store/database';
import { Store } from '../store/store';
import type { Output } from './output';

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
    tell(
      `"${days}" is no number of days: say how old evidence is that may be folded, 90 for instance.`,
    );
    return false;
  }
  if (!url) {
    tell('DATABASE_OWNER_URL is not set: say which database is meant, as the role that owns it.');
    return false;
  }
  const database = openDatabase(url);
  try {
    const { evidence } = new Store(database);
    const folded = await evidence.fold(new Date(Date.now() - count * DAY), userInfo().username);
    for (const one of folded) print(one);
    const all = folded.reduce((sum, one) => sum + one.count, 0);
    tell(
      all === 0
        ? `Nothing older than ${count} days is to be folded.`
        : `${all} pieces were folded: that a device asked, as before and again later. Each is counted at the first of its like.`,
    );
    const broken = await evidence.audit(1);
    if (broken.length > 0) tell('The chain of the evidence breaks: npm run ipsonomo -- audit');
    return broken.length === 0;
  } catch (error) {
    tell(`Nothing was folded: ${error instanceof Error ? error.message : String(error)}`);
    return false;
  } finally {
    await database.destroy();
  }
}
