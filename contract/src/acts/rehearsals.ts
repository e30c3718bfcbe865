import {
  MISTAKE_KINDS,
  type MistakeClaim,
  type MistakeWish,
  type NewRehearsal,
} from '@ipsonomo/core/api';
import { answers, reads } from '../act';
import { keys } from '../keys';
import { choice, either, list, object, text, whole, type Shape } from '../shape';

const kind = choice(...MISTAKE_KINDS);
const wish: Shape<MistakeWish> = either(
  object({ kind: choice('chosen'), which: list(kind, MISTAKE_KINDS.length) }),
  object({ kind: choice('surprise'), count: whole(0, 20) }),
) as Shape<MistakeWish>;

const newRehearsal: Shape<NewRehearsal> = object({ wish }, { seed: whole(0, 2 ** 31 - 1) });
const claim: Shape<MistakeClaim> = object({ kind, interfaceId: text(80) });

const at = '/jobs/:job/rehearsal';
const ofRehearsal = ({ job }: { readonly job: string }) => [keys.rehearsal(job)];

/** Rehearsals: a plan on a practice site made of it, as a job of its own. */
export const rehearsalActs = {
  rehearse: answers('/jobs/:job/rehearsals', 'Added', {
    about:
      'Begins a rehearsal of a plan: a job of its own with a copy of it, on a practice site where each planned device stands as its maker delivers it. Mistakes can be put into it, to be found.',
    ...{ right: 'plan', status: 201, stale: () => [keys.jobs] },
    body: newRehearsal,
  }),
  readRehearsal: reads(at, 'Rehearsal', {
    about:
      'How a rehearsal stands: what was found of its mistakes; what was not, once it has ended.',
    key: ({ job }) => keys.rehearsal(job),
    refusals: ['rehearsal'],
  }),
  claimMistake: answers(`${at}/claims`, 'Claimed', {
    about:
      'Says what is wrong. Where that is right it is put right on the site, as somebody would.',
    ...{ right: 'assign', stale: ofRehearsal },
    body: claim,
    refusals: ['rehearsal'],
  }),
  endRehearsal: answers(`${at}/end`, 'Rehearsal', {
    about: 'Ends the search for mistakes, and tells those that were not found.',
    ...{ right: 'assign', stale: ofRehearsal },
    refusals: ['rehearsal'],
  }),
} as const;
