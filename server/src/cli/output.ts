import { sentenceOf, type DecodeError, type Issue } from '@ipsonomo/core';

export interface Output {
  /** One JSON object on a line of standard output. */
  readonly print: (line: unknown) => void;
  /** One sentence on standard error. */
  readonly tell: (sentence: string) => void;
}

/** Works on one input; false where the input was bad. */
export type Command = (input: string, output: Output) => boolean;

/** Says what was wrong. */
export function refuseInput({ tell }: Output, issue: Issue): false {
  tell(sentenceOf(issue));
  return false;
}

/** Bytes that cannot be read, with the place where reading ended. */
export const unreadable = (what: string, error: DecodeError): Issue => ({
  code: 'bytes.unreadable',
  where: `${what} (${error.code})`,
  facts: { at: error.at, need: error.need, have: error.have },
});
