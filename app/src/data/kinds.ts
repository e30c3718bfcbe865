import { useMutation, useQuery } from '@tanstack/react-query';
import type { DescriptionView, StoredPaper } from '@ipsonomo/core';
import { postFile } from './http';

const post = <T>(job: string, what: string, file: File) =>
  postFile<T>(
    `/jobs/${job}/${what}?name=${encodeURIComponent(file.name)}`,
    file,
    'application/octet-stream',
  );

/** What a description file says; nothing is changed by reading it. */
export const useDescription = (job: string, file: File) =>
  useQuery({
    queryKey: ['description', job, file.name, file.lastModified, file.size],
    queryFn: () => post<DescriptionView>(job, 'descriptions', file),
    retry: false,
    staleTime: Infinity,
  });

/** Keeps what a paper holds; a kind of the plan then has to name it. */
export const useKeepPaper = (job: string) =>
  useMutation({ mutationFn: (file: File) => post<StoredPaper>(job, 'papers', file) });

/** Where a paper is read. */
export const paperPath = (job: string, paper: { readonly id: string; readonly name: string }) =>
  `/api/jobs/${job}/papers/${paper.id}?name=${encodeURIComponent(paper.name)}`;
