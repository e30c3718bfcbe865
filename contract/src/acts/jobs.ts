import type { NewEdits, NewSubnet, RoundTimesWish } from '@ipsonomo/core/api';
import type { Edit } from '@ipsonomo/core/plan';
import { answers, bytes, changes, does, fetches, reads } from '../act';
import { keys } from '../keys';
import {
  anyObject,
  flag,
  list,
  matching,
  object,
  orNull,
  text,
  thingId,
  whole,
  type Shape,
} from '../shape';

const ofJobs = () => [keys.jobs];
export const ofJob = ({ job }: { readonly job: string }) => [keys.job(job)];
export const ofJobAndJobs = ({ job }: { readonly job: string }) => [keys.jobs, keys.job(job)];

/** What a page has already, as it was told it. */
const mark = object({}, { since: text(200) });

const roundTimes: Shape<RoundTimesWish> = object(
  { people: whole(1, 4) },
  { order: list(thingId, 50_000) },
);

const newSubnet: Shape<NewSubnet> = object({
  name: text(80),
  network: text(40),
  gateway: orNull(text(40)),
  vlan: orNull(whole(1, 4094)),
  purpose: text(200),
});

/** Core reads each edit, and names what is wrong with it. */
const newEdits: Shape<NewEdits> = object({
  edits: list(anyObject<Edit>(), 50_000, 1),
  why: text(300),
});

/** Jobs, their plans, and what is changed in them. */
export const jobActs = {
  listJobs: reads('/jobs', 'Jobs', {
    about: 'All jobs, with what is left to do in each; counts are null while they are counted.',
    key: () => keys.jobs,
  }),
  addJob: answers('/jobs', 'Added', {
    about: 'Begins a job with an empty plan.',
    ...{ right: 'plan', status: 201, stale: ofJobs },
    body: object({ name: text(120) }),
    refusals: ['name.empty', 'job.taken'],
  }),
  addJobFromFile: answers('/jobs/from-file', 'Added', {
    about: 'Begins a job with the plan of a plan file, and the papers in it.',
    ...{ right: 'plan', status: 201, stale: ofJobs },
    body: bytes('application/octet-stream'),
    most: '200mb',
    refusals: ['file', 'paper', 'reading', 'name', 'ipv4', 'prefix', 'mac'],
  }),
  renameJob: changes('/jobs/:job', {
    ...{ about: 'Gives a job another name.', right: 'plan', stale: ofJobAndJobs },
    body: object({ name: text(120) }),
    refusals: ['name.empty', 'job.taken'],
  }),
  archiveJob: does('/jobs/:job/archive', {
    about: 'Puts a job among the archived ones, which ends its wire, or takes it back from there.',
    ...{ right: 'plan', stale: ofJobAndJobs },
    body: object({ archived: flag }),
  }),
  fetchWholeJob: fetches('/jobs/:job/everything.zip', 'application/zip', {
    about:
      'Everything of a job in one file: plan with papers, revisions, evidence with what seals it, runs, proofs, hand-overs, captures. Read by a keeper to its end, it lets the job be deleted.',
  }),
  deleteJob: does('/jobs/:job/delete', {
    about:
      'Takes an archived job away for good, once a keeper read everything of it as a file and nothing changed since.',
    ...{ right: 'keep', stale: ofJobs },
    body: object({ name: text(80) }),
    refusals: ['job'],
  }),
  readPlan: reads('/jobs/:job/plan', 'Plan', {
    about: 'The plan whole, thing by thing, as of its last revision.',
    key: ({ job }) => keys.plan(job),
  }),
  readProgress: reads('/jobs/:job/progress', 'Progress', {
    about:
      'What was seen of each interface. With `since`, the mark of an answer that is there: what changed after it.',
    query: mark,
    key: ({ job }) => keys.progress(job),
  }),
  readRound: reads('/jobs/:job/round', 'Round', {
    about: 'The calls that are left, in the order in which they are walked.',
    query: mark,
    key: ({ job }) => keys.round(job),
  }),
  timeRound: answers('/jobs/:job/round/times', 'RoundTimes', {
    about:
      'How long the calls that are left would take: a round played without anybody, by how long kinds take to start and to ask and people to walk; what holds it up, and what would save how much.',
    ...{ right: 'look', body: roundTimes },
  }),
  readEdits: reads('/jobs/:job/edits', 'Edits', {
    about: 'What was changed after a revision, edit by edit.',
    query: object({ since: matching('^\\d{1,9}$', 9, 'a whole number') }),
  }),
  edit: answers('/jobs/:job/edits', 'Edited', {
    about:
      'Changes the plan by edits, all or none. Each says what it found: where somebody else changed that meanwhile, all are refused.',
    right: 'plan',
    body: newEdits,
    mayWait: true,
    most: '20mb', // a paste of some thousand lines is a few megabytes
    refusals: ['edit', 'file.value', 'ipv4', 'prefix', 'mac'],
  }),
  undo: answers('/jobs/:job/undo', 'Edited', {
    ...{ about: 'Takes back the last change of whoever asks.', right: 'plan' },
    refusals: ['undo.none', 'edit'],
  }),
  redo: answers('/jobs/:job/redo', 'Edited', {
    ...{ about: 'Makes again what was taken back last.', right: 'plan' },
    refusals: ['redo.none', 'edit'],
  }),
  listRevisions: reads('/jobs/:job/revisions', 'Revisions', {
    about: 'Who changed what, and why; the newest first.',
    key: ({ job }) => keys.revisions(job),
  }),
  nameRevision: changes('/jobs/:job/revisions/:number', {
    about: 'Gives a revision a name, or takes it off with an empty one.',
    ...{ right: 'plan', stale: ofJob },
    body: object({ name: text(120) }),
    refusals: ['name'],
  }),
  addSubnet: answers('/jobs/:job/subnets', 'Added', {
    about: 'Adds a subnet with bands for the roles of its addresses.',
    ...{ right: 'plan', status: 201, stale: ofJob },
    body: newSubnet,
    refusals: ['name', 'prefix', 'ipv4', 'gateway', 'subnet', 'edit'],
  }),
} as const;
