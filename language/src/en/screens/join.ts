import { messages } from '../../message';

export const JOIN_WORDS = messages({
  title: 'Another laptop without a network',
  what: 'Where two laptops worked on this job and no network joined them, a file on a stick makes them one again: what each changed is put together field by field, evidence is united, and doing it twice changes nothing.',
  write: 'Write what this laptop knows',
  writeMore:
    'Everything of this job but its captures: revisions, evidence with its chain, runs, proofs, papers. Take it to the other laptop, and bring its file back.',
  takeIn: 'Take in what another laptop wrote',
  onlyKeepers: 'A keeper takes in what another laptop wrote.',
  taken:
    '{from}: {revisions, plural, =0 {no revision} one {# revision} other {# revisions}} and {evidence, plural, =0 {no piece of evidence} one {# piece of evidence} other {# pieces of evidence}} that were not known here.',
  nothingNew: '{from}: nothing that was not known here.',
  goThere: 'Open {name}',
  bothChanged:
    '{count, plural, one {Both changed this} other {Both changed these #}}: decide which stands',
  decide: 'Decide',
  stands: 'Stands: {value}',
  other: 'The other: {value}',
  by: '{person}, {at}',
  before: 'as it was before',
  gone: 'taken out',
  there: 'there',
  itStays: 'It stays so',
  takeOther: 'Take the other',
  whatCame: 'What came',
  came: '{at}, taken in by {person}',
  decided: 'took what the other laptop has of {title}',
});
