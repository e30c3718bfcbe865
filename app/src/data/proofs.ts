import { queryOptions, useMutation, useQueryClient } from '@tanstack/react-query';
import type { ProofDetailView, ProofView, ProofWish } from '@ipsonomo/core';
import { get, post, remove } from './http';
import { keys } from './queries';

/** The runs of a job, newest first. */
export const proofsQuery = (job: string) =>
  queryOptions({
    queryKey: [...keys.job(job), 'proofs'],
    queryFn: () => get<readonly ProofView[]>(`/jobs/${job}/proofs`),
  });

/** One run with all that it found. */
export const proofQuery = (job: string, id: string) =>
  queryOptions({
    queryKey: [...keys.job(job), 'proofs', id],
    queryFn: () => get<ProofDetailView>(`/jobs/${job}/proofs/${id}`),
  });

function useProofMutation<T>(job: string, act: (input: T) => Promise<unknown>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: act,
    onSuccess: () => client.invalidateQueries({ queryKey: keys.job(job) }),
  });
}

export const useBeginProof = (job: string) =>
  useProofMutation(job, (wish: ProofWish) => post(`/jobs/${job}/proofs`, wish));

/** Asks for what a run has not asked for yet. */
export const useGoOnProof = (job: string) =>
  useProofMutation(job, ({ id, perSecond }: { readonly id: string; readonly perSecond: number }) =>
    post(`/jobs/${job}/proofs/${id}/go-on`, { perSecond }),
  );

export const useStopProof = (job: string) =>
  useProofMutation<void>(job, () => remove(`/jobs/${job}/proof`));
