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

/**
 * A job goes for good only once it was put away, and all of it was written to one file since anything of it changed. The
 * server's role has no right to remove evidence; this function, which is its owner's, removes that of one such job.
 */
export const DELETED: Migration = {
  name: '013_deleted_jobs',
  up: `
      create table job_written (
        job_id uuid primary key references job on delete cascade,
        revision integer not null,
        place bigint not null,
        at timestamptz not null default now()
      );
      create function job_is_written(of_job uuid) returns boolean language sql stable
        set search_path from current as $$
          select exists (
            select from job_written as written
            where written.job_id = of_job
              and written.revision =
                coalesce((select max(number) from revision where job_id = of_job), 0)
              and written.place = coalesce((select max(place) from evidence where job_id = of_job), 0)
          ) $$;
      create function job_delete(of_job uuid) returns void language plpgsql security definer
        set search_path from current as $$
        begin
          perform pg_advisory_xact_lock(hashtextextended(of_job::text, 20261129));
          if not exists (select from job where id = of_job and archived_at is not null) then
            raise exception 'the job is not archived';
          end if;
          if not job_is_written(of_job) then
            raise exception 'the job was not written to a file as it is';
          end if;
          alter table evidence disable trigger evidence_remains;
          alter table evidence_gap disable trigger evidence_stays;
          delete from job where id = of_job;
          alter table evidence enable trigger evidence_remains;
          alter table evidence_gap enable trigger evidence_stays;
        end $$;
    `,
  down: `
      drop function job_delete;
      drop function job_is_written;
      drop table job_written;
    `,
};

/** Which formats a reader was handed; what was noted before is an address list. */
export const HANDED: Migration = {
  name: '014_handed_formats',
  up: `
      alter table hand_over add column formats jsonb not null default '["addresses-csv"]';
      update hand_over set what = 'it' where what = 'address list';
    `,
  down: `
      alter table hand_over drop column formats;
      update hand_over set what = 'address list' where what = 'it';
    `,
};

/** Jobs that are put away stay as they are. */
export const ARCHIVED: Migration = {
  name: '011_archived_jobs',
  up: 'alter table job add column archived_at timestamptz;',
  down: 'alter table job drop column archived_at;',
};

/**
 * Acts that a browser may have kept without a network and sent later, each done once. The time is the one at which it was
 * done, beside how much the browser's clock was off and the browser's own count.
 */
export const WAITED_ACTS: Migration = {
  name: '016_waited_acts',
  up: `
      create table waited_act (
        id uuid not null,
        job_id uuid not null references job on delete cascade,
        act text not null,
        place bigint not null,
        done_at timestamptz not null,
        clock_is_off bigint not null,
        at timestamptz not null default now(),
        revision integer,
        primary key (job_id, id)
      );
    `,
  down: 'drop table waited_act;',
};
