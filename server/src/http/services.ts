import type { OpenedAt } from '@ipsonomo/contract';
import type { AuthorityView } from '@ipsonomo/core/api';
import type { Readings } from '../common/readings';
import type { Packages } from '../packages/packages';
import type { People } from '../service/people';
import type { TakenCalls } from '../service/taken-calls';
import type { Bundles } from '../service/bundles';
import type { Notes } from '../service/notes';
import type { PlanChanger } from '../service/change-plan';
import type { Door } from '../service/door';
import type { ListImporter } from '../service/import-list';
import type { JobSummaries } from '../service/job-summaries';
import type { Papers } from '../service/papers';
import type { PlanWork } from '../service/plan-work';
import type { Proofs } from '../service/proofs';
import type { PlanReader } from '../service/read-plan';
import type { Rehearsals } from '../service/rehearsals';
import type { Rounds } from '../service/round';
import type { Vigils } from '../service/vigils';
import type { Servers } from '../service/servers';
import type { Wires } from '../service/wires';
import type { Store } from '../store/store';
import type { EventStream } from './event-stream';

/** The use cases that acts are made of. */
export interface Services {
  readonly door: Door;
  readonly people: People;
  readonly isDemo: boolean;
  readonly store: Store;
  readonly reader: PlanReader;
  readonly changer: PlanChanger;
  readonly takenCalls: TakenCalls;
  readonly bundles: Bundles;
  readonly notes: Notes;
  readonly importer: ListImporter;
  readonly packages: Packages;
  readonly papers: Papers;
  readonly readings: Readings;
  readonly rounds: Rounds;
  readonly summaries: JobSummaries;
  readonly wires: Wires;
  readonly servers: Servers;
  readonly rehearsals: Rehearsals;
  readonly proofs: Proofs;
  readonly vigils: Vigils;
  readonly planWork: PlanWork;
  readonly events: EventStream;
  readonly captures: string;
  /** Undefined where there is none. */
  readonly authority?: { readonly view: AuthorityView; readonly der: Buffer } | undefined;
  /** Addresses under which this server can be opened, each bringing the key. */
  readonly openAt: (key: string) => readonly string[];
  /** Makes a place at which the page of a device that is open is read, by one browser. */
  readonly openPage: (jobId: string, browser: string | undefined) => Promise<OpenedAt>;
  /** Tells open pages that a job is not what it was. */
  readonly changed: (jobId: string) => void;
}
