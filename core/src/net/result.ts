/**
 * Expected refusals are values. An issue names what is wrong by a code and carries the facts a
 * sentence needs; the sentence itself is made where a person reads it (`api/sentences`).
 */
export interface Issue {
  readonly code: string;
  /** The value, field or part that is refused, as the person wrote it. */
  readonly where: string;
  readonly facts?: Readonly<Record<string, string | number>>;
}

export type Result<T, E = Issue> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly error: E };

export const ok = <T>(value: T): Result<T, never> => ({ ok: true, value });

export const fail = <E>(error: E): Result<never, E> => ({ ok: false, error });

export const refuse = (
  code: string,
  where: string,
  facts?: Readonly<Record<string, string | number>>,
): Result<never, Issue> => fail(facts ? { code, where, facts } : { code, where });

/** The value of a result that is known to be good; a programmer's error otherwise. */
export function must<T>(result: Result<T, Issue | readonly Issue[]>): T {
  if (result.ok) return result.value;
  const issues = [result.error].flat();
  const text = issues.map(({ code, where }) => `${code} at "${where}"`).join(', ');
  throw new Error(`unexpected refusal ${text}`);
}
