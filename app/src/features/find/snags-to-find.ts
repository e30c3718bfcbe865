import type { Findable } from '@ipsonomo/core/find';
import type { Snag } from '@ipsonomo/core/snags';
import { snagSentence } from '@ipsonomo/language';
import { FIND_WORDS } from '@ipsonomo/language/screens/find';

/** A plan with more has other worries than to find one of them. */
const MOST = 2000;

/** Snags by their sentence; each leads to the thing that it is about. */
export const snagsToFind = (snags: readonly Snag[]): readonly Findable[] =>
  snags.slice(0, MOST).map((snag) => {
    const title = snagSentence(snag);
    return {
      ...({ kind: 'snag', id: pathOf(snag), title, detail: FIND_WORDS.snag } as const),
      ...{ text: `${title} ${FIND_WORDS.snag}`.toLowerCase(), macs: '' },
    };
  });

const pathOf = ({ type, id }: Snag): string =>
  type === 'device' || type === 'subnet' ? `${type}/${encodeURIComponent(id)}` : 'snags';
