import type { Migration } from './migration';

/** What people photographed of devices; evidence names each by the SHA-256 of its bytes, and none is ever changed. */
export const PHOTOS: Migration = {
  name: '020_photos',
  up: `
      create table photo (
        job_id uuid not null references job on delete cascade,
        id text not null,
        bytes bytea not null,
        at timestamptz not null default now(),
        primary key (job_id, id)
      );
    `,
  down: 'drop table photo;',
};
