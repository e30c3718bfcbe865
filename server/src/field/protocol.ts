import type { HeardClient, RelayPort } from '@ipsonomo/core/answering';
import type { FieldTaskView } from '@ipsonomo/core/api';
import {
  issueOf,
  type FactsArgument,
  type Ipv4,
  type Issue,
  type IssueCode,
  type MacAddress,
  type PrefixLength,
} from '@ipsonomo/core/net';
import type { DrillState, EvidenceKind, FactsOf, NoticeTold, Way } from '@ipsonomo/core/plan';
import type { PlannedProof, ProofState } from '@ipsonomo/core/proof';
import type { VigilState } from '@ipsonomo/core/vigil';
import type { Neighbour, PortSegment, Station, Stay, TreeBridge } from '@ipsonomo/core/wire';
import type { MessagePort } from 'node:worker_threads';
import type { SharedVigil } from '../common/vigil-ring';
import type { LinkState } from './carrier';
import type { Sighting } from './present';

// What the main thread and the field worker say to each other.

/** One interface of the plan, as far as the wire needs to know it. */
export interface FieldTarget {
  readonly interfaceId: string;
  readonly jobId: string;
  readonly title: string;
  readonly subnetId: string;
  readonly mac: MacAddress | undefined;
  /** By what its requests are known. */
  readonly key:
    | { readonly by: 'mac' }
    /** One character a byte. */
    | { readonly by: 'name'; readonly name: string }
    | { readonly by: 'port'; readonly port: RelayPort | undefined };
  readonly address: Ipv4;
  /** Undefined where it is the planned one; else it is lent until then. */
  readonly lentUntil: number | undefined;
  readonly length: PrefixLength;
  readonly gateway: Ipv4 | undefined;
  readonly hostName: string;
  readonly way: Way;
  /** Its name over layer 2. */
  readonly stationName: string;
  readonly answersPing: boolean;
  /** What has to be seen of its MAC to count as heard: depends on its way. */
  readonly heardBy: EvidenceKind;
  /** From power on to its first request: it cannot be back sooner. */
  readonly bootSeconds: number;
  /** By the evidence so far it has its address. */
  readonly holds: boolean;
  /** Where such a device is as it left its maker. */
  readonly factory: Ipv4 | undefined;
  /** It can be asked who it is (EtherNet/IP). */
  readonly hasIdentity: boolean;
  /** The hardware or firmware its kind stands for; empty where it stands for any. */
  readonly revision: string;
  /** What it has to show to count as proven. */
  readonly proof: Omit<PlannedProof, 'mac' | 'stationName' | 'mask' | 'gateway'>;
  /** The controller that the plan has for it. */
  readonly controller: string;
  /** Where that controller is. */
  readonly controllerAt: readonly Ipv4[];
  /** The TCP port of its web page. */
  readonly page: number | undefined;
}

/** Keeps something that was seen of a planned interface and its bound MAC. */
export type RecordEvidence = <K extends EvidenceKind>(
  kind: K,
  target: FieldTarget,
  facts: FactsOf<K>,
  more: {
    /** The frame that showed it. */
    readonly frame?: Uint8Array;
    /** Who asked for it; else it is the person who let Ipsonomo answer. */
    readonly person?: string;
    /** When it was seen, where that was before now. */
    readonly at?: number;
  },
) => void;

export interface FieldSubnet {
  readonly id: string;
  readonly name: string;
  readonly network: Ipv4;
  readonly length: PrefixLength;
  readonly gateway: Ipv4 | undefined;
  /** Addresses Ipsonomo may speak from, best first. */
  readonly voices: readonly Ipv4[];
  /** DHCP servers that are meant to be there. */
  readonly servers: readonly Ipv4[];
}

export interface FieldPlan {
  readonly jobId: string;
  readonly targets: readonly FieldTarget[];
  readonly subnets: readonly FieldSubnet[];
}

/** A plan as the wire is told of it. */
export interface PlanNews extends FieldPlan {
  /** False where `targets` holds only what changed since it was told last. */
  readonly isWhole: boolean;
  /** Ids of interfaces that are not in it any more. */
  readonly gone: readonly string[];
}

/** One register of a device, or of one on a line behind it. */
export interface RegisterQuestion {
  readonly tcpPort: number;
  /** Behind a gateway; 255 for the device itself. */
  readonly unit: number;
  readonly area: 'holding' | 'input';
  /** Counted from 0. */
  readonly register: number;
  /** As a person writes it. */
  readonly written: string;
  readonly person: string;
}

export type FieldCommand =
  | { readonly kind: 'open-practice'; readonly port: MessagePort }
  | { readonly kind: 'open-live'; readonly adapter: string }
  | { readonly kind: 'plan'; readonly plan: PlanNews }
  | { readonly kind: 'listen'; readonly runId: string }
  | { readonly kind: 'rest' }
  /** Answer bound devices for so many milliseconds. */
  | { readonly kind: 'arm'; readonly millis: number; readonly person: string }
  | { readonly kind: 'silence' }
  /** A person says that one device alone has this MAC. */
  | { readonly kind: 'one-device'; readonly mac: MacAddress }
  /** A person has read a notice. */
  | { readonly kind: 'notice-read'; readonly code: string; readonly at: number }
  /** Who let it answer is away: it stops answering. */
  | { readonly kind: 'page-lost' }
  | {
      readonly kind: 'check';
      readonly interfaceIds: readonly string[];
      readonly person: string;
    }
  | {
      readonly kind: 'watch-power' | 'pin';
      readonly interfaceId: string;
      readonly person: string;
      /** Why it is done although a controller uses the device; undefined while nobody said so. */
      readonly evenSo: string | undefined;
    }
  /** Follow a device that is given its address by hand. */
  | { readonly kind: 'follow'; readonly interfaceId: string; readonly person: string }
  | {
      readonly kind: 'walk';
      readonly interfaceId: string;
      readonly subnetId: string;
      readonly person: string;
    }
  | { readonly kind: 'open-page'; readonly interfaceId: string; readonly person: string }
  | { readonly kind: 'close-page' }
  /** One connection of a browser to the open page. */
  | { readonly kind: 'converse'; readonly port: MessagePort }
  /** A cold start: about to be switched off, on again, over. */
  | { readonly kind: 'drill'; readonly step: 'begin' | 'on' | 'end'; readonly person: string }
  /** Prove these; everybody else on the wire is looked for too, unless only the rest of a run is asked. */
  | {
      readonly kind: 'prove';
      readonly proofId: string;
      readonly interfaceIds: readonly string[];
      readonly perSecond: number;
      readonly person: string;
    }
  | { readonly kind: 'prove-stop' }
  /** Who is at the end of a route path, asked along it. */
  | {
      readonly kind: 'ask-path';
      readonly entry: string;
      readonly interfaceId: string;
      readonly route: readonly PortSegment[];
      readonly person: string;
    }
  /** Read one register. */
  | ({ readonly kind: 'read-register'; readonly interfaceId: string } & RegisterQuestion)
  /** Ask these in a steady beat. */
  | {
      readonly kind: 'vigil';
      readonly interfaceIds: readonly string[];
      readonly everyMillis: number;
      readonly millis: number;
      readonly person: string;
    }
  | { readonly kind: 'vigil-stop' }
  /** Ask for every address. */
  | { readonly kind: 'sweep' }
  /** Stations over layer 2. */
  | { readonly kind: 'search' }
  | { readonly kind: 'flash'; readonly mac: MacAddress }
  | {
      readonly kind: 'give-station';
      readonly interfaceId: string;
      readonly giving: Giving;
      readonly person: string;
      readonly evenSo: string | undefined;
    }
  | {
      readonly kind: 'reset-station';
      readonly interfaceId: string;
      readonly reason: string;
      readonly person: string;
      readonly evenSo: string | undefined;
    };

/** The name alone, or an address with it: for now, or to stay. */
export type Giving = Stay | 'name';

/** A station that answered discovery, and the frame that showed it. */
export interface FoundStation {
  readonly station: Station;
  readonly firstAt: number;
  readonly lastAt: number;
  readonly frame: Uint8Array;
}

/** A command on its way, to be answered by its number. */
export interface FieldCall {
  readonly id: number;
  readonly command: FieldCommand;
}

/** Something that was seen, in the order it was seen. */
export interface FieldEvent {
  readonly runId: string;
  readonly jobId: string;
  /** Counts from 1 within the run. */
  readonly sequence: number;
  readonly at: number;
  readonly interfaceId: string;
  readonly kind: EvidenceKind;
  readonly mac: MacAddress | undefined;
  readonly address: Ipv4 | undefined;
  readonly source: string;
  readonly person: string;
  readonly facts: Readonly<Record<string, string | number>>;
  /** The frame that showed it, hex. */
  readonly bytes: string | undefined;
}

/** Which socket the cable is in, as far as listening tells. */
export interface SocketStatus {
  /** What the switch says of its port. */
  readonly neighbour: (Neighbour & { readonly at: number }) | undefined;
  /** Who sends the spanning tree's frames. */
  readonly bridge: (TreeBridge & { readonly at: number }) | undefined;
  /** VLANs whose frames came in with a tag: the port is one of several networks. */
  readonly tags: readonly number[];
  /** How many devices with an address of a planned subnet were seen. */
  readonly subnets: readonly { readonly subnetId: string; readonly count: number }[];
  /** How many with an address of none. */
  readonly outside: number;
  /** When anything was heard last. */
  readonly heardAt: number | undefined;
}

export interface VoiceState {
  readonly subnetId: string;
  readonly address: Ipv4;
  readonly state: 'claiming' | 'ready';
}

/** The web page of a device that a person opened. */
export interface OpenPage {
  readonly interfaceId: string;
  /** Where the device is. */
  readonly address: Ipv4;
}

/** A notice for the link line. */
export type FieldNotice = NoticeTold & { readonly at: number };

export interface FieldStatus {
  /** `practice`, `live:eth0`, or undefined while no wire is chosen. */
  readonly source: string | undefined;
  readonly mac: MacAddress | undefined;
  readonly link: LinkState;
  readonly jobId: string | undefined;
  readonly runId: string | undefined;
  readonly voices: readonly VoiceState[];
  readonly socket: SocketStatus;
  readonly page: OpenPage | undefined;
  readonly drill: DrillState;
  /** The run of a proof that goes on, or the last one. */
  readonly proof: ProofState | undefined;
  /** The vigil that goes on, or the last one. */
  readonly vigil: VigilState | undefined;
  /** Milliseconds since 1970. */
  readonly answeringUntil: number | undefined;
  /** Interfaces whose bound MACs are answered. */
  readonly answers: number;
  /** What else may be sending: checks, power watches, conversations. */
  readonly tasks: readonly FieldTask[];
  readonly counters: FieldCounters;
  readonly notices: readonly FieldNotice[];
}

export interface FieldTask {
  readonly kind: FieldTaskView['kind'];
  readonly interfaceId: string | undefined;
  readonly phase: string;
}

export interface FieldCounters {
  readonly received: number;
  readonly sent: number;
  readonly malformed: number;
  readonly requests: number;
  readonly strangersDropped: number;
}

/** Before a wire is chosen. */
export const IDLE: FieldStatus = {
  source: undefined,
  mac: undefined,
  link: 'up',
  jobId: undefined,
  runId: undefined,
  voices: [],
  socket: {
    ...{ neighbour: undefined, bridge: undefined, tags: [], subnets: [] },
    ...{ outside: 0, heardAt: undefined },
  },
  page: undefined,
  proof: undefined,
  vigil: undefined,
  drill: { phase: 'none', onAt: undefined, endedAt: undefined, rows: [] },
  answeringUntil: undefined,
  answers: 0,
  tasks: [],
  counters: { received: 0, sent: 0, malformed: 0, requests: 0, strangersDropped: 0 },
  notices: [],
};

/** What changed in what was heard; `all` stands for everything anew. */
export interface HeardChange {
  readonly all: boolean;
  readonly clients: readonly HeardClient[];
  readonly forgotten: readonly MacAddress[];
}

export type FieldReport =
  | { readonly kind: 'answer'; readonly id: number; readonly error: FieldError | undefined }
  | { readonly kind: 'status'; readonly status: FieldStatus }
  | ({ readonly kind: 'heard' } & HeardChange)
  /** Every station found in this run. */
  | { readonly kind: 'stations'; readonly stations: readonly FoundStation[] }
  /** Everybody seen with an address in this run. */
  | { readonly kind: 'present'; readonly present: readonly Sighting[] }
  /** A vigil begins; its beats can be read there. */
  | { readonly kind: 'vigil'; readonly vigil: SharedVigil }
  | { readonly kind: 'events'; /** As the journal has them. */ readonly lines: string };

/** A command that could not be carried out. */
export type FieldError = Pick<Issue, 'code' | 'facts'>;

/** Thrown inside the field worker; crosses to the main thread as FieldError. */
export class FieldRefusal extends Error {
  readonly code: IssueCode;
  readonly facts: FieldError['facts'];

  constructor({ code, facts }: FieldError) {
    super(code);
    this.code = code;
    this.facts = facts;
  }

  /** As it crosses from thread to thread. */
  get told(): FieldError {
    return { code: this.code, facts: this.facts } as FieldError;
  }

  static of<C extends IssueCode>(code: C, ...facts: FactsArgument<C>): FieldRefusal {
    return new FieldRefusal(issueOf(code, '', ...facts));
  }
}
