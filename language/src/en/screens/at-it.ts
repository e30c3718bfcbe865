import { messages } from '../../message';

export const AT_IT_WORDS = messages({
  iAmAtIt: 'I am at this device',
  youAreAtIt: 'You are at this device since {since}.',
  youTookItOver: 'You took it over from {person} at {since}.',
  iHaveLeft: 'I have left',
  isAtIt: '{person} is at this device since {since}',
  isAtItShort: '{person} is there',
  tookItOverFromYou: '{person} took it over from you at {since}',
  theirWord: '“{word}”',
  twoAtOne: 'Two who act at one device undo each other’s work. Take it over with a word to them.',
  aWordTo: 'A word to {person}',
  takeItOver: 'Take it over',
});
