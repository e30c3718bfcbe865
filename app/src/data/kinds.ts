import { useQuery } from '@tanstack/react-query';
import { acts } from '@ipsonomo/contract';
import { ask, pathOf } from './http';

/** What a description file says; nothing is changed by reading it. */
export const useDescription = (job: string, file: File) =>
  useQuery({
    queryKey: ['description', job, file.name, file.lastModified, file.size],
    queryFn: () => ask(acts.describe, { job }, { body: file, query: { name: file.name } }),
    retry: false,
    staleTime: Infinity,
  });

/** Where a paper is read. */
export const paperPath = (
  job: string,
  { id, name }: { readonly id: string; readonly name: string },
) => pathOf(acts.fetchPaper, { job, paper: id }, { name });
