import { messages } from '../../message';

export const WRITTEN_WORDS = messages({
  whereAddressesAreWritten: 'Where addresses are written',
  everywhereItStands:
    'Everywhere that an address or a name of this plan stands, device by device. Tick a place once the right value stands there; a change of the plan takes the tick off again.',
  aPartOfItsNameOrAddress: 'A part of its name, cabinet or address',
  left: '{left, plural, =0 {all {all} places ticked} one {# of {all} places to go} other {# of {all} places to go}}',
  hasToStand: 'has to stand there: {value}',
  tickedBy: '{value} · ticked by {person}, {at}',
  andMore: 'and {count} more: type a part of the name',
});
