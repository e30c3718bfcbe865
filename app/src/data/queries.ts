import { queryOptions, skipToken } from '@tanstack/react-query';
import type {
  AdapterView,
  CabinetView,
  EvidenceView,
  FieldView,
  HeardView,
  JobSummary,
  JobView,
  RunView,
} from '@ipsonomo/core';
import { get } from './http';

/** The key tree: everything of one job lies under ['job', id]. */
export const keys = {
  jobs: ['jobs'],
  job: (id: string) => ['job', id],
  evidence: (job: string, at: string) => ['job', job, 'evidence', at],
  runs: (job: string) => ['job', job, 'runs'],
  field: ['field'],
  heard: ['heard'],
  adapters: ['adapters'],
  cabinet: ['cabinet'],
} as const;

export const jobsQuery = queryOptions({
  queryKey: keys.jobs,
  queryFn: () => get<readonly JobSummary[]>('/jobs'),
});

export const jobQuery = (id: string) =>
  queryOptions({ queryKey: keys.job(id), queryFn: () => get<JobView>(`/jobs/${id}`) });

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

export const fieldQuery = queryOptions<FieldView>({ queryKey: keys.field, queryFn: skipToken });

export const heardQuery = queryOptions<readonly HeardView[]>({
  queryKey: keys.heard,
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
