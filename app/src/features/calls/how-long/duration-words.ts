import { HOW_LONG_WORDS } from '@ipsonomo/language/screens/how-long';

/** As people say how long something takes: nobody plans a round by the second. */
export function durationWords(seconds: number): string {
  const minutes = Math.max(1, Math.round(seconds / 60));
  const hours = Math.floor(minutes / 60);
  return hours === 0
    ? HOW_LONG_WORDS.minutes({ minutes })
    : HOW_LONG_WORDS.hours({ hours, minutes: minutes % 60 });
}
