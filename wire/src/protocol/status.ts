import type { FieldTaskView } from '@ipsonomo/core/api';
import type { Ipv4, MacAddress } from '@ipsonomo/core/net';
import type { DrillState, NoticeTold } from '@ipsonomo/core/plan';
import type { ProofState } from '@ipsonomo/core/proof';
import type { VigilState } from '@ipsonomo/core/vigil';
import type { Neighbour, TreeBridge } from '@ipsonomo/core/wire';
import type { LinkState } from '../carriers/carrier';

// How the wire stands.

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
