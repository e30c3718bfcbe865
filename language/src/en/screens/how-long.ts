import { messages } from '../../message';

export const HOW_LONG_WORDS = messages({
  howLong: 'How long it takes',
  itTakes: 'It takes about {time}',
  playedWithoutAnybody:
    'The calls that are left, played without anybody: how long devices take to start, people to walk, and hands to do what each way asks for.',
  howManyPeople: 'How many people',
  people: '{count, plural, one {one person} other {# people}}',
  nothingLeft: 'No call is left.',
  whatHoldsUp: 'What people wait for',
  devicesStarting: 'devices that start',
  theLaptop: 'the laptop, which is elsewhere',
  oneFactoryAddress: 'another device with the same factory address',
  whatWouldBeQuicker: 'What would be quicker',
  boundAtTheDesk: 'All MACs bound at the desk: {saved} less',
  onePersonMore: 'One person more: {saved} less',
  oneLaptopMore: 'A second laptop: {saved} less',
  theBestOrder: 'The best order: {saved} less',
  byCabinet: 'By cabinet',
  cabinetLine: '{cabinet}, {count, plural, one {# call} other {# calls}}',
  byPerson: 'By person',
  personLine: 'person {number}: {worked} of work, {walked} of walking',
  doneAfter: 'done after {time}',
  minutes: '{minutes} min',
  hours: '{hours} h {minutes} min',
});
