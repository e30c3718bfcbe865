import { openDatabase } from '../store/database';
import { Store } from '../store/store';
import type { Output } from './output';

/** Pieces of evidence that somebody changed by hand; false where there are any, or nobody can tell. */
export async function audit({ print, tell }: Output, url = process.env['DATABASE_URL']) {
  if (!url) {
    tell('DATABASE_URL is not set: say which database is to be looked at.');
    return false;
  }
  const database = openDatabase(url);
  try {
    const broken = await new Store(database).audit();
    for (const one of broken) print(one);
    tell(
      broken.length === 0
        ? 'All evidence is as it was written.'
        : `The chain breaks at ${broken.length} pieces of evidence: they were changed, or one before them is gone.`,
    );
    return broken.length === 0;
  } catch (error) {
    tell(`The database cannot be asked: ${error instanceof Error ? error.message : String(error)}`);
    return false;
  } finally {
    await database.destroy();
  }
}
