import type { Migration } from './migration';

/**
 * Installations that were apart are made one again: a revision has a name that is the same wherever it is carried, and how
 * many were known where it was made; those that were made elsewhere stand beside the own ones, and so do the chains of
 * evidence that others kept.
 */
export const BUNDLES: Migration = {
  name: '019_bundles',
  up: `
      alter table revision
        -- Of those that are older: the same in every copy of this database.
        add column uid uuid,
        add column depth integer,
        -- It only brings the plan to where the others' revisions lead, and is none that others need.
        add column is_joining boolean not null default false;
      update revision set depth = number, uid = md5(concat_ws(' ', job_id, number,
        extract(epoch from at), edits))::uuid;
      alter table revision
        alter column uid set not null, alter column uid set default gen_random_uuid(),
        alter column depth set not null;
      create unique index revision_uid on revision (job_id, uid);
      create index revision_depth on revision (job_id, depth);
      create table revision_elsewhere (
        job_id uuid not null references job on delete cascade,
        uid uuid not null,
        depth integer not null,
        at timestamptz not null,
        person text not null,
        what text not null,
        edits jsonb not null,
        server_id uuid not null,
        brought_at timestamptz not null default now(),
        primary key (job_id, uid)
      );
      create index revision_elsewhere_depth on revision_elsewhere (job_id, depth);
      create function revision_is_behind() returns trigger
        language plpgsql set search_path from current as $$
        begin
          if new.depth is null then
            new.depth := 1 + greatest(
              coalesce((select max(depth) from revision where job_id = new.job_id), 0),
              coalesce((select max(depth) from revision_elsewhere where job_id = new.job_id), 0));
          end if;
          return new;
        end $$;
      create trigger revision_is_behind before insert on revision
        for each row execute function revision_is_behind();

      -- What it says, wherever it stands: the same piece that came two ways is one.
      create function evidence_content(one evidence) returns uuid language sql stable as $$
        select md5(jsonb_build_array(
          one.job_id, one.interface_id, one.run_id, one.sequence, one.kind,
          extract(epoch from one.at), one.mac, one.address, one.source, one.person, one.facts,
          encode(one.bytes, 'hex'))::text)::uuid $$;
      -- The first place at which a chain that others kept does not hold; null where it does.
      create function chain_breaks_at(lines jsonb, before text) returns bigint
        language plpgsql stable set search_path from current as $$
        declare line jsonb; piece evidence; last bytea := decode(before, 'hex');
        begin
          for line in select value from jsonb_array_elements(lines) as each (value) loop
            if line->'evidence' is not null then
              piece := jsonb_populate_record(null::evidence, line->'evidence');
              piece.place := (line->>'place')::bigint;
              if encode(evidence_seal(piece, last), 'hex') <> line->>'chain' then
                return piece.place;
              end if;
            end if;
            last := decode(line->>'chain', 'hex');
          end loop;
          return null;
        end $$;
      create index evidence_when on evidence (job_id, at);
      create table evidence_elsewhere (
        job_id uuid not null references job on delete cascade,
        server_id uuid not null,
        place bigint not null,
        -- Which piece stood there; null for so many that were folded.
        content uuid,
        folded bigint,
        chain bytea not null,
        primary key (job_id, server_id, place)
      );
      create table bundle_taken (
        job_id uuid not null references job on delete cascade,
        server_id uuid not null,
        server_name text not null,
        -- The digest of the file.
        digest text not null,
        at timestamptz not null default now(),
        person text not null,
        revisions integer not null,
        evidence integer not null,
        primary key (job_id, digest)
      );
      -- Somebody saw both and says that it stays as it is.
      create table clash_settled (
        job_id uuid not null references job on delete cascade,
        stands text not null,
        lost text not null,
        what text not null,
        person text not null,
        at timestamptz not null default now(),
        primary key (job_id, stands, lost, what)
      );
      create trigger news after insert on clash_settled
        for each row execute function news_of_row('job_id', 'job');
      create trigger news after insert on bundle_taken
        for each row execute function news_of_row('job_id', 'job');
    `,
  down: `
      drop index evidence_when;
      drop table clash_settled, bundle_taken, evidence_elsewhere;
      drop function evidence_content, chain_breaks_at;
      drop trigger revision_is_behind on revision;
      drop function revision_is_behind;
      drop table revision_elsewhere;
      alter table revision drop column uid, drop column depth, drop column is_joining;
    `,
};
