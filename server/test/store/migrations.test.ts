import { formatPrefix } from '@ipsonomo/core/net';
import { openDatabase } from '../../src/store/database';
import { migrationSource } from '../../src/store/migrations';
import { Store } from '../../src/store/store';

// A database of the first release, brought up to date: nothing of its plan is lost.

const SCHEMA = `t_migrations_${process.pid}`;
const knex = openDatabase({ url: process.env['E2E_DATABASE_URL'] ?? '', schema: SCHEMA });

beforeAll(async () => {
  await knex.raw('drop schema if exists ?? cascade', SCHEMA);
  await knex.raw('create schema ??', SCHEMA);
});

afterAll(async () => {
  await knex.raw('drop schema ?? cascade', SCHEMA);
  await knex.destroy();
});

test('subnets, devices and bound MACs of the first release become things', async () => {
  await knex.migrate.up({ migrationSource });
  const job = '10000000-0000-4000-8000-000000000000';
  const [subnet, device] = [job.replace(/^1/, '2'), job.replace(/^1/, '3')];
  await knex('job').insert({ id: job, name: 'Old job' });
  const bands = JSON.stringify([{ role: 'io', first: '10.0.0.100', last: '10.0.0.149' }]);
  await knex('subnet').insert({
    ...{ id: subnet, job_id: job, name: 'Hall', network: '10.0.0.0/24', gateway: '10.0.0.1' },
    ...{ vlan: 40, purpose: 'machine', bands },
  });
  await knex('device').insert({
    ...{ id: device, job_id: job, title: 'Drive', name: 'drive-1', cabinet: 'FH2' },
    ...{ kind_id: 'belloch-drive-d4', way: 'dhcp-mac' },
  });
  await knex('interface').insert({
    ...{ job_id: job, device_id: device, subnet_id: subnet, address: '10.0.0.80' },
    mac: '02:00:5e:00:53:11',
  });
  await knex('revision').insert({ job_id: job, number: 4, person: 'Mara', what: 'planned' });
  await knex.migrate.latest({ migrationSource });

  const store = new Store(knex);
  expect(await store.planState(job)).toMatchObject({ revision: 4, lastNamed: 0 });
  const plan = await store.plan(job);
  expect(plan.subnets.map((one) => [one.name, formatPrefix(one.prefix), one.vlan])).toEqual([
    ['Hall', '10.0.0.0/24', 40],
  ]);
  expect(plan.subnets[0]?.bands).toHaveLength(1);
  expect(plan.devices).toMatchObject([
    { title: 'Drive', name: 'drive-1', cabinet: 'FH2', interfaces: [{ mac: 0x02005e005311 }] },
  ]);
  expect(plan.settings.bandTemplate.length).toBeGreaterThan(5);
});

test('whoever was let in before there were accounts keeps being in, as somebody who may do everything', async () => {
  await knex.migrate.latest({ migrationSource });
  // What came after accounts looks at them.
  for (const name of ['020_photos', '019_bundles', '018_several_servers', '015_accounts'])
    await knex.migrate.down({ migrationSource, name } as object);
  const browsers = ['Mara Quist', 'mara quist', 'Ilse Brandt', '', ''].map((person, at) => ({
    ...{ person, device: `phone ${at}`, digest: Buffer.from([at]) },
    ...{ let_in_at: new Date(), seen_at: new Date() },
  }));
  await knex('browser').insert(browsers);
  await knex.migrate.latest({ migrationSource });
  const store = new Store(knex);
  const accounts = await store.people.accounts();
  const byId = new Map(accounts.map((one) => [one.id, one]));
  const rows = await store.door.browsers();
  const named = rows.map(({ device, account_id }) => {
    const account = byId.get(account_id);
    return [device, account?.name.toLowerCase(), account?.role];
  });
  expect(named.sort()).toEqual([
    ['phone 0', 'mara quist', 'keep'],
    ['phone 1', 'mara quist', 'keep'],
    ['phone 2', 'ilse brandt', 'keep'],
    ['phone 3', '', 'keep'],
    ['phone 4', '', 'keep'],
  ]);
  // One account for each name, and one for each browser that gave none.
  expect(accounts).toHaveLength(4);
});
