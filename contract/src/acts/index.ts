import { assignActs } from './assign';
import { bundleActs } from './bundles';
import { doorActs, houseActs } from './door';
import { handOverActs } from './hand-over';
import { jobActs } from './jobs';
import { fileActs } from './files';
import { peopleActs } from './people';
import { proofActs } from './proofs';
import { rehearsalActs } from './rehearsals';
import { wireActs } from './wire';

export {
  assignActs,
  bundleActs,
  doorActs,
  fileActs,
  handOverActs,
  houseActs,
  jobActs,
  peopleActs,
  proofActs,
  rehearsalActs,
  wireActs,
};

/** Everything that can be asked of the server, by name. */
export const acts = {
  ...jobActs,
  ...bundleActs,
  ...fileActs,
  ...assignActs,
  ...proofActs,
  ...handOverActs,
  ...wireActs,
  ...rehearsalActs,
  ...peopleActs,
  ...doorActs,
  ...houseActs,
} as const;

export type ActName = keyof typeof acts;
