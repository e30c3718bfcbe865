import { PSEUDO, spoken } from './pseudo';

// The tables of refusals, evidence and snags are functions of their facts and no messages; what they answer is spoken
// at the door.

const all = (value: unknown): unknown => {
  if (typeof value === 'string') return spoken(value);
  if (Array.isArray(value)) return value.map(all);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([key, one]) => [key, all(one)]));
};

const heard = <Value>(value: Value): Value => (PSEUDO ? (all(value) as Value) : value);

/** A table of words as it is read. */
export const words = <Key extends string>(
  table: Readonly<Record<Key, string>>,
): Readonly<Record<Key, string>> => heard(table);

/** A function that answers with a sentence, or with several. */
export const said =
  <Asked extends readonly unknown[], Answer>(sentence: (...asked: Asked) => Answer) =>
  (...asked: Asked): Answer =>
    heard(sentence(...asked));
