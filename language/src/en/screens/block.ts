import { messages } from '../../message';

export const BLOCK_WORDS = messages({
  block: 'Block',
  need: 'Need {number}',
  growth: 'Growth %',
  held: 'Held',
  aWhole24: 'a whole /24',
  packAnew: 'Pack anew …',
  packedAnewEveryNeedStaysWhere: 'Packed anew, every need stays where it is.',
  moveThemAndAddressWithThem:
    'Move them, and {addresses, plural, one {# address} other {# addresses}} with them',
  packedAnew: 'packed {prefix} anew',
  leaveThemWhereTheyAre: 'Leave them where they are',
  needWouldMove: '{moved, plural, one {# need} other {# needs}} would move',
  address: ', {addresses, plural, one {# address} other {# addresses}}',
  splitIntoSubnet: 'split {network} into {added, plural, one {# subnet} other {# subnets}}',
  whatDidItGiveAndWho:
    'What did IT give, and who needs how much of it? Each need gets the smallest network that holds its devices, their growth and a gateway.',
  blockWithPrefixLength: 'Block with prefix length',
  whatItIsCalled: 'What it is called',
  blockOfIt: 'Block of IT',
  anotherNeed: 'Another need',
  makeSubnet: 'Make {added, plural, one {# subnet} other {# subnets}}',
  keepTheseNeeds: 'Keep these needs',
  ofHostsNeeded: '{hosts} of {prefix} hosts needed',
  nothingIsLeft: 'nothing is left',
  nothingIsLeftOver: 'Nothing is left over',
  leftOver: 'Left over',
  needsA: 'needs a /{length}',
  theLargestPartLeft: 'the largest part left is a /{largest}',
});
