import { useMemo, useState } from 'react';
import { SHELF, type Plan } from '@ipsonomo/core/plan';
import { draftsOf, editsOfDrafts, patternIssue, type Correction, type Frame } from './drafts';

const MOST = 200;

const FIRST: Frame = {
  ...{ kindId: SHELF[0]?.id ?? '', subnetId: '', way: undefined, area: '', cabinet: '' },
  ...{ controllerId: undefined, titles: '', pattern: '' },
};

/** A change of these makes other devices: what was corrected of the old ones is forgotten. */
const OTHERS = ['kindId', 'subnetId'] as const;

/** The devices about to be added: proposed from the plan, corrected by a person. */
export function useNewDevices(plan: Plan | undefined) {
  const [typed, setTyped] = useState(FIRST);
  const [count, setCount] = useState('1');
  const [corrections, setCorrections] = useState<readonly Correction[]>([]);
  const frame = useMemo(
    () => ({ ...typed, subnetId: typed.subnetId || (plan?.subnets[0]?.id ?? '') }),
    [typed, plan],
  );
  const number = /^[0-9]{1,3}$/.test(count) ? Math.min(MOST, Number(count)) : 0;
  const drafts = useMemo(
    () => (plan ? draftsOf(plan, frame, number, corrections) : []),
    [plan, frame, number, corrections],
  );
  const change = (part: Partial<Frame>) => {
    if (OTHERS.some((field) => field in part)) setCorrections([]);
    setTyped((all) => ({ ...all, ...part }));
  };
  const correct = (index: number, correction: Correction) =>
    setCorrections((all) => {
      const next = [...all];
      next[index] = { ...next[index], ...correction };
      return next;
    });
  const wrongPattern = patternIssue(frame.pattern);
  return {
    ...{ frame, change, count, setCount, drafts, correct, wrongPattern },
    edits: () => (plan ? editsOfDrafts(plan, frame, drafts, corrections) : []),
    /** A subnet of the plan has no free address for so many. */
    isFull: number > 0 && drafts.length < number,
    isReady:
      drafts.length > 0 && !wrongPattern && drafts.every((d) => !d.addressIssue && !d.nameIssue),
  };
}
