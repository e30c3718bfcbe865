export {
  fileName,
  leftOut,
  type Format,
  type Material,
  type ProofRecord,
  type Sealed,
  type Tick,
  type Seen,
  type Written,
  type WrittenFile,
} from './format';
export { FORMATS_WRITTEN, formatOf } from './registry';
export { fingerprintOf } from './formats/proof/chain';
export { verifyProof, type ProofFault, type Verified } from './formats/proof/verify';
export { materialOf, type MaterialWish } from './material';
