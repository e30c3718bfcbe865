export { formatIpv4, LIMITED_BROADCAST, parseIpv4, toIpv4, UNSPECIFIED, type Ipv4 } from './ipv4';
export type { IssueCode, IssueFacts, IssueFamily, Misfit, Unread } from './issues';
export {
  checkLabel,
  judgeLabel,
  parseLabel,
  type DigitCheck,
  type LabelReading,
  type LabelVerdict,
} from './label';
export {
  BROADCAST_MAC,
  formatMac,
  isDeviceMac,
  isGroupMac,
  macDigits,
  parseMac,
  toMac,
  ZERO_MAC,
  type MacAddress,
} from './mac';
export {
  broadcastOf,
  containsAddress,
  containsPrefix,
  firstHostOf,
  formatPrefix,
  hostCountOf,
  isSamePrefix,
  lastHostOf,
  lastOf,
  lengthOfMask,
  maskOf,
  overlaps,
  parseMask,
  parsePrefix,
  parsePrefixLength,
  readMask,
  readNetwork,
  prefixOf,
  roleOf,
  sizeOf,
  toPrefixLength,
  type Prefix,
  type PrefixLength,
} from './prefix';
export { rangeHas, toRange, type AddressRange } from './range';
export {
  fail,
  issueOf,
  must,
  ok,
  refuse,
  type FactsArgument,
  type Issue,
  type Result,
} from './result';
export { specialBlocksOf, specialBlocksWithin } from './special';
