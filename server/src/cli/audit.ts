import { openDatabase } from '../store/database';
import { Store } from '../store/store';
import type { Output } from './output';

/**
 * Pieces of evidence that somebody changed by hand, and where what is kept of the latest is not what all of them say;
 * false where there are any, or nobody can tell.
 * @param mend makes the latter anew, for which the owner of the tables is needed
 */
export async function audit(
  { print, tell }: Output,
  mend = false,
  url = (mend ? process.env['DATABASE_OWNER_URL'] : undefined) ?? process.env['DATABASE_URL'],
) {
  if (!url) {
    tell('DATABASE_URL is not set: say which database is to be looked at.');
    return false;
  }
  const database = openDatabase(url);
  try {
    const store = new Store(database);
    if (mend) await store.evidence.rebuildLatest();
    const broken = await store.evidence.audit();
    const unlike = await store.evidence.auditLatest();
    for (const one of broken) print(one);
    tell(
      broken.length === 0
        ? 'All evidence is as it was written.'
        : `The chain breaks at ${broken.length} pieces of evidence: they were changed, or one before them is gone.`,
    );
    for (const { count, person, at, jobId } of await store.evidence.folded())
      tell(
        `Of job ${jobId} ${count} pieces were folded into counts, last on ${at.toISOString()} by ${person}; the chain goes on across them.`,
      );
    for (const one of unlike) print(one);
    if (unlike.length > 0)
      tell(
        `What is kept of the latest evidence is not what all of it says at ${unlike.length} places: npm run ipsonomo -- audit --mend makes it anew.`,
      );
    return broken.length + unlike.length === 0;
  } catch (error) {
    tell(`The database cannot be asked: ${error instanceof Error ? error.message : String(error)}`);
    return false;
  } finally {
    await database.destroy();
  }
}
