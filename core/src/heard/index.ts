export { stationOfEntry, stationsAgainst, strangersIn, type StationFinding } from './against';
export { HeardBook } from './book';
export { emptyStation, type HeardStation, type SaidIdentity, type SaidNetwork } from './station';
export { subnetsHeard, type HeardSubnet } from './subnets';
export { takeFound, type Taken, type TakeWish } from './take';
