import type {
  AdapterView,
  AuthorityView,
  BundleTaken,
  CabinetView,
  DescriptionView,
  DoorView,
  EditedView,
  EditsView,
  ErrorView,
  EvidenceView,
  FieldView,
  HeardView,
  JobSummary,
  JoinedView,
  KeysView,
  ListLines,
  ListPreview,
  ListView,
  MeView,
  NewKeyView,
  NewProgramView,
  PeopleView,
  PlanView,
  PresentView,
  ProgressView,
  ProofDetailView,
  ProofView,
  RehearsalView,
  RevisionView,
  TakenCallView,
  HandedOver,
  KindsElsewhere,
  KindsTaken,
  PackageView,
  RoundTimes,
  RoundView,
  RunView,
  ServersView,
  SilencedView,
  StationView,
  StoredPaper,
  VigilView,
  WrittenTick,
} from '@ipsonomo/core/api';

/** Something new, by its id. */
export interface Added {
  readonly id: string;
}

/** Where the page of a device is read. */
export interface OpenedAt {
  /** Of this server. */
  readonly port: number;
  /** With a key that is good for this opening. */
  readonly path: string;
}

/** Whether what somebody says is wrong is. */
export interface Claimed {
  readonly isRight: boolean;
}

/** Whether the database answers. */
export interface Health {
  readonly database: boolean;
}

/** Files that wait to be read, whoever sent them. */
export interface Readings {
  readonly waiting: number;
}

/** All that the stream of news would tell from its beginning, and the number of the last of it. */
export interface StateView {
  readonly id: string;
  readonly news: readonly (readonly [name: string, data: unknown])[];
}

/** What is answered, by name. */
export interface Views {
  readonly Adapters: readonly AdapterView[];
  readonly Added: Added;
  readonly Authority: AuthorityView;
  readonly BundleTaken: BundleTaken;
  readonly Cabinet: CabinetView;
  readonly Claimed: Claimed;
  readonly Description: DescriptionView;
  readonly Door: DoorView;
  readonly Edited: EditedView;
  readonly Edits: EditsView;
  readonly Error: ErrorView;
  readonly Evidence: readonly EvidenceView[];
  readonly Field: FieldView;
  readonly Health: Health;
  readonly Heard: readonly HeardView[];
  readonly Jobs: readonly JobSummary[];
  readonly Keys: KeysView;
  readonly List: ListView;
  readonly ListLines: ListLines;
  readonly ListPreview: ListPreview;
  readonly Me: MeView;
  readonly NewKey: NewKeyView;
  readonly NewProgram: NewProgramView;
  readonly People: PeopleView;
  readonly OpenedAt: OpenedAt;
  readonly HandedOver: readonly HandedOver[];
  readonly Package: PackageView;
  readonly Paper: StoredPaper;
  readonly Plan: PlanView;
  readonly Present: readonly PresentView[];
  readonly Progress: ProgressView;
  readonly Proof: ProofDetailView;
  readonly Proofs: readonly ProofView[];
  readonly Readings: Readings;
  readonly Rehearsal: RehearsalView;
  readonly Revisions: readonly RevisionView[];
  /** The mark alone where it is the one that was sent. */
  readonly Round: RoundView | Pick<RoundView, 'mark'>;
  readonly Joined: JoinedView;
  readonly KindsElsewhere: readonly KindsElsewhere[];
  readonly KindsTaken: KindsTaken;
  readonly RoundTimes: RoundTimes;
  readonly Runs: readonly RunView[];
  readonly Servers: ServersView;
  readonly Silenced: SilencedView;
  readonly TakenCalls: readonly TakenCallView[];
  readonly State: StateView;
  readonly Stations: readonly StationView[];
  readonly Vigil: VigilView;
  readonly WrittenTicks: readonly WrittenTick[];
  readonly Wires: readonly FieldView[];
}
