export { likelyCauses, type LikelyCause } from './likely';
export { CAUSES, type CauseAct, type CauseId } from './rules';
export { knownSince, SIGNS, signsOf, type Countersign, type Known, type Sign } from './signs';
