import { messages } from '../../message';

export const VIGIL_WORDS = messages({
  everySecond: 'every second',
  every10S: 'every 10 s',
  everyMinute: 'every minute',
  n10Minutes: '10 minutes',
  n1Hour: '1 hour',
  n8Hours: '8 hours',
  aShift: 'a shift',
  n24Hours: '24 hours',
  devicesAreAskedInASteady:
    'Devices are asked in a steady beat, to find the one that drops out now and then.',
  whom: 'Whom',
  howOften: 'How often',
  howLong: 'How long',
  endTheVigil: 'End the vigil',
  beginTheVigil: 'Begin the vigil',
  nothingLost: 'nothing lost',
  deviceLostSomething: '{lossy, plural, one {# device} other {# devices}} lost something',
  of: '{done} of {all} · {lossy}',
  barsTheSlowestAnswerUpTo: 'Bars: the slowest answer, up to {most} ms. Below the line: lost.',
  whatWasSeenUntilThenIs: 'What was seen until then is kept with each device.',
  itWasEndedBeforeItsTime: 'It was ended before its time',
  andMoreThatLostLessAll: 'and {rows} more that lost less; all of them stand in the table.',
  downloadEveryBeatAsATable: 'Download every beat as a table',
  beatByBeat: '{title}, beat by beat: {words}',
});
