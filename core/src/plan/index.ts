export { firstRealm, subnetEdit } from './new-subnet';
export { CARD_WORDS, cardFile, type CardFile, type CardForm } from './card-file';
export {
  avoidedFor,
  checkAddress,
  checkSubnet,
  defaultBands,
  isStillHeld,
  nextFree,
  voiceAddress,
  type Avoided,
} from './allocate';
export {
  endWithBytes,
  instancesOf,
  measureEnd,
  moduleBytes,
  offeredBytes,
  type Measured,
} from './connection-sizes';
export {
  docFromThings,
  docOf,
  docOfPlan,
  findDoc,
  firstDoc,
  readThing,
  type PlanDoc,
} from './document';
export {
  returnOf,
  returnsOf,
  worstFirst,
  type DrillRow,
  type DrillState,
  type Expected,
  type Returned,
} from './drill';
export {
  applyEdits,
  changeOf,
  diffDocs,
  docBefore,
  inverseOf,
  readEdits,
  type Edit,
  type EditConflict,
} from './edits';
export { unite, type RevisionMade, type Side, type United, type UnitedClash } from './unite';
export {
  CHECK_KINDS,
  EVIDENCE_KINDS,
  factOf,
  FOUND_VALUES,
  isOneOf,
  readEvidence,
  type CheckFacts,
  type CheckKind,
  type Evidence,
  type EvidenceKind,
  comesByItself,
  type EvidenceTold,
  type Facts,
  type FactsOf,
  type FoundValue,
  type ToldAs,
} from './evidence';
export {
  guideOf,
  kindShape,
  MOST_PAPER,
  MOST_SLOT,
  offeredSize,
  pagePortOf,
  PROTOCOLS,
  speaksEnip,
  type FactoryState,
  type Guide,
  type Kind,
  type ConnectionOffer,
  type ModuleOffer,
  type Paper,
} from './kind';
export { LAPTOP_SYSTEMS, laptopAddress, laptopCommands, type LaptopSystem } from './laptop';
export { addressNow, nextLoanEnd, proposeLoan } from './loan';
export {
  addressesServing,
  findDevice,
  findInterface,
  findSubnet,
  FIRST_REALM,
  FIRST_SETTINGS,
  gatewayOf,
  givenAddresses,
  interfacesOf,
  maskLengthOf,
  subnetInterfaces,
  toDevice,
  toInterface,
  toPlan,
  toSubnet,
  type Acceptance,
  type Band,
  type BandRow,
  type Block,
  type Cable,
  type Connection,
  type ConnectionEnd,
  type Device,
  type Freed,
  type Interface,
  type Need,
  type Plan,
  type PlannedInterface,
  type Realm,
  type Subnet,
} from './model';
export {
  dhcpNameOf,
  dhcpNamesOf,
  namePatternOf,
  proposedName,
  proposedSwitchName,
  isFoundByStationName,
  stationNameOf,
  variableOf,
} from './naming';
export { notHeardCauses, patienceFor, type NotHeardCause, type Silence } from './not-heard';
export type { NoticeCode, NoticeFacts, NoticeTold, TellNotice } from './notices';
export {
  offersFor,
  stationsFor,
  type OfferClient,
  type OfferReason,
  type OfferStation,
} from './offers';
export { oncePer } from './once';
export {
  connectionOffered,
  endOffered,
  isFieldOf,
  offerEdits,
  offersOf,
} from './offered-connection';
export { planOf } from './plan-of';
export { factsOfRead, judgeRead, labelsIn, nameSlip, readValues, typingSlip } from './read-off';
export { isObject, sameJson, sha256, type Json, type JsonObject } from './shape';
export {
  A_DIAL,
  A_DIP_ROW,
  A_MEANING,
  ACT_ANSWERS,
  FACTORY_ANSWERS,
  kindOfAnswers,
  NO_ANSWERS,
  type AnswerIssues,
  type ElementAnswer,
  type KindAnswers,
  type MeaningAnswer,
} from './short-kind';
export { toKind } from './shelf/build';
export {
  findKind,
  findShelfKind,
  kindsOf,
  OTHER_DEVICE,
  OTHER_SILENT_DEVICE,
  SHELF,
} from './shelf/index';
export { hostsOf, lengthFor, repackBlock, splitBlock, type Split } from './split';
export { countingMac, progressOf, STAGE_EVIDENCE, STAGES, type Stage } from './stages';
export { swapOf, type SwapStep } from './swap';
export { wantedSetting } from './switch-setting';
export { editsOfTakingOut } from './take-out';
export type { ThingDoc } from './thing-map';
export { deviceShape, needShape, shapeOf, THING_TYPES, type ThingType } from './things';
export {
  isAsking,
  isByHand,
  isKeyed,
  isNamedOverLayer2,
  ROLES,
  WAY_WORDS,
  WAYS,
  type Role,
  type Way,
} from './words';
