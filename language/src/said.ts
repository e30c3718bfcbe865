import { spoken } from './pseudo';

// The tables of refusals, evidence and snags are functions of their facts and no messages; what they answer is spoken
// at the door.

type Texts = string | undefined | { readonly [key: string]: Texts };

const all = <Value extends Texts>(value: Value): Value =>
  (typeof value === 'string'
    ? spoken(value)
    : value === undefined
      ? value
      : Object.fromEntries(Object.entries(value).map(([key, one]) => [key, all(one)]))) as Value;

/** A table of words as it is read. */
export const words = <Key extends string>(
  table: Readonly<Record<Key, string>>,
): Readonly<Record<Key, string>> => all(table);

/** A function that answers with a sentence, or with several by name. */
export const said =
  <Asked extends readonly unknown[], Answer>(sentence: (...asked: Asked) => Answer) =>
  (...asked: Asked): Answer =>
    all(sentence(...asked) as Texts) as Answer;
