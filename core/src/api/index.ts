export type { CabinetAction, CabinetDevice, CabinetFault, CabinetView, Lamp } from './cabinet';
export { COUNTERSIGN_WORDS, SEEN_AT_DEVICE, SIGN_WORDS } from './cause-words';
export { frameView, messageView, optionView } from './decoded';
export {
  differencesOf,
  docBefore,
  fieldWords,
  thingWords,
  valueWords,
  type Difference,
} from './differences';
export {
  KEY_MARK,
  spokenKey,
  type BrowserView,
  type DoorView,
  type InvitationView,
  type KeysView,
  type NewKeyView,
} from './door-views';
export { addressOrNone, drillRowsOf, expectedOf } from './drill-rows';
export { ENTERED_WORDS } from './entered-words';
export { applyHeardNews, type HeardNews, type PresentNews, type StationsNews } from './heard-news';
export type { DescriptionView, StoredPaper } from './kind-views';
export { knownOf } from './known-signs';
export type {
  ListLines,
  ListPreview,
  ListTaking,
  ListView,
  PreviewDevice,
  SheetSummary,
} from './list-views';
export { noticeWords } from './notice-words';
export { docFromView, jobViewOf, macOrNull, NOTHING_SEEN, thingsOf } from './plan-view';
export {
  DRAWN,
  type ProofDetailView,
  type ProofView,
  type ProofWish,
  type RegisterWish,
  type VigilRowView,
  type VigilView,
  type VigilWish,
} from './proof-views';
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
} from './proof-words';
export {
  cureEdits,
  cureWords,
  rackPathView,
  verdictWords,
  walkWords,
  type RackPathView,
} from './route-words';
export { issueCodes, sentenceOf } from './sentences';
export { mendWords, snagSentence } from './snag-sentences';
export { switchWords } from './switch-words';
export { turnLineOf, type TurnLine, type TurnRow } from './turn-line';
export type {
  AdapterView,
  Binding,
  DeviceInfo,
  DrillView,
  EditedView,
  EditsView,
  ErrorView,
  EvidenceView,
  EvidenceViewOf,
  FieldTaskView,
  FieldView,
  GoingOn,
  HeardView,
  InterfaceView,
  JobCounts,
  JobNews,
  JobSummary,
  JobView,
  NewEdits,
  NewSubnet,
  NotchView,
  PlanView,
  PresentView,
  ProgressView,
  ReadOff,
  RevisionEdits,
  RevisionView,
  RoundView,
  RunView,
  SeenView,
  SetBack,
  SocketView,
  StationGiving,
  StationReset,
  StationView,
  TwinView,
  WireChoice,
} from './views';
export { vigilWords, watchedFacts } from './vigil-words';
export {
  evidenceWords,
  nameSlipWords,
  returnWords,
  ROLE_WORDS,
  sourceWords,
  STAGE_WORDS,
  TWIN_WORDS,
  WAY_WORDS,
} from './words';
