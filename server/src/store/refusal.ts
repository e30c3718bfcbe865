import { DBError, ForeignKeyViolationError, UniqueViolationError } from 'objection';
import {
  issueOf,
  type FactsArgument,
  type Issue,
  type IssueCode,
  type Result,
} from '@ipsonomo/core/net';
import type { EditConflict } from '@ipsonomo/core/plan';

/** A refusal with its issues; `http` finds the status by the first code. */
export class Refusal extends Error {
  constructor(
    readonly issues: readonly Issue[],
    readonly conflicts: readonly EditConflict[] = [],
  ) {
    super(issues.map((issue) => issue.code).join(', '));
  }
  static of<C extends IssueCode>(code: C, where: string, ...facts: FactsArgument<C>): Refusal {
    return new Refusal([issueOf(code, where, ...facts)]);
  }
}

/** The value of a result; its error becomes the refusal. */
export function must<T>(result: Result<T>): T {
  if (result.ok) return result.value;
  throw new Refusal([result.error]);
}

const AWAY = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'ENOENT',
  'EPIPE',
  'ETIMEDOUT',
  '57P01', // the server was stopped by its administrator
  '57P02', // it fell over
  '08006', // the connection failed
  '08003', // it is gone
  '53300', // too many connections
  '57P03', // it is starting
]);

/** What a database error means to a person; the error itself where it means nothing to them. */
export function translateDatabaseError(error: unknown): unknown {
  if (error instanceof UniqueViolationError) return Refusal.of('store.conflict', error.table);
  if (error instanceof ForeignKeyViolationError) return Refusal.of('store.conflict', error.table);
  const native = error instanceof DBError ? error.nativeError : error;
  return isAway(native) ? Refusal.of('store.away', '') : error;
}

/** Is the database not there (as opposed to: there, and saying no)? */
export function isAway(error: unknown): boolean {
  if (!(error instanceof Error)) return false;
  const code = 'code' in error ? String(error.code) : '';
  const inner = error instanceof AggregateError ? error.errors.some(isAway) : false;
  const ended = /Connection (ended|terminated)/i.test(error.message);
  return AWAY.has(code) || inner || ended || isPoolTimeout(error);
}

/** No connection came free, or none could be made, for as long as one waits. */
export const isPoolTimeout = (error: unknown): boolean =>
  error instanceof Error && error.name === 'KnexTimeoutError';
