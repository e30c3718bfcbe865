import { COMMAND_WORDS } from '@ipsonomo/language/terminal';
import { openDatabase } from '../store/database';
import { Store } from '../store/store';
import { whyOf, type Output } from './output';

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
    tell(COMMAND_WORDS.whichDatabase);
    return false;
  }
  const database = openDatabase({ url });
  try {
    const store = new Store(database);
    if (mend) await store.evidence.rebuildLatest();
    const broken = await store.evidence.audit();
    const unlike = await store.evidence.auditLatest();
    for (const one of broken) print(one);
    tell(
      broken.length === 0
        ? COMMAND_WORDS.evidenceWhole
        : COMMAND_WORDS.chainBreaks({ count: broken.length }),
    );
    for (const { count, person, at, jobId } of await store.evidence.folded())
      tell(COMMAND_WORDS.folded({ job: jobId, count, at: at.toISOString(), person }));
    for (const one of unlike) print(one);
    if (unlike.length > 0) tell(COMMAND_WORDS.latestUnlike({ count: unlike.length }));
    return broken.length + unlike.length === 0;
  } catch (error) {
    tell(COMMAND_WORDS.databaseCannotBeAsked({ why: whyOf(error) }));
    return false;
  } finally {
    await database.destroy();
  }
}
