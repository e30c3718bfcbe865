import { useQuery } from '@tanstack/react-query';
import type { TakenCallView } from '@ipsonomo/core/api';
import { acts, reading, useTimeOf } from '../../../data';

/** Who is at a device; undefined where nobody is, or not any more. Drawn again only where that changes. */
export function useTakenCall(job: string, id: string): TakenCallView | undefined {
  const { data: one } = useQuery({
    ...reading(acts.listTakenCalls, { job }),
    select: (all) => all.find((each) => each.interface === id),
  });
  const now = useTimeOf(one ? [one.until] : NEVER);
  return one && one.until > now ? one : undefined;
}

const NEVER: readonly number[] = [];
