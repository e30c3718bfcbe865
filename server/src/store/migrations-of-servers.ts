import type { Migration } from './migration';

/**
 * Several servers, each with wires of its own, work with one database: who they are, and what one of them wrote, in a log
 * with numbers that the others go on with after a gap. It is written by triggers, with what it tells of, so that whoever
 * writes tells; a notification says that there is something to read.
 */
export const SEVERAL_SERVERS: Migration = {
  name: '018_several_servers',
  up: `
      create table server (
        id uuid primary key,
        name text not null,
        started_at timestamptz not null default now(),
        seen_at timestamptz not null default now(),
        ended_at timestamptz,
        wires jsonb not null default '[]'
      );
      create function own_server() returns uuid language sql stable as $$
        select nullif(current_setting('ipsonomo.server', true), '')::uuid $$;
      alter table run add column server_id uuid default own_server();
      alter table proof add column server_id uuid default own_server();
      create table news (
        id bigint generated always as identity primary key,
        -- Of its transaction: numbers are given before it ends, and whoever ends later may have a smaller one.
        tx xid8 not null default pg_current_xact_id(),
        at timestamptz not null default now(),
        server_id uuid default own_server(),
        job_id uuid,
        kind text not null,
        body jsonb not null default '{}'
      );
      create index news_tx on news (tx);
      create index news_at on news (at);
      create function news_told() returns trigger language plpgsql as $$
        begin
          perform pg_notify('ipsonomo ' || tg_table_schema, '');
          return null;
        end $$;
      create trigger news_told after insert on news
        for each statement execute function news_told();

      -- Arguments: the column of the job, the kind of news, a column that goes along.
      create function news_of_row() returns trigger
        language plpgsql set search_path from current as $$
        declare one jsonb;
        begin
          if tg_op = 'DELETE' then one := to_jsonb(old); else one := to_jsonb(new); end if;
          insert into news (job_id, kind, body) values (
            (one->>tg_argv[0])::uuid, tg_argv[1],
            case when tg_nargs > 2 then jsonb_build_object(tg_argv[2], one->tg_argv[2])
              else '{}' end);
          return null;
        end $$;
      create function news_of_statement() returns trigger
        language plpgsql set search_path from current as $$
        begin
          insert into news (kind) values (tg_argv[0]);
          return null;
        end $$;
      create function news_of_evidence() returns trigger
        language plpgsql set search_path from current as $$
        begin
          insert into news (job_id, kind) select distinct job_id, 'evidence' from added;
          return null;
        end $$;

      create trigger news after insert on revision
        for each row execute function news_of_row('job_id', 'revision', 'number');
      create trigger news_of_name after update of name on revision
        for each row execute function news_of_row('job_id', 'job');
      create trigger news after insert on evidence referencing new table as added
        for each statement execute function news_of_evidence();
      create trigger news after insert on job
        for each row execute function news_of_row('id', 'job');
      create trigger news_of_change after update of name, archived_at on job
        for each row execute function news_of_row('id', 'job');
      create trigger news_of_end after delete on job
        for each row execute function news_of_row('id', 'gone');
      create trigger news after insert on hand_over
        for each row execute function news_of_row('job_id', 'job');
      create trigger news after insert or delete on taken_call
        for each row execute function news_of_row('job_id', 'job');
      create trigger news_of_change after update on taken_call for each row
        when (old.person <> new.person or old.account_id is distinct from new.account_id
          or old.word is distinct from new.word or old.until < new.since)
        execute function news_of_row('job_id', 'job');
      create trigger news after insert or update of ended_at, how on proof
        for each row execute function news_of_row('job_id', 'job');
      create trigger news after insert or update of ended_at on run
        for each row execute function news_of_row('job_id', 'job');
      create trigger news after insert or update on rehearsal
        for each row execute function news_of_row('job_id', 'rehearsal');
      create trigger news after insert on found_mistake
        for each row execute function news_of_row('job_id', 'job');
      create trigger news after insert or delete or update on account
        for each statement execute function news_of_statement('people');
      create trigger news after insert or delete or update on send_grant
        for each statement execute function news_of_statement('people');
      -- When somebody was here last is nobody's news.
      create trigger news after insert or delete or update of account_id on browser
        for each statement execute function news_of_statement('people');
      create trigger news after insert or delete on invitation
        for each statement execute function news_of_statement('people');
      create trigger news after insert or update of name, ended_at, wires on server
        for each statement execute function news_of_statement('servers');
    `,
  down: `
      drop trigger news on revision;
      drop trigger news_of_name on revision;
      drop trigger news on evidence;
      drop trigger news on job;
      drop trigger news_of_change on job;
      drop trigger news_of_end on job;
      drop trigger news on hand_over;
      drop trigger news on taken_call;
      drop trigger news_of_change on taken_call;
      drop trigger news on proof;
      drop trigger news on run;
      drop trigger news on rehearsal;
      drop trigger news on found_mistake;
      drop trigger news on account;
      drop trigger news on send_grant;
      drop trigger news on browser;
      drop trigger news on invitation;
      drop table server, news;
      drop function news_told, news_of_row, news_of_statement, news_of_evidence;
      alter table run drop column server_id;
      alter table proof drop column server_id;
      drop function own_server;
    `,
};
