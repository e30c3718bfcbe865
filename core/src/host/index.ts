export { nextHopOf, nextTickOf, stepHost } from './host';
export {
  newHost,
  RFC_5227_TIMING,
  type ClaimTiming,
  type HostAddress,
  type HostInput,
  type HostNews,
  type HostState,
  type HostTraits,
} from './state';
