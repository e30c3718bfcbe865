import { messages } from '../../message';

export const REVISIONS_WORDS = messages({
  sinceRevision: 'Since revision {from}',
  fromRevisionTo: 'From revision {from} to {to}',
  beingRead: '{title}: being read …',
  nothingDiffers: 'nothing differs',
  difference: '{differences, plural, one {# difference} other {# differences}}',
  andMore: 'and {differences} more',
  chooseOneToSeeWhatCame: 'Choose one to see what came after it, or two to hold them side by side.',
  undoMyLast: 'Undo my last',
  change: '{count, plural, one {# change} other {# changes}}',
  takesBack: 'takes back {undoes}',
  revision: 'Revision {number}',
  nameOfRevision: 'Name of revision {number}',
  asIssuedToSite: 'as issued to site',
  nameIt: 'Name it',
});
