import type { Knex } from 'knex';
import { ACCOUNTS, DOOR, TAKEN_CALLS } from './migrations-of-people';
import { BUNDLES } from './migrations-of-bundles';
import { PHOTOS } from './migrations-of-photos';
import { SEVERAL_SERVERS } from './migrations-of-servers';
import type { Migration } from './migration';
import {
  ARCHIVED,
  DELETED,
  HANDED,
  PRACTICE_SITES,
  REHEARSALS,
  WAITED_ACTS,
} from './migrations-of-jobs';

const MIGRATIONS: readonly Migration[] = [
  {
    name: '001_plan_and_evidence',
    up: `
      create table job (
        id uuid primary key default gen_random_uuid(),
        name text not null unique,
        created_at timestamptz not null default now()
      );
      create table subnet (
        id uuid primary key default gen_random_uuid(),
        job_id uuid not null references job on delete cascade,
        name text not null,
        network cidr not null,
        gateway inet,
        vlan integer check (vlan between 1 and 4094),
        purpose text not null default '',
        bands jsonb not null default '[]',
        created_at timestamptz not null default now(),
        unique (job_id, network)
      );
      create table device (
        id uuid primary key default gen_random_uuid(),
        job_id uuid not null references job on delete cascade,
        title text not null,
        name text not null,
        kind_id text not null,
        way text not null,
        area text not null default '',
        cabinet text not null default '',
        position text not null default '',
        created_at timestamptz not null default now(),
        ordinal bigint generated always as identity,
        unique (job_id, name)
      );
      create table interface (
        id uuid primary key default gen_random_uuid(),
        job_id uuid not null references job on delete cascade,
        device_id uuid not null references device on delete cascade,
        subnet_id uuid not null references subnet,
        address inet not null,
        mac macaddr,
        unique (job_id, address),
        unique (job_id, mac)
      );
      create table revision (
        job_id uuid not null references job on delete cascade,
        number integer not null,
        at timestamptz not null default now(),
        person text not null,
        what text not null,
        details jsonb not null default '{}',
        primary key (job_id, number)
      );
      create table run (
        id uuid primary key default gen_random_uuid(),
        job_id uuid not null references job on delete cascade,
        source text not null,
        person text not null,
        started_at timestamptz not null default now(),
        ended_at timestamptz
      );
      create table evidence (
        id bigint generated always as identity primary key,
        job_id uuid not null references job on delete cascade,
        -- No foreign key: what was seen of a device outlives its place in the plan.
        interface_id uuid not null,
        run_id uuid references run on delete set null,
        sequence integer,
        kind text not null,
        at timestamptz not null,
        mac macaddr,
        address inet,
        source text not null,
        person text not null,
        facts jsonb not null default '{}',
        bytes bytea,
        unique (run_id, sequence)
      );
      create index evidence_by_interface on evidence (interface_id, at);
      create index evidence_latest on evidence
        (job_id, interface_id, kind, mac, address, at desc, id desc);
      create table hand_over (
        id bigint generated always as identity primary key,
        job_id uuid not null references job on delete cascade,
        at timestamptz not null default now(),
        person text not null,
        what text not null,
        revision integer not null
      );
      create function evidence_stays() returns trigger language plpgsql as $$
        begin raise exception 'evidence is never changed or removed'; end $$;
      create trigger evidence_stays before update of kind, at, mac, address, source, facts, bytes
        on evidence for each row execute function evidence_stays();
      create trigger evidence_remains before delete
        on evidence for each row execute function evidence_stays();
    `,
    down: `
      drop table hand_over, evidence, run, revision, interface, device, subnet, job cascade;
      drop function evidence_stays;
    `,
  },
  {
    // The plan becomes a document of things, each revision the edits that made it.
    name: '002_things_and_edits',
    up: `
      create table thing (
        job_id uuid not null references job on delete cascade,
        type text not null,
        id text not null,
        ordinal bigint generated always as identity,
        body jsonb not null,
        primary key (job_id, type, id)
      );
      create index thing_in_order on thing (job_id, ordinal);
      insert into thing (job_id, type, id, body)
        select id, 'realm', 'realm', '{"id": "realm", "name": "Site"}' from job order by created_at;
      insert into thing (job_id, type, id, body)
        select job_id, 'subnet', id, jsonb_build_object(
          'id', id, 'name', name, 'realmId', 'realm', 'prefix', network::text,
          'gateway', host(gateway), 'vlan', vlan, 'purpose', purpose, 'bands', bands)
        from subnet order by network;
      insert into thing (job_id, type, id, body)
        select job_id, 'device', id, jsonb_build_object(
          'id', id, 'title', title, 'name', name, 'kindId', kind_id, 'way', way,
          'area', area, 'cabinet', cabinet, 'position', position)
        from device order by ordinal;
      insert into thing (job_id, type, id, body)
        select interface.job_id, 'interface', interface.id, jsonb_build_object(
          'id', interface.id, 'deviceId', device_id, 'subnetId', subnet_id,
          'address', host(address), 'mac', mac::text)
        from interface join device on device.id = device_id order by device.ordinal;
      drop table interface, device, subnet;
      -- A thing that came with a plan file keeps the id it had there.
      alter table evidence alter column interface_id type text;
      alter table revision
        drop column details,
        add column edits jsonb not null default '[]',
        add column name text,
        add column undoes integer;
    `,
    down: `
      drop table thing;
      alter table revision drop column edits, drop column name, drop column undoes;
    `,
  },
  {
    name: '003_papers',
    up: `
      create table paper (
        job_id uuid not null references job on delete cascade,
        -- SHA-256 of its bytes, in hex.
        id text not null,
        bytes bytea not null,
        at timestamptz not null default now(),
        primary key (job_id, id)
      );
      -- A manual is packed already.
      alter table paper alter column bytes set storage external;
    `,
    down: 'drop table paper;',
  },
  {
    name: '004_proofs',
    up: `
      create table proof (
        id uuid primary key default gen_random_uuid(),
        job_id uuid not null references job on delete cascade,
        run_id uuid references run on delete set null,
        source text not null,
        person text not null,
        revision integer not null,
        scope text not null,
        interface_ids jsonb not null,
        started_at timestamptz not null default now(),
        ended_at timestamptz,
        how text,
        strangers jsonb not null default '[]'
      );
      create index proof_of_job on proof (job_id, started_at);
      create index evidence_of_proof on evidence (job_id, (facts->>'proof'))
        where facts->>'proof' is not null;
    `,
    down: 'drop table proof; drop index evidence_of_proof;',
  },
  {
    // Nothing of a piece of evidence can be changed, and each is chained to the one before it in its job: what
    // somebody changes all the same, by hand and with every right, is found.
    name: '005_sealed_evidence',
    up: `
      alter table evidence add column place bigint, add column chain bytea;
      create function evidence_seal(one evidence, before bytea) returns bytea
        language sql stable as $$
        select sha256(coalesce(before, ''::bytea) || convert_to(jsonb_build_array(
          one.job_id, one.place, one.interface_id, one.run_id, one.sequence, one.kind,
          extract(epoch from one.at), one.mac, one.address, one.source, one.person, one.facts,
          encode(one.bytes, 'hex'))::text, 'UTF8')) $$;
      drop trigger evidence_stays on evidence;
      create function evidence_chains() returns trigger language plpgsql as $$
        declare last record;
        begin
          perform pg_advisory_xact_lock(hashtextextended(new.job_id::text, 20261129));
          select place, chain into last from evidence
            where job_id = new.job_id order by place desc limit 1;
          new.place := coalesce(last.place, 0) + 1;
          new.chain := evidence_seal(new, last.chain);
          return new;
        end $$;
      create function evidence_chain_up() returns void language plpgsql as $$
        declare one evidence; last evidence;
        begin
          for one in select * from evidence order by job_id, id loop
            if last.job_id is distinct from one.job_id then last := null; end if;
            one.place := coalesce(last.place, 0) + 1;
            one.chain := evidence_seal(one, last.chain);
            update evidence set place = one.place, chain = one.chain where id = one.id;
            last := one;
          end loop;
        end $$;
      select evidence_chain_up();
      drop function evidence_chain_up;
      alter table evidence alter column place set not null, alter column chain set not null;
      create unique index evidence_place on evidence (job_id, place);
      create trigger evidence_chains before insert on evidence
        for each row execute function evidence_chains();
      create trigger evidence_stays before update on evidence
        for each row execute function evidence_stays();
      create trigger evidence_whole before truncate on evidence
        for each statement execute function evidence_stays();
    `,
    down: `
      drop trigger evidence_chains on evidence;
      drop trigger evidence_stays on evidence;
      drop trigger evidence_whole on evidence;
      drop function evidence_chains;
      drop function evidence_seal;
      alter table evidence drop column place, drop column chain;
      create trigger evidence_stays before update of kind, at, mac, address, source, facts, bytes
        on evidence for each row execute function evidence_stays();
    `,
  },
  DOOR,
  {
    // What pages ask for again and again is kept beside what it is made from: the latest evidence by its trigger, in the
    // same transaction; the numbers of a proof once it has ended; what the list of jobs says of one.
    name: '007_kept_results',
    up: `
      create table latest_evidence (
        job_id uuid not null references job on delete cascade,
        interface_id text not null,
        kind text not null,
        mac macaddr,
        address inet,
        at timestamptz not null,
        evidence_id bigint not null,
        unique nulls not distinct (job_id, interface_id, kind, mac, address)
      );
      create function latest_evidence_due() returns setof latest_evidence
        language sql stable set search_path from current as $$
        select distinct on (job_id, interface_id, kind, mac, address)
          job_id, interface_id, kind, mac, address, at, id from evidence
        order by job_id, interface_id, kind, mac, address, at desc, id desc $$;
      insert into latest_evidence select * from latest_evidence_due();
      create function evidence_is_latest() returns trigger
        language plpgsql security definer set search_path from current as $$
        begin
          insert into latest_evidence as known
            values (new.job_id, new.interface_id, new.kind, new.mac, new.address, new.at, new.id)
            on conflict (job_id, interface_id, kind, mac, address)
            do update set at = excluded.at, evidence_id = excluded.evidence_id
            where (excluded.at, excluded.evidence_id) > (known.at, known.evidence_id);
          if new.facts->>'proof' ~ '^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$' then
            update proof set counts = null
              where id = (new.facts->>'proof')::uuid and counts is not null;
          end if;
          return null;
        end $$;
      create trigger evidence_is_latest after insert on evidence
        for each row execute function evidence_is_latest();
      drop index evidence_latest;
      create index revision_named on revision (job_id, number) where name is not null;
      create index hand_over_of_job on hand_over (job_id, revision);
      create index run_of_job on run (job_id, started_at);
      alter table proof add column counts jsonb;
      create table job_summary (
        job_id uuid primary key references job on delete cascade,
        made_by text not null,
        revision integer not null,
        place bigint not null,
        handed_over integer not null,
        body jsonb not null
      );
    `,
    down: `
      drop table job_summary;
      alter table proof drop column counts;
      drop index run_of_job, hand_over_of_job, revision_named;
      drop trigger evidence_is_latest on evidence;
      drop function evidence_is_latest;
      drop function latest_evidence_due;
      drop table latest_evidence;
      create index evidence_latest on evidence
        (job_id, interface_id, kind, mac, address, at desc, id desc);
    `,
  },
  {
    // Evidence that says once more what was seen before and after it may be folded into a count. What stood in its place
    // keeps the link of the chain, so that what is left still verifies.
    name: '008_folded_evidence',
    up: `
      create table evidence_gap (
        job_id uuid not null references job on delete cascade,
        first_place bigint not null,
        last_place bigint not null,
        -- Of the piece that stood at the last place.
        chain bytea not null,
        at timestamptz not null default now(),
        person text not null,
        primary key (job_id, first_place)
      );
      create table evidence_count (
        -- The piece that stays, which they all say once more.
        evidence_id bigint primary key,
        job_id uuid not null references job on delete cascade,
        count integer not null,
        until timestamptz not null
      );
      create trigger evidence_stays before update or delete on evidence_gap
        for each row execute function evidence_stays();
      create trigger evidence_whole before truncate on evidence_gap
        for each statement execute function evidence_stays();
      create function evidence_fold(of_job uuid, before timestamptz, who text) returns bigint
        language plpgsql set search_path from current as $$
        declare folded bigint;
        begin
          perform pg_advisory_xact_lock(hashtextextended(of_job::text, 20261129));
          create temporary table folding on commit drop as
            with said as (
              select id, place, chain, at, interface_id, kind,
                -- Another MAC, address or word than the one before of its kind is news.
                (mac, address, source, facts) is distinct from
                  (lag(mac) over alike, lag(address) over alike, lag(source) over alike,
                   lag(facts) over alike) as is_news
              from evidence
              where job_id = of_job and kind in ('asked', 'asked-by-name', 'asked-by-port')
                and facts->>'proof' is null
              window alike as (partition by interface_id, kind order by place)
            ), numbered as (
              select *, count(*) filter (where is_news)
                over (partition by interface_id, kind order by place) as number
              from said
            ), placed as (
              select *, first_value(id) over times as first_id, lead(id) over times as next_id
              from numbered
              window times as (partition by interface_id, kind, number order by place)
            )
            select id, place, chain, at, first_id from placed
            where id <> first_id and next_id is not null and at < before
              and not exists (select from latest_evidence where evidence_id = placed.id);
          get diagnostics folded = row_count;
          if folded = 0 then return 0; end if;
          insert into evidence_count as known (evidence_id, job_id, count, until)
            select first_id, of_job, count(*), max(at) from folding group by first_id
            on conflict (evidence_id) do update
            set count = known.count + excluded.count, until = greatest(known.until, excluded.until);
          insert into evidence_gap (job_id, first_place, last_place, chain, person)
            select of_job, min(place), max(place), (array_agg(chain order by place desc))[1], who
            from (select *, place - row_number() over (order by place) as island from folding) as one
            group by island;
          alter table evidence disable trigger evidence_remains;
          delete from evidence using folding where evidence.id = folding.id;
          alter table evidence enable trigger evidence_remains;
          drop table folding;
          return folded;
        end $$;
    `,
    down: `
      drop function evidence_fold;
      drop table evidence_count, evidence_gap;
    `,
  },
  {
    // Of each kind the row of the latest is changed again and again: with room beside it the new state stands in the same
    // page, and no index has to be told (HOT); what is left behind is taken away early.
    name: '009_room_for_the_latest',
    up: `alter table latest_evidence
      set (fillfactor = 60, autovacuum_vacuum_scale_factor = 0.05);`,
    down: 'alter table latest_evidence reset (fillfactor, autovacuum_vacuum_scale_factor);',
  },
  REHEARSALS,
  ARCHIVED,
  PRACTICE_SITES,
  DELETED,
  HANDED,
  ACCOUNTS,
  WAITED_ACTS,
  TAKEN_CALLS,
  SEVERAL_SERVERS,
  BUNDLES,
  PHOTOS,
];

export const migrationSource: Knex.MigrationSource<Migration> = {
  getMigrations: () => Promise.resolve([...MIGRATIONS]),
  getMigrationName: (migration) => migration.name,
  getMigration: ({ up, down }) =>
    Promise.resolve({
      up: (knex: Knex) => knex.raw(up),
      down: (knex: Knex) => knex.raw(down),
    }),
};
