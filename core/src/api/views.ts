import type { TwinDifference } from '../answering';
import type { Issue } from '../net';
import type {
  Edit,
  EditConflict,
  CheckKind,
  EvidenceKind,
  EvidenceTold,
  Role,
  Stage,
  NoticeTold,
  ThingDoc,
  ThingType,
  ToldAs,
  Way,
} from '../plan';
import type { ProofState } from '../proof';
import type { RoundCost } from '../round';
import type { Snag } from '../snags';

// What the server tells and the app reads. Addresses and MACs are text; times are milliseconds since
// 1970 on the server's clock; what is absent is null.

export interface Left {
  /** Snags. */
  readonly plan: number;
  /** Devices whose address does not stay yet. */
  readonly assign: number;
  /** Devices given an address but not found as planned. */
  readonly prove: number;
  /** Changes since the lists were last handed over. */
  readonly handOver: number;
}

export interface BandView {
  readonly role: Role;
  readonly first: string;
  readonly last: string;
}

export interface SubnetView {
  readonly id: string;
  readonly name: string;
  readonly network: string;
  readonly gateway: string | null;
  readonly vlan: number | null;
  readonly purpose: string;
  readonly bands: readonly BandView[];
}

/** What was seen, each kind with facts of its own. */
export type EvidenceView = EvidenceTold & EvidenceHeadView;

/** The same of some kinds. */
export type EvidenceViewOf<K extends EvidenceKind> = ToldAs<K> & EvidenceHeadView;

interface EvidenceHeadView {
  readonly id: string;
  readonly at: number;
  readonly mac: string | null;
  readonly address: string | null;
  readonly source: string;
  readonly person: string;
  /** How often the same was seen again that is only counted now, and when last. */
  readonly again?: { readonly count: number; readonly until: number };
}

export interface NotchView {
  readonly stage: Stage;
  /** `read`: read off the device by a person, and not seen on the wire. */
  readonly state: 'open' | 'reached' | 'broken' | 'read';
  readonly by: EvidenceView | null;
}

/** What the evidence says of one interface. */
export interface SeenView {
  readonly stage: Stage;
  readonly notches: readonly NotchView[];
  /** The last answer to "is it found as planned?". */
  readonly check: EvidenceViewOf<CheckKind> | null;
  /** The last word on keeping the address: told, said, or refused. */
  readonly keep: EvidenceViewOf<'told-to-keep' | 'said-kept' | 'keep-refused'> | null;
  /** Where a name or a switch port is the key: the MAC that asked under it last. */
  readonly askedBy: string | null;
  /** Nothing is bound yet: the MAC that came up with the planned address by itself. */
  readonly arrived: string | null;
  /** Nothing is bound yet: the MAC that answered alone where such a device is at first. */
  readonly before: string | null;
  /** Why it is not answered although it is bound: another MAC has its address, or two share its MAC. */
  readonly trouble: EvidenceViewOf<'address-taken' | 'twins' | 'declined' | 'set-refused'> | null;
}

export interface InterfaceView extends SeenView {
  readonly id: string;
  readonly subnetId: string;
  readonly address: string;
  readonly mac: string | null;
  /** Another address that was lent to it, until then (milliseconds since 1970). */
  readonly loan: { readonly address: string; readonly until: number } | null;
}

export interface DeviceInfo {
  readonly id: string;
  readonly title: string;
  readonly name: string;
  readonly kindId: string;
  readonly way: Way;
  readonly area: string;
  readonly cabinet: string;
  readonly position: string;
  readonly interfaces: readonly InterfaceView[];
  /** What is wrong or doubtful with it or one of its interfaces, and not accepted. */
  readonly snags: readonly Snag[];
}

/** The plan as it travels: its things as text. */
export interface PlanView {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  /** The last revision that has a name, 0 for none. */
  readonly lastNamed: number;
  readonly things: Readonly<Record<ThingType, readonly ThingDoc[]>>;
}

/** How far the interfaces have come; one of which nothing was seen is left out. */
export interface ProgressView {
  /** Where it is not whole: what changed after the mark that was sent. */
  readonly seen: Readonly<Record<string, SeenView>>;
  /** The revision whose lists were handed over last. */
  readonly handedOver: number;
  /** Sent with the next question, only what changed meanwhile is told. */
  readonly mark: string;
  readonly isWhole: boolean;
}

/** That something of a job changed, told to every page: with what changed, where that is short. */
export interface JobNews {
  readonly jobId: string;
  /** The last revision of the plan where that is what changed. */
  readonly revision: number | null;
  /** What made it of the one before; null where that is long, or the same revision has a name now. */
  readonly made: { readonly person: string; readonly edits: readonly Edit[] } | null;
  /** As in what was seen: whoever has it up to here need not ask again. */
  readonly mark: string | null;
}

/** What was made of an edit: the revision, and what changed with it. */
export interface EditedView {
  readonly revision: number;
  readonly edits: readonly Edit[];
}

/** What one revision changed, and whose it is. */
export interface RevisionEdits {
  readonly number: number;
  readonly person: string;
  readonly edits: readonly Edit[];
}

/** Every revision after one, in their order. */
export interface EditsView {
  readonly revision: number;
  readonly lastNamed: number;
  readonly revisions: readonly RevisionEdits[];
}

export interface RevisionView {
  readonly number: number;
  readonly at: number;
  readonly person: string;
  /** Why, in the person's words or ours. */
  readonly what: string;
  readonly name: string | null;
  /** The revision that this one takes back. */
  readonly undoes: number | null;
  /** How many edits it has. */
  readonly count: number;
}

export interface JobView {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly subnets: readonly SubnetView[];
  readonly devices: readonly DeviceInfo[];
  readonly left: Left;
}

export interface HeardView {
  readonly mac: string;
  readonly protocol: 'BootP' | 'DHCP';
  readonly message: string;
  readonly hostName: string | null;
  readonly vendorClass: string | null;
  readonly clientId: string | null;
  readonly address: string | null;
  /** The switch port it came in at, where a relay said so; hex. */
  readonly port: { readonly circuit: string; readonly remote: string } | null;
  readonly count: number;
  readonly firstAt: number;
  readonly lastAt: number;
  /** It chose an offer under another number than it had asked under. */
  readonly changesNumber: boolean;
  /** Two devices behind this MAC: what differs, and each of them. */
  readonly twins: {
    readonly differs: readonly TwinDifference[];
    readonly voices: readonly TwinView[];
  } | null;
}

export interface TwinView {
  readonly hostName: string | null;
  readonly clientId: string | null;
  readonly vendorClass: string | null;
  readonly parameters: string | null;
  /** The switch port it came in at, where a relay said so. */
  readonly port: string | null;
  readonly transaction: string;
  readonly lastAt: number;
}

/** The calls that are left, in the best order. */
export interface RoundView {
  /** Ids of interfaces. */
  readonly order: readonly string[];
  readonly cost: RoundCost;
  /** Sent with the next question, it is told again only where it is another one. */
  readonly mark: string;
}

/** Somebody seen with an address in this run. */
export interface PresentView {
  readonly mac: string;
  readonly address: string;
  readonly lastAt: number;
}

/** A station that answered discovery over layer 2. */
export interface StationView {
  readonly mac: string;
  /** Empty where it has none; null where it did not tell. */
  readonly name: string | null;
  readonly type: string | null;
  readonly vendor: number | null;
  readonly device: number | null;
  readonly address: string | null;
  /** Another device has the address too. */
  readonly isInConflict: boolean;
  readonly firstAt: number;
  readonly lastAt: number;
}

/** What is given to a station: its name alone, or an address with it, for now or to stay. */
export interface GoingOn {
  /** Why it is done although a controller uses the device, in the person's words. */
  readonly evenSo?: string;
}

export interface StationGiving extends GoingOn {
  readonly give: 'name' | 'temporary' | 'stored';
}

export interface SetBack {
  /** Why it is free, in the person's words. */
  readonly reason: string;
}

export interface StationReset extends SetBack, GoingOn {}

export interface FieldTaskView {
  readonly kind:
    | 'check'
    | 'watch-power'
    | 'pin'
    | 'search'
    | 'flash'
    | 'station-set'
    | 'look-for-servers'
    | 'follow'
    | 'page'
    | 'sweep'
    | 'prove'
    | 'vigil'
    | 'identify'
    | 'walk';
  readonly interfaceId: string | null;
  readonly phase: string;
}

/** Which socket the cable is in, as far as listening tells. */
export interface SocketView {
  readonly neighbour: {
    readonly mac: string;
    readonly system: string;
    readonly port: string;
    readonly portDescription: string;
    readonly vlan: number | null;
    readonly address: string | null;
    readonly at: number;
  } | null;
  readonly bridge: { readonly mac: string; readonly port: number; readonly at: number } | null;
  /** VLANs whose frames come in with a tag. */
  readonly tags: readonly number[];
  readonly subnets: readonly { readonly subnetId: string; readonly count: number }[];
  readonly outside: number;
  readonly heardAt: number | null;
}

/** A cold start that is watched without a word; times in milliseconds since 1970. */
export interface DrillView {
  readonly phase: 'off' | 'on' | 'ended' | 'spoiled';
  readonly onAt: number | null;
  readonly endedAt: number | null;
  readonly rows: readonly {
    readonly mac: string;
    readonly firstAt: number;
    readonly asked: {
      readonly at: number;
      readonly message: string;
      readonly count: number;
    } | null;
    readonly answered: { readonly at: number; readonly by: string; readonly gave: string } | null;
    readonly address: { readonly value: string; readonly at: number } | null;
  }[];
}

/** Something the wire, or the server, has to say to everybody. */
type NoticeView = NoticeTold & {
  readonly at: number;
  /** Until a person has read it. */
  readonly stays: boolean;
};

export interface FieldView {
  /** The job whose wire it is. */
  readonly jobId: string;
  /** `practice`, `live:eth0`, or null while no wire is chosen. */
  readonly source: string | null;
  readonly link: 'up' | 'down' | 'gone';
  readonly runId: string | null;
  readonly voices: readonly {
    readonly subnetId: string;
    readonly address: string;
    readonly state: 'claiming' | 'ready';
  }[];
  readonly socket: SocketView;
  /** The laptop's own addresses on the adapter. */
  readonly ownAddresses: readonly string[];
  readonly answeringUntil: number | null;
  readonly answers: number;
  /** A cold start that is watched; null while none is. */
  readonly drill: DrillView | null;
  /** The run of a proof that goes on, or the last one; null while there was none. */
  readonly proof: ProofState | null;
  readonly tasks: readonly FieldTaskView[];
  readonly counters: {
    readonly received: number;
    readonly sent: number;
    readonly malformed: number;
    readonly requests: number;
    readonly strangersDropped: number;
  };
  readonly notices: readonly NoticeView[];
  /** The server's clock when this was told. */
  readonly now: number;
}

export interface AdapterView {
  readonly name: string;
  readonly mac: string;
  readonly link: 'up' | 'down';
  readonly wireless: boolean;
  readonly virtual: boolean;
  readonly addresses: readonly string[];
  /** In Mbit/s; null where it has no link, or does not say. */
  readonly speed: number | null;
  /** Frames that came in since the machine started. */
  readonly received: number;
  /** The job whose wire it is at this moment. */
  readonly job: { readonly id: string; readonly name: string } | null;
}

export interface RunView {
  readonly id: string;
  readonly source: string;
  readonly startedAt: number;
  readonly endedAt: number | null;
  readonly person: string;
}

export interface ErrorView {
  readonly code: string;
  readonly issues: readonly Issue[];
  /** Where two people changed the same: each field with what both saw, what is there, what was wanted. */
  readonly conflicts?: readonly EditConflict[];
}

// What the app sends.

export interface NewEdits {
  readonly edits: readonly Edit[];
  readonly why: string;
}

export interface NewSubnet {
  readonly name: string;
  readonly network: string;
  readonly gateway: string | null;
  readonly vlan: number | null;
  readonly purpose: string;
}

export interface Binding {
  readonly mac: string;
  /** What the person read off the label, as typed; empty where they confirmed it by eye. */
  readonly label: string;
  /** Why it is bound although the label reads otherwise. */
  readonly reason?: string;
}

/** What a person read off a device, as typed or copied. */
export interface ReadOff {
  readonly from: 'display' | 'page';
  readonly text: string;
}

export type WireChoice = (
  { readonly kind: 'practice' } | { readonly kind: 'live'; readonly adapter: string }
) & {
  /** Although somebody else listens on the wire that is chosen now. */
  readonly evenSo?: boolean;
};
