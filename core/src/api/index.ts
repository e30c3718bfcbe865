export type { CabinetAction, CabinetDevice, CabinetFault, CabinetView, Lamp } from './cabinet';
export {
  KEY_MARK,
  spokenKey,
  type BrowserView,
  type AuthorityView,
  type DoorView,
  type InvitationView,
  type KeysView,
  type NewKeyView,
} from './door-views';
export { addressOrNone, drillRowsOf, expectedOf } from './drill-rows';
export { applyHeardNews, type HeardNews, type PresentNews, type StationsNews } from './heard-news';
export type { DescriptionView, StoredPaper } from './kind-views';
export { knownOf } from './known-signs';
export type {
  BadListCell,
  ListLines,
  ListPreview,
  ListTaking,
  UpdatePreview,
  ListView,
  PreviewDevice,
  SheetSummary,
} from './list-views';
export {
  PASSWORD,
  ROLES,
  type AccountView,
  type MeView,
  type NewProgramView,
  type PeopleView,
  type Role,
  type SendGrantView,
} from './people-views';
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
  JobNews,
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
export { watchedFacts } from './watched-facts';
export {
  MISTAKE_KINDS,
  MISTAKES_AT_NOBODY,
  type FoundMistake,
  type Mistake,
  type MistakeClaim,
  type MistakeKind,
  type MistakeWish,
  type NewRehearsal,
  type RehearsalView,
  type Unrehearsed,
} from './rehearsal';
export type { JobCounts, JobSummary, Rehearsed } from './job-summary';
export {
  AT_ONCE,
  interfacesInPart,
  WHOLE_JOB,
  FORMATS,
  FORMATS_FOR,
  LEFT_REASONS,
  LIST_OUT,
  NO_OPTIONS,
  readerOf,
  READERS,
  STOCKS,
  type FormatId,
  type FormatLeft,
  type HandedOver,
  type HandOverOptions,
  type HandOverScope,
  type LeftOut,
  type LeftReason,
  type ListOut,
  type PackageFile,
  type PackageView,
  type PackageWish,
  type Reader,
  type SaidWritten,
  type Stock,
  type WrittenTick,
} from './hand-over';
export type { KindElsewhere, KindsElsewhere, KindsTaken } from './kinds-elsewhere';
export type { RoundTimes, RoundTimesWish } from './round-times';
export { adapterOf } from './wire-source';
export type { Noted, TakenCallView, TakingCall } from './taken-call-views';
export type { BundleTaken, ClashView, JoinedView } from './bundle-views';
export type { ServersView, ServerView, SilencedView, WireElsewhere } from './server-views';
