import type { IssueCode, IssueFacts, IssueOf } from './issues';

/**
 * Expected refusals are values. An issue names what is wrong by a code and carries the facts a
 * sentence needs; the sentence itself is made where a person reads it (`api/sentences`).
 */
export type Issue = IssueOf<IssueCode>;

export type Result<T, E = Issue> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly error: E };

export const ok = <T>(value: T): Result<T, never> => ({ ok: true, value });

export const fail = <E>(error: E): Result<never, E> => ({ ok: false, error });

/** What has to be said with a code: its facts, where it needs any. */
export type FactsArgument<C extends IssueCode> =
  Record<never, never> extends IssueFacts[C]
    ? readonly [facts?: IssueFacts[C]]
    : readonly [facts: IssueFacts[C]];

export const issueOf = <C extends IssueCode>(
  code: C,
  where: string,
  ...[facts]: FactsArgument<C>
): Issue => (facts ? { code, where, facts } : { code, where }) as unknown as Issue;

export const refuse = <C extends IssueCode>(
  code: C,
  where: string,
  ...facts: FactsArgument<C>
): Result<never, Issue> => fail(issueOf(code, where, ...facts));

/** The value of a result that is known to be good; a programmer's error otherwise. */
export function must<T>(result: Result<T, Issue | readonly Issue[]>): T {
  if (result.ok) return result.value;
  const issues = [result.error].flat();
  const text = issues.map(({ code, where }) => `${code} at "${where}"`).join(', ');
  throw new Error(`unexpected refusal ${text}`);
}
