export { roundCalls, type RoundCall } from './call';
export { carriedFor, type Carried } from './carry';
export { chainsOf } from './chains';
export { compareCosts, costOf, NO_COST, type RoundCost } from './cost';
export { orderRound } from './order';
export {
  estimateRound,
  type CabinetTime,
  type EstimateWish,
  type RoundEstimate,
  type Saving,
} from './play/estimate';
export { playRound, type Played, type PlayWish, type WaitedFor } from './play/play';
export { USUAL_PACE, workOf, type Work, type WorkPart } from './play/work';
