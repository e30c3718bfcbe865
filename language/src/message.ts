import { IntlMessageFormat } from 'intl-messageformat';
import { spoken } from './pseudo';

// Messages in the ICU MessageFormat (https://unicode-org.github.io/icu/userguide/format_parse/messages/). What a
// message has to be told is read off its text by the compiler: a fact that lacks, or one too many, does not compile.

export const LANGUAGE = 'en';

/** A message without facts is a text; one with facts is asked with them. */
export type Message<Text extends string> = string extends Text
  ? string
  : [Facts<Text>] extends [never]
    ? string
    : (facts: { readonly [Fact in Facts<Text> as Fact[0]]: Fact[1] }) => string;

export type Messages<Texts extends Readonly<Record<string, string>>> = {
  readonly [Key in keyof Texts]: Message<Texts[Key]>;
};

/** The facts of a text, as pairs of name and type; `Depth` counts the branches that are open. */
type Facts<Text, Depth extends readonly 1[] = []> = Text extends `${infer Before}}${infer After}`
  ? Before extends `${string}{${string}`
    ? Text extends `${string}{${infer Fact}`
      ? FactOf<Fact, Depth>
      : never
    : Depth extends readonly [1, ...infer Outer extends readonly 1[]]
      ? BranchesOf<After, Outer>
      : never
  : never;

type FactOf<Text, Depth extends readonly 1[]> = Text extends `${infer Name}}${infer After}`
  ? Name extends `${infer Count}, plural, ${string}`
    ? readonly [Count, number] | BranchesAfter<Text, `${Count}, plural, `, Depth>
    : Name extends `${infer Choice}, select, ${string}`
      ? readonly [Choice, string | boolean] | BranchesAfter<Text, `${Choice}, select, `, Depth>
      : readonly [Name, string | number] | Facts<After, Depth>
  : never;

type BranchesAfter<
  Text,
  Head extends string,
  Depth extends readonly 1[],
> = Text extends `${Head}${infer Branches}` ? BranchesOf<Branches, Depth> : never;

/** Branches up to the brace that ends them: each is a word and a text in braces. */
type BranchesOf<Text, Depth extends readonly 1[]> = Text extends `${infer Before}}${infer After}`
  ? Before extends `${string}{${string}`
    ? Text extends `${string}{${infer Branch}`
      ? Facts<Branch, readonly [1, ...Depth]>
      : never
    : Facts<After, Depth>
  : never;

type Told = Readonly<Record<string, string | number | boolean>>;

/** The messages of one part of the application, each a text or what makes one of its facts. */
export function messages<const Texts extends Readonly<Record<string, string>>>(
  texts: Texts,
): Messages<Texts> {
  const made = Object.entries(texts).map(([key, text]) => [
    key,
    text.includes('{') ? messageOf(text) : spoken(text),
  ]);
  return Object.fromEntries(made) as Messages<Texts>;
}

const PLURALS = new Intl.PluralRules(LANGUAGE);
// A thousand separator is the decimal point of half the people who read these.
const FIGURES = new Intl.NumberFormat(LANGUAGE, { useGrouping: false });
const FORMATTERS = {
  getNumberFormat: () => FIGURES,
  getDateTimeFormat: () => new Intl.DateTimeFormat(LANGUAGE),
  getPluralRules: () => PLURALS,
};

/** A text is read when it is first said: most of them never are. */
function messageOf(text: string): (facts: Told) => string {
  let format: IntlMessageFormat | undefined;
  return (facts) => {
    format ??= new IntlMessageFormat(text, LANGUAGE, undefined, {
      ignoreTag: true,
      formatters: FORMATTERS,
    });
    return spoken(saidOf(format, facts, text));
  };
}

/** A fact that lacks in spite of its type (a row of another version) leaves a gap and breaks nothing. */
function saidOf(format: IntlMessageFormat, facts: Told, text: string): string {
  try {
    return String(format.format<string>({ ...facts }));
  } catch {
    return text.replace(/\{(\w+)[^{}]*\}/g, (_, name: string) => String(facts[name] ?? '…'));
  }
}
