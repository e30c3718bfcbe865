import { queryOptions, skipToken } from '@tanstack/react-query';
import {
  applyEdits,
  docFromView,
  type AdapterView,
  type CabinetView,
  type EditedView,
  type EditsView,
  type EvidenceView,
  type FieldView,
  type HeardView,
  type JobSummary,
  type PlanDoc,
  type PlanView,
  type PresentView,
  type ProgressView,
  type RevisionView,
  type RoundView,
  type RunView,
  type StationView,
} from '@ipsonomo/core';
import { watchOf } from './clashes';
import { get } from './http';

/** The key tree: everything of one job lies under ['job', id]. */
export const keys = {
  jobs: ['jobs'],
  job: (id: string) => ['job', id],
  plan: (id: string) => ['job', id, 'plan'],
  progress: (id: string) => ['job', id, 'progress'],
  round: (id: string) => ['job', id, 'round'],
  revisions: (id: string) => ['job', id, 'revisions'],
  evidence: (job: string, at: string) => ['job', job, 'evidence', at],
  runs: (job: string) => ['job', job, 'runs'],
  field: ['field'],
  traffic: ['traffic'],
  heard: ['heard'],
  stations: ['stations'],
  present: ['present'],
  adapters: ['adapters'],
  cabinet: ['cabinet'],
} as const;

const COUNTED_AGAIN = 1000; // ms

export const jobsQuery = queryOptions({
  queryKey: keys.jobs,
  queryFn: () => get<readonly JobSummary[]>('/jobs'),
  // Those that are still being counted are asked for again.
  refetchInterval: ({ state }) =>
    state.data?.some(({ counts }) => counts === null) ? COUNTED_AGAIN : false,
});

/** The plan as this page has it: read whole once, then kept in step by the edits since. */
export interface PlanNow {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly lastNamed: number;
  readonly doc: PlanDoc;
}

export const planQuery = (id: string) =>
  queryOptions({
    queryKey: keys.plan(id),
    queryFn: async ({ client }) => {
      const known = () => client.getQueryData<PlanNow>(keys.plan(id));
      const read = await readPlan(id, known());
      // What was told meanwhile may be newer than what was read.
      const now = known();
      return now && now.revision > read.revision ? now : read;
    },
    // Two plans are compared by their revision and not thing by thing.
    structuralSharing: false,
  });

async function readPlan(id: string, known: PlanNow | undefined): Promise<PlanNow> {
  if (known) {
    const since = await get<EditsView>(`/jobs/${id}/edits?since=${known.revision}`);
    if (since.revision === known.revision && since.lastNamed === known.lastNamed) return known;
    watchOf(id).noteRead(since.revisions);
    const edits = since.revisions.flatMap((one) => one.edits);
    const next = planAfter(known, { revision: since.revision, edits });
    if (next) return { ...next, lastNamed: since.lastNamed };
  }
  const { things, ...head } = await get<PlanView>(`/jobs/${id}/plan`);
  return { ...head, doc: docFromView({ things }) };
}

/** The plan with edits that the server made; undefined where they do not follow on it. */
export function planAfter(known: PlanNow, { revision, edits }: EditedView): PlanNow | undefined {
  if (revision < known.revision) return undefined;
  const outcome = applyEdits(known.doc, edits);
  return outcome.ok ? { ...known, revision, doc: outcome.value.doc } : undefined;
}

export const progressQuery = (id: string) =>
  queryOptions({
    queryKey: keys.progress(id),
    queryFn: ({ client }) => readProgress(id, client.getQueryData<ProgressView>(keys.progress(id))),
    // What is the same stays the same object; to compare thousands thing by thing takes longer.
    structuralSharing: false,
  });

/** Tells the server what this page has already. */
const sinceOf = (known: { readonly mark: string } | undefined): string =>
  known ? `?since=${encodeURIComponent(known.mark)}` : '';

async function readProgress(id: string, known: ProgressView | undefined): Promise<ProgressView> {
  const news = await get<ProgressView>(`/jobs/${id}/progress${sinceOf(known)}`);
  if (!known || news.isWhole) return news;
  if (news.mark === known.mark && news.handedOver === known.handedOver) return known;
  return { ...news, seen: { ...known.seen, ...news.seen }, isWhole: true };
}

export const roundQuery = (id: string) =>
  queryOptions({
    queryKey: keys.round(id),
    queryFn: async ({ client }) => {
      const known = client.getQueryData<RoundView>(keys.round(id));
      const read = await get<RoundView>(`/jobs/${id}/round${sinceOf(known)}`);
      return known && read.mark === known.mark ? known : read;
    },
    structuralSharing: false,
  });

export const revisionsQuery = (id: string) =>
  queryOptions({
    queryKey: keys.revisions(id),
    queryFn: () => get<readonly RevisionView[]>(`/jobs/${id}/revisions`),
  });

/** The edits after a revision, as one list. */
export const editsQuery = (id: string, since: number) =>
  queryOptions({
    queryKey: [...keys.revisions(id), since],
    queryFn: () => get<EditsView>(`/jobs/${id}/edits?since=${since}`),
  });

export const evidenceQuery = (job: string, at: string) =>
  queryOptions({
    queryKey: keys.evidence(job, at),
    queryFn: () => get<readonly EvidenceView[]>(`/jobs/${job}/interfaces/${at}/evidence`),
  });

export const runsQuery = (job: string) =>
  queryOptions({
    queryKey: keys.runs(job),
    queryFn: () => get<readonly RunView[]>(`/jobs/${job}/runs`),
  });

// The wire is told by the event stream alone: its first message has all of it, and while the stream
// is away nothing is known of the wire.

/** How the wire stands: drawn again only where it stands otherwise. */
export type FieldNow = Omit<FieldView, 'now' | keyof Traffic>;

/** What changes with every frame: for who shows just that. */
export type Traffic = Pick<FieldView, 'counters' | 'socket'>;

export const fieldQuery = queryOptions<FieldNow>({ queryKey: keys.field, queryFn: skipToken });

export const trafficQuery = queryOptions<Traffic>({
  queryKey: keys.traffic,
  queryFn: skipToken,
});

export const heardQuery = queryOptions<readonly HeardView[]>({
  queryKey: keys.heard,
  queryFn: skipToken,
});

export const presentQuery = queryOptions<readonly PresentView[]>({
  queryKey: keys.present,
  queryFn: skipToken,
});

export const stationsQuery = queryOptions<readonly StationView[]>({
  queryKey: keys.stations,
  queryFn: skipToken,
});

export const adaptersQuery = queryOptions({
  queryKey: keys.adapters,
  queryFn: () => get<readonly AdapterView[]>('/field/adapters'),
  refetchInterval: 2000,
});

export const cabinetQuery = queryOptions({
  queryKey: keys.cabinet,
  queryFn: () => get<CabinetView>('/practice/cabinet'),
  refetchInterval: 700,
});
