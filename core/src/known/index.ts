export {
  addressEdits,
  compareKnown,
  knownEdits,
  type KnownFinding,
  type KnownVerdict,
} from './compare';
export { readKnown, type Known, type KnownEntry, type KnownKind } from './read';
