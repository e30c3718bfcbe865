import { type FactsArgument, type Issue, type IssueCode, issueOf } from '@ipsonomo/core/net';

/** A command that could not be carried out. */
export type FieldError = Pick<Issue, 'code' | 'facts'>;

/** Thrown inside the field worker; crosses to the main thread as FieldError. */
export class FieldRefusal extends Error {
  readonly code: IssueCode;
  readonly facts: FieldError['facts'];

  constructor({ code, facts }: FieldError) {
    super(code);
    this.code = code;
    this.facts = facts;
  }

  /** As it crosses from thread to thread. */
  get told(): FieldError {
    return { code: this.code, facts: this.facts } as FieldError;
  }

  static of<C extends IssueCode>(code: C, ...facts: FactsArgument<C>): FieldRefusal {
    return new FieldRefusal(issueOf(code, '', ...facts));
  }
}
