import { THING_TYPES } from '@ipsonomo/core/plan';
import { answers, bytes, fetches, reads } from '../act';
import { keys } from '../keys';
import { choice, object, orNull, text, uuid } from '../shape';

const named = object({}, { name: text(1000) });
const taking = { right: 'keep', query: named, body: bytes('application/octet-stream') } as const;
const MOST = '200mb';

/** R-UNITE: what goes from one installation to another, where no network joins them. */
export const bundleActs = {
  fetchBundle: fetches('/jobs/:job/bundle.gz', 'application/gzip', {
    about:
      'All that is known of a job, for another installation: revisions as edits, evidence with its chain, runs, proofs, papers. Lines of JSON, packed (RFC 1952), signed by this server.',
    refusals: ['bundle'],
  }),
  takeBundle: answers('/jobs/:job/bundle', 'BundleTaken', {
    about: 'Takes in what another installation wrote of this job; twice changes nothing.',
    ...{ ...taking, most: MOST, refusals: ['bundle', 'file', 'edit'] },
    stale: ({ job }) => [keys.job(job)],
  }),
  takeNewBundle: answers('/bundles', 'BundleTaken', {
    about: 'The same of a job that need not be here yet.',
    ...{ ...taking, most: MOST, refusals: ['bundle', 'file', 'edit'] },
    stale: () => [keys.jobs],
  }),
  readJoined: reads('/jobs/:job/joined', 'Joined', {
    about: 'What was taken in from others, and where both changed the same.',
    key: ({ job }) => keys.joined(job),
  }),
  settleClash: answers('/jobs/:job/joined/settled', 'Joined', {
    about: 'Says of something that both changed that it stays as it is.',
    right: 'plan',
    body: object({
      ...{ type: choice(...THING_TYPES), id: text(80), field: orNull(text(80)) },
      ...{ stands: uuid, lost: orNull(uuid) },
    }),
    stale: ({ job }) => [keys.joined(job)],
  }),
} as const;
