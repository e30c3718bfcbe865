import { messages } from '../../message';

export const AT_IT_WORDS = messages({
  iAmAtIt: 'I am at it',
  youAreAtIt: 'You are at it since {since}.',
  youTookItOver: 'You took it over from {person} at {since}.',
  iHaveLeft: 'I have left',
  isAtIt: '{person} is at it since {since}',
  isAtItShort: '{person} is at it',
  tookItOverFromYou: '{person} took it over from you at {since}',
  theirWord: '“{word}”',
  twoAtOne: 'Two who act at one device undo each other’s work. Take it over with a word to them.',
  aWordTo: 'A word to {person}',
  takeItOver: 'Take it over',
});
