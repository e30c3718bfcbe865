import { factOf, FOUND_VALUES, type CheckKind, type FoundValue, type ToldAs } from '../plan';

/** What one run kept of one interface. */
export type ProofResult = ToldAs<CheckKind> & {
  readonly interfaceId: string;
  readonly at: number;
};

/** One value that two runs found differently; empty where one of them found none. */
interface ValueChange {
  readonly value: FoundValue | 'mac';
  readonly before: string;
  readonly after: string;
}

/** How an interface stood in two runs. */
export interface RunChange {
  readonly interfaceId: string;
  /** Undefined where that run did not ask for it. */
  readonly before: ProofResult | undefined;
  readonly after: ProofResult | undefined;
  readonly values: readonly ValueChange[];
}

const textOf = (result: ProofResult, key: string): string => String(factOf(result, key) ?? '');

function valueChanges(before: ProofResult, after: ProofResult): readonly ValueChange[] {
  // A silent one tells nothing, which is no change of its values.
  if (before.kind === 'no-answer' || after.kind === 'no-answer') return [];
  const keys = [['mac', 'found'] as const, ...FOUND_VALUES.map((value) => [value, value] as const)];
  return keys.flatMap(([value, key]) => {
    const [was, is] = [textOf(before, key), textOf(after, key)];
    return was === is ? [] : [{ value, before: was, after: is }];
  });
}

/** What is different since an earlier run; what both found alike is left out. */
export function runChanges(
  before: readonly ProofResult[],
  after: readonly ProofResult[],
): readonly RunChange[] {
  const earlier = new Map(before.map((one) => [one.interfaceId, one]));
  const later = new Map(after.map((one) => [one.interfaceId, one]));
  return [...new Set([...earlier.keys(), ...later.keys()])].flatMap((interfaceId) => {
    const [was, is] = [earlier.get(interfaceId), later.get(interfaceId)];
    const values = was && is ? valueChanges(was, is) : [];
    const isSame = was?.kind === is?.kind && values.length === 0;
    return isSame ? [] : [{ interfaceId, before: was, after: is, values }];
  });
}
