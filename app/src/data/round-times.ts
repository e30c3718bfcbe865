import { useQuery } from '@tanstack/react-query';
import { acts, keys } from '@ipsonomo/contract';
import type { RoundTimesWish } from '@ipsonomo/core/api';
import { ask } from './http';

/**
 * How long a round takes, walked so.
 * @param mark of the round that it is about; where it is another, it is played anew
 */
export const useRoundTimes = (job: string, wish: RoundTimesWish, mark: string | undefined) =>
  useQuery({
    queryKey: [...keys.round(job), 'times', wish, mark],
    queryFn: () => ask(acts.timeRound, { job }, { body: wish }),
    enabled: mark !== undefined,
    placeholderData: (before) => before,
  });
