import { queryOptions, useMutation, useQueryClient } from '@tanstack/react-query';
import type { VigilView, VigilWish } from '@ipsonomo/core';
import { get, post, remove } from './http';
import { keys } from './queries';

/** The vigil of a job, read anew while it goes on. */
export const vigilQuery = (job: string) =>
  queryOptions({
    queryKey: [...keys.job(job), 'vigil'],
    queryFn: () => get<VigilView>(`/jobs/${job}/vigil`),
    refetchInterval: ({ state }) => (state.data?.state?.how === null ? 1000 : false),
  });

function useVigilMutation<T>(job: string, act: (input: T) => Promise<unknown>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: act,
    onSuccess: () => client.invalidateQueries({ queryKey: keys.job(job) }),
  });
}

export const useStartVigil = (job: string) =>
  useVigilMutation(job, (wish: VigilWish) => post(`/jobs/${job}/vigil`, wish));

export const useStopVigil = (job: string) =>
  useVigilMutation<void>(job, () => remove(`/jobs/${job}/vigil`));
