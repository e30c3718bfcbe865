import { assignActs } from './assign';
import { doorActs, houseActs } from './door';
import { jobActs } from './jobs';
import { fileActs } from './files';
import { proofActs } from './proofs';
import { wireActs } from './wire';

export { assignActs, doorActs, fileActs, houseActs, jobActs, proofActs, wireActs };

/** Everything that can be asked of the server, by name. */
export const acts = {
  ...jobActs,
  ...fileActs,
  ...assignActs,
  ...proofActs,
  ...wireActs,
  ...doorActs,
  ...houseActs,
} as const;

export type ActName = keyof typeof acts;
