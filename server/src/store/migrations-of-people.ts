import type { Migration } from './migration';

/** Who was let in. Only digests are kept: whoever reads the database cannot come in with what stands there. */
export const DOOR: Migration = {
  name: '006_door',
  up: `
    create table invitation (
      id uuid primary key default gen_random_uuid(),
      digest bytea not null unique,
      made_by text not null,
      made_at timestamptz not null,
      ends_at timestamptz not null
    );
    create table browser (
      id uuid primary key default gen_random_uuid(),
      digest bytea not null unique,
      person text not null default '',
      device text not null,
      let_in_at timestamptz not null,
      seen_at timestamptz not null
    );
  `,
  down: 'drop table browser; drop table invitation;',
};

/**
 * Accounts, with what they may do. Browsers that were let in before keep being in: each name that they gave becomes an
 * account that may do everything, as they could.
 */
export const ACCOUNTS: Migration = {
  name: '015_accounts',
  up: `
      create table account (
        id uuid primary key default gen_random_uuid(),
        kind text not null check (kind in ('person', 'program')),
        name text not null,
        role text not null check (role in ('look', 'plan', 'assign', 'keep')),
        password text,
        token bytea unique,
        made_at timestamptz not null default now(),
        made_by text not null,
        ends_at timestamptz,
        ended_at timestamptz
      );
      create unique index account_name on account (lower(name))
        where name <> '' and ended_at is null;
      create table send_grant (
        account_id uuid not null references account on delete cascade,
        job_id uuid not null references job on delete cascade,
        wire text not null,
        until timestamptz not null,
        made_by text not null,
        primary key (account_id, job_id, wire)
      );
      create index send_grant_of_job on send_grant (job_id);
      alter table browser add column account_id uuid references account on delete cascade;
      insert into account (kind, name, role, made_by)
        select 'person', min(person), 'keep', 'the version before' from browser
        where person <> '' group by lower(person);
      update browser set account_id = account.id from account
        where lower(account.name) = lower(browser.person) and browser.person <> '';
      do $$ declare one record; made uuid; begin
        for one in select id from browser where account_id is null loop
          insert into account (kind, name, role, made_by)
            values ('person', '', 'keep', 'the version before') returning id into made;
          update browser set account_id = made where id = one.id;
        end loop;
      end $$;
      alter table browser alter column account_id set not null, drop column person;
      create index browser_of_account on browser (account_id);
      alter table invitation
        add column role text not null default 'keep',
        add column account_id uuid references account on delete cascade,
        add column is_once boolean not null default false;
      create index invitation_of_account on invitation (account_id);
      alter table revision add column account_id uuid;
    `,
  down: `
      alter table revision drop column account_id;
      alter table invitation drop column role, drop column account_id, drop column is_once;
      alter table browser drop column account_id, add column person text not null default '';
      drop table send_grant, account;
    `,
};

/** Who is at which device; it ends by itself. */
export const TAKEN_CALLS: Migration = {
  name: '017_taken_calls',
  up: `
      create table taken_call (
        job_id uuid not null references job on delete cascade,
        interface_id text not null,
        account_id uuid,
        person text not null,
        since timestamptz not null,
        until timestamptz not null,
        taken_from text,
        taken_from_account uuid,
        word text,
        primary key (job_id, interface_id)
      );
    `,
  down: 'drop table taken_call;',
};
