export { acts, hasRight, keys } from '@ipsonomo/contract';
export { reading, useAct, useActOn, useEdit, type Acting } from './act';
export { planQuery } from './plan-now';
export type { PlanNow } from './plan-state';
export * from './queries';
export * from './job';
export { usePlan } from './use-plan';
export { JobProvider, useJobHere } from './job-here';
export type { Clash } from './clashes';
export * from './cabinet';
export * from './settings';
export * from './files';
export { fetchPieces, hearCapture, type HeardCapture } from './captures';
export { readPicture } from './label-picture';
export { photoOf, photoUrl } from './photo';
export { carriedUrl, useCarried, useCarry } from './carried-papers';
export {
  foundRoutesQuery,
  lanesQuery,
  neededRoutesQuery,
  whatIfQuery,
  type NeededRoute,
} from './needed-routes';
export * from './vigil';
export * from './lists';
export { usePackage, type PackageNow } from './packages';
export { useRoundTimes } from './round-times';
export * from './kinds';
export * from './field';
export { useOthersAnswering, type FieldNow, type Traffic } from './wire-news';
export { useNow, useTimeOf } from './use-now';
export { useAway, useServerEvents } from './events';
export { useDatabaseAway, useServers } from './servers';
export { ApiError, isLocked, pathOf } from './http';
export type { WaitingAct } from './outbox';
export { outbox, useHeld } from './waiting';
export {
  askedAnew,
  useDoor,
  useEnter,
  useIsDemo,
  useKeys,
  useMe,
  usePeople,
  useSignIn,
} from './door';
export { giveName, leaveUnnamed, useNameAsked, whoDecides } from './named';
export { keepApplication } from './service-worker';
export { newId } from './new-id';
