import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { RoundView } from '@ipsonomo/core/api';
import type { Plan } from '@ipsonomo/core/plan';
import { costOf, roundCalls, type RoundCost } from '@ipsonomo/core/round';
import { changeSettings, roundQuery, useSettings } from '../../../data';

export interface Round {
  /** Ids of interfaces, as this person wants to walk. */
  readonly order: readonly string[];
  readonly best: RoundView | undefined;
  /** Did this person choose another order than the best? */
  readonly isOwn: boolean;
  readonly walkAs: (order: readonly string[] | undefined) => void;
}

/** The calls in the order of the round; where a person chose another order, in that. */
export function useRound(job: string): Round {
  const best = useQuery(roundQuery(job)).data;
  const { orders } = useSettings();
  const own = orders[job];
  const order = useMemo(() => merged(best?.order ?? [], own), [best, own]);
  const walkAs = (next: readonly string[] | undefined) => {
    const { [job]: _before, ...others } = orders;
    changeSettings({ orders: next ? { ...others, [job]: next } : others });
  };
  return { order, best, isOwn: own !== undefined, walkAs };
}

/** What is done leaves a person's order; what is new stands where the best order has it: at the end. */
function merged(best: readonly string[], own: readonly string[] | undefined): readonly string[] {
  if (!own) return best;
  const left = new Set(best);
  const chosen = new Set(own);
  return [...own.filter((id) => left.has(id)), ...best.filter((id) => !chosen.has(id))];
}

/** What an order of a person's own costs. */
export function costOfOrder(plan: Plan, order: readonly string[]): RoundCost {
  const calls = new Map(roundCalls(plan, new Set(order)).map((call) => [call.id, call]));
  return costOf(order.flatMap((id) => calls.get(id) ?? []));
}
