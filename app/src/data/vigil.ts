import { acts } from '@ipsonomo/contract';
import { reading } from './act';

interface VigilState {
  readonly state: {
    readonly data: { readonly state: { readonly how: unknown } | null } | undefined;
  };
}

/** The vigil of a job, read anew while it goes on. */
export const vigilQuery = (job: string) => ({
  ...reading(acts.readVigil, { job }),
  refetchInterval: ({ state }: VigilState) => (state.data?.state?.how === null ? 1000 : false),
});
