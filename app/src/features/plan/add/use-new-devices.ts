import { useEffect, useMemo } from 'react';
import { OTHER_DEVICE, type Plan } from '@ipsonomo/core/plan';
import { useKept } from '../../../parts';
import { draftsOf, editsOfDrafts, patternIssue, type Correction, type Frame } from './drafts';

const MOST = 200;

const FIRST: Frame = {
  ...{ kindId: OTHER_DEVICE.id, subnetId: '', way: undefined, area: '', cabinet: '' },
  ...{ controllerId: undefined, titles: '', pattern: '' },
};

const BEGUN: Begun = { typed: FIRST, count: '1', corrections: [], made: '' };

interface Begun {
  readonly typed: Frame;
  readonly count: string;
  readonly corrections: readonly Correction[];
  /** The kind that was made for them, and was chosen once. */
  readonly made: string;
}

/** A change of these makes other devices: what was corrected of the old ones is forgotten. */
const OTHERS = ['kindId', 'subnetId'] as const;

/** The devices about to be added: proposed from the plan, corrected by a person. */
export function useNewDevices(job: string, plan: Plan | undefined, kindId?: string) {
  const [{ typed, count, corrections }, keep, forget] = useKept(`new devices ${job}`, BEGUN);
  const setCount = (next: string) => keep((all) => ({ ...all, count: next }));
  useEffect(() => {
    if (kindId === undefined) return;
    keep((all) =>
      all.made === kindId
        ? all
        : {
            ...{ ...all, corrections: [], made: kindId },
            typed: { ...all.typed, kindId, way: undefined },
          },
    );
  }, [kindId, keep]);
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
    const isOther = OTHERS.some((field) => field in part);
    keep((all) => ({
      ...all,
      typed: { ...all.typed, ...part },
      corrections: isOther ? [] : all.corrections,
    }));
  };
  const correct = (index: number, correction: Correction) =>
    keep((all) => {
      const corrections = Array.from(
        { length: Math.max(all.corrections.length, index + 1) },
        (_, at) => all.corrections[at] ?? {},
      );
      corrections[index] = { ...corrections[index], ...correction };
      return { ...all, corrections };
    });
  const wrongPattern = patternIssue(frame.pattern);
  return {
    ...{ frame, change, count, setCount, drafts, correct, wrongPattern, forget },
    edits: () => (plan ? editsOfDrafts(plan, frame, drafts, corrections) : []),
    /** A subnet of the plan has no free address for so many. */
    isFull: number > 0 && drafts.length < number,
    isReady:
      drafts.length > 0 && !wrongPattern && drafts.every((d) => !d.addressIssue && !d.nameIssue),
  };
}
