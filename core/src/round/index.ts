export { roundCalls, type RoundCall } from './call';
export { carriedFor, type Carried } from './carry';
export { chainsOf } from './chains';
export { compareCosts, costOf, NO_COST, type RoundCost } from './cost';
export { orderRound } from './order';
