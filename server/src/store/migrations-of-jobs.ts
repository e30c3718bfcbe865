import type { Migration } from './migration';

export const REHEARSALS: Migration = {
  // A rehearsal is a job of its own with a copy of the plan: nothing of it is ever evidence of the job itself.
  name: '010_rehearsals',
  up: `
      create table rehearsal (
        job_id uuid primary key references job on delete cascade,
        of_job uuid references job on delete set null,
        of_name text not null,
        of_revision integer not null,
        seed integer not null,
        wish jsonb not null,
        mistakes jsonb not null,
        unrehearsed jsonb not null,
        wrong_claims integer not null default 0,
        begun_at timestamptz not null default now(),
        ended_at timestamptz
      );
      create table found_mistake (
        job_id uuid not null references rehearsal on delete cascade,
        mistake text not null,
        kind text not null,
        interface_id text not null,
        person text not null,
        at timestamptz not null default now(),
        primary key (job_id, mistake)
      );
    `,
  down: 'drop table found_mistake, rehearsal;',
};

/** Jobs for whose devices a practice site ships: no other job is offered somebody else's devices. */
export const PRACTICE_SITES: Migration = {
  name: '012_practice_sites',
  up: `
      alter table job add column has_practice_site boolean not null default false;
      update job set has_practice_site = true where name = 'Tern Cove hatchery';
    `,
  down: 'alter table job drop column has_practice_site;',
};

/** Jobs that are put away stay as they are. */
export const ARCHIVED: Migration = {
  name: '011_archived_jobs',
  up: 'alter table job add column archived_at timestamptz;',
  down: 'alter table job drop column archived_at;',
};
