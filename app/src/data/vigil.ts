import { queryOptions } from '@tanstack/react-query';
import { acts } from '@ipsonomo/contract';
import { reading } from './act';

/** The vigil of a job, read anew while it goes on. */
export const vigilQuery = (job: string) =>
  queryOptions({
    ...reading(acts.readVigil, { job }),
    refetchInterval: ({ state }) => (state.data?.state?.how === null ? 1000 : false),
  });
