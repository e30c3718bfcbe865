export { decide } from './decide';
export type { AnswerEntry, Verdict } from './entry';
export {
  forgetTwins,
  hear,
  mayBeTwins,
  traitsOf,
  type HeardClient,
  type TwinDifference,
} from './heard';
export { isPort, namesSaid, portText, relayPortOf, type RelayPort } from './recognise';
export { asksAnew, serverChosenBy } from './request';
