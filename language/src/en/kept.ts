import { messages } from '../message';

// What the server writes down in words: what a revision was for, what a job or a file is called, why something did not
// come to its end. It is kept as it was said then.

export const REVISION_WORDS = messages({
  readFromFile: 'read from a plan file',
  changed: 'changed the plan',
  addedSubnet: 'added subnet {name} {network}',
  joined: 'joined with what {from} has',
  tookBack: 'took back: {what}',
  didAgain: 'did again: {what}',
  broughtUpToDate:
    'brought {count, plural, one {# device} other {# devices}} up to date with a list',
  tookFromList: 'took {count, plural, one {# device} other {# devices}} from a list',
  tookKinds: 'took {count, plural, one {# kind} other {# kinds}} of {job}',
  copiedFrom: 'copied from {job}, revision {revision}',
});

export const NAME_WORDS = messages({
  plan: 'Plan',
  rehearsalOf: 'Rehearsal of {job}',
  kindsOf: 'Kinds of {job}',
  kindsFile: '{job} kinds.json',
  planFile: '{job} plan revision {revision}.json',
  handOverFile: '{job} hand-over revision {revision}.zip',
});

export const FALL_WORDS = messages({
  threadEnded: 'its thread has ended',
  takenBack: 'it was taken back',
  ended: 'it has ended',
  notWithin: 'not read within {seconds} s',
  noUtf8: 'it has bytes that are no UTF-8',
});
