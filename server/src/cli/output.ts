import { readFileSync } from 'node:fs';
import { sentenceOf } from '@ipsonomo/language';
import { fail, ok, type Issue, type Result } from '@ipsonomo/core/net';
import type { DecodeError } from '@ipsonomo/core/wire';

export interface Output {
  /** One JSON object on a line of standard output. */
  readonly print: (line: unknown) => void;
  /** One sentence on standard error. */
  readonly tell: (sentence: string) => void;
}

/** Works on one input; false where the input was bad. */
export type OneCommand = (input: string, output: Output) => boolean;

/** Works on all of them. */
export type Command = (inputs: readonly string[], output: Output) => boolean;

/** One input after the other, whatever became of the one before. */
export const each =
  (command: OneCommand): Command =>
  (inputs, output) =>
    inputs.map((input) => command(input, output)).every(Boolean);

/** A file as text. */
export function readText(path: string): Result<string> {
  try {
    return ok(readFileSync(path, 'utf8'));
  } catch {
    return fail({ code: 'file.missing', where: path });
  }
}

/** What an error says of itself. */
export const whyOf = (error: unknown): string =>
  error instanceof Error ? error.message : String(error);

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

/** `NAME` behind an option, and what is left without both. */
export function option(
  inputs: readonly string[],
  name: string,
): readonly [string | undefined, readonly string[]] {
  const at = inputs.indexOf(name);
  return at < 0
    ? [undefined, inputs]
    : [inputs[at + 1], inputs.filter((_, one) => one !== at && one !== at + 1)];
}
