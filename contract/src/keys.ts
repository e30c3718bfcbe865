/** Under which name a page keeps what it read: everything of one job lies under ['job', id]. */
export const keys = {
  jobs: ['jobs'],
  job: (job: string) => ['job', job],
  plan: (job: string) => ['job', job, 'plan'],
  progress: (job: string) => ['job', job, 'progress'],
  round: (job: string) => ['job', job, 'round'],
  revisions: (job: string) => ['job', job, 'revisions'],
  evidence: (job: string, at: string) => ['job', job, 'evidence', at],
  runs: (job: string) => ['job', job, 'runs'],
  proofs: (job: string) => ['job', job, 'proofs'],
  proof: (job: string, proof: string) => ['job', job, 'proofs', proof],
  kindsElsewhere: (job: string) => ['job', job, 'kinds elsewhere'],
  writtenTicks: (job: string) => ['job', job, 'written ticks'],
  handOvers: (job: string) => ['job', job, 'hand-overs'],
  package: (made: string) => ['package', made],
  rehearsal: (job: string) => ['job', job, 'rehearsal'],
  vigil: (job: string) => ['job', job, 'vigil'],
  list: (list: string) => ['list', list],
  // Told by the stream of news, and not read again with the rest of the job.
  field: (job: string) => ['field', job],
  traffic: (job: string) => ['traffic', job],
  heard: (job: string) => ['heard', job],
  stations: (job: string) => ['stations', job],
  present: (job: string) => ['present', job],
  wires: ['wires'],
  adapters: ['adapters'],
  cabinet: (job: string) => ['cabinet', job],
  state: ['state'],
  door: ['door'],
  browsers: ['keys'],
} as const;

export type Key = readonly unknown[];
