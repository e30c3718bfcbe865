// What people read: the one language there is. Everything here is made of values, and never stored.
export { COUNTERSIGN_WORDS, SEEN_AT_DEVICE, SIGN_WORDS } from './en/causes';
export { frameView, messageView, optionView } from './en/decoded';
export {
  differencesOf,
  docBefore,
  fieldWords,
  thingWords,
  valueWords,
  type Difference,
} from './en/differences';
export { ENTERED_WORDS } from './en/entered';
export { noticeWords } from './en/notices';
export {
  DIFFERENCE_HEADS,
  DIFFERENCE_TITLES,
  differenceWords,
  FOUND_WORDS,
  foundWords,
  ownerTitle,
  proofEndWords,
  SETTLEMENT_WORDS,
  strangerPlace,
  strangerWords,
} from './en/proofs';
export {
  cureEdits,
  cureWords,
  rackPathView,
  verdictWords,
  walkWords,
  type RackPathView,
} from './en/routes';
export { issueCodes, sentenceOf } from './en/refusals';
export { mendWords, snagSentence } from './en/snags';
export { switchWords } from './en/switches';
export { turnLineOf, type TurnLine, type TurnRow } from './en/turn-line';
export { vigilWords } from './en/vigils';
export {
  evidenceWords,
  nameSlipWords,
  returnWords,
  ROLE_WORDS,
  sourceWords,
  STAGE_WORDS,
  TWIN_WORDS,
} from './en/evidence';
