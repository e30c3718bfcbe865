// A rehearsal of a plan: what can be wrong in it, and what was found of that.

/** What goes wrong on sites, and is put into a rehearsal to be found. */
export const MISTAKE_KINDS = [
  'wrong-label',
  'kept-address',
  'cable-out',
  'wrong-socket',
  'address-taken',
  'in-use',
  'other-revision',
  'drops-out',
  'lending-router',
  'router-leg-out',
] as const;

export type MistakeKind = (typeof MISTAKE_KINDS)[number];

/** Mistakes that are at nothing the plan has. */
export const MISTAKES_AT_NOBODY: readonly MistakeKind[] = ['lending-router', 'router-leg-out'];

export interface Mistake {
  readonly id: string;
  readonly kind: MistakeKind;
  /** Of the plan; empty where it is at nothing that is planned. */
  readonly interfaceId: string;
}

/** Which mistakes are wished for: these, or so many of any; none is no surprise. */
export type MistakeWish =
  | { readonly kind: 'chosen'; readonly which: readonly MistakeKind[] }
  | { readonly kind: 'surprise'; readonly count: number };

export interface NewRehearsal {
  readonly wish: MistakeWish;
  /** The same one makes the same mistakes; a new one where none is given. */
  readonly seed?: number;
}

/** What somebody says is wrong. */
export interface MistakeClaim {
  readonly kind: MistakeKind;
  /** Empty where it is at nothing that is planned. */
  readonly interfaceId: string;
}

export interface FoundMistake extends Mistake {
  readonly person: string;
  /** Milliseconds since 1970. */
  readonly at: number;
}

/** What of a plan is not rehearsed, and why. */
export interface Unrehearsed {
  readonly interfaceId: string;
  readonly why:
    /** Its kind or its subnet is no longer in the plan. */
    | 'no-kind'
    | 'no-subnet'
    /** No switch of the rehearsal says through which port something was asked (option 82). */
    | 'no-relay'
    /** Its kind does not say how it comes from its maker, and its way needs to know. */
    | 'no-factory';
}

export interface RehearsalView {
  /** The job whose plan it rehearses; null where that is gone. */
  readonly of: { readonly id: string; readonly name: string; readonly revision: number } | null;
  readonly seed: number;
  readonly begunAt: number;
  readonly endedAt: number | null;
  /** How many mistakes are in it. */
  readonly mistakes: number;
  readonly found: readonly FoundMistake[];
  /** How often somebody said something was wrong that is not. */
  readonly wrongClaims: number;
  /** What was not found; told once it has ended. */
  readonly missed: readonly Mistake[];
  readonly unrehearsed: readonly Unrehearsed[];
}
