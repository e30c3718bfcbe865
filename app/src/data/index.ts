export * from './queries';
export * from './job';
export type { Clash } from './clashes';
export * from './mutations';
export * from './settings';
export * from './files';
export { readPicture } from './label-picture';
export {
  foundRoutesQuery,
  lanesQuery,
  neededRoutesQuery,
  whatIfQuery,
  type NeededRoute,
} from './needed-routes';
export * from './proofs';
export * from './vigil';
export * from './lists';
export * from './kinds';
export * from './field';
export { useNow } from './use-now';
export { useAway, useServerEvents } from './events';
export { ApiError } from './http';
export { askedAnew, isLocked, useDoor, useEnter, useKeys, useNewKey, useTakeKeyBack } from './door';
export { newId } from './new-id';
