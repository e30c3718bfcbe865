import type {
  CabinetView,
  ErrorView,
  FieldView,
  JobSummary,
  RehearsalView,
  RoundTimes,
} from '@ipsonomo/core/api';
import { ApiBench } from './api-bench';

// R-REHEARSE: a rehearsal is a job of its own, on a site made of its plan.

let bench: ApiBench;
beforeAll(async () => {
  bench = await ApiBench.open('rehearsals', 10);
}, 30_000);
afterAll(async () => {
  await bench.close();
  expect(bench.logged).toEqual([]);
});

const post = (path: string, body: object = {}) => bench.call('post', path).send(body);
const read = async <T>(path: string) => (await bench.call('get', path).expect(200)).body as T;

const subnet = { name: 'Hall', network: '10.4.7.0/24', gateway: null, vlan: 7, purpose: '' };
const device = (subnetId: string, number: number) => [
  {
    ...{ op: 'add', type: 'device' },
    thing: {
      ...{ id: `drive-${number}`, title: `Drive ${number}`, name: `drive-${number}` },
      ...{ kindId: 'belloch-drive-d4', way: 'dhcp-mac', modules: [], lines: [], references: [] },
      ...{ routes: [], translations: [] },
    },
  },
  {
    ...{ op: 'add', type: 'interface' },
    thing: {
      ...{ id: `at-${number}`, deviceId: `drive-${number}`, subnetId },
      address: `10.4.7.${20 + number}`,
    },
  },
];

let made = 0;
/** Another name at each try. */
const named = (name: string): string => `${name} ${(made += 1)}`;

async function jobOf(name: string): Promise<string> {
  const { id } = (await post('/jobs', { name }).expect(201)).body as { id: string };
  const { id: hall } = (await post(`/jobs/${id}/subnets`, subnet).expect(201)).body as {
    id: string;
  };
  const edits = [1, 2, 3].flatMap((number) => device(hall, number));
  await post(`/jobs/${id}/edits`, { edits, why: 'three drives' }).expect(200);
  return id;
}

const rehearsalOf = async (job: string, wish: object, seed = 3): Promise<string> =>
  ((await post(`/jobs/${job}/rehearsals`, { wish, seed }).expect(201)).body as { id: string }).id;

const NONE = { kind: 'surprise', count: 0 };

test('each planned device stands on its site, and nothing of it reaches the job itself', async () => {
  const name = named('Press line');
  const job = await jobOf(name);
  const id = await rehearsalOf(job, NONE);
  const jobs = await read<readonly JobSummary[]>('/jobs');
  expect(jobs.filter((one) => [job, id].includes(one.id))).toMatchObject([
    { name, rehearses: null },
    { name: `Rehearsal of ${name}`, rehearses: { id: job, name } },
  ]);
  // Its site is its wire at once; the job itself has none.
  expect(await read<FieldView>(`/jobs/${id}/wire`)).toMatchObject({ source: 'rehearsal' });
  expect(await read<FieldView>(`/jobs/${job}/wire`)).toMatchObject({ source: null });
  await post(`/jobs/${id}/wire/listen`).expect(200);
  const { devices, faults } = await read<CabinetView>(`/jobs/${id}/practice/cabinet`);
  expect(devices.map(({ id: at, title }) => [at, title])).toEqual([
    ['at-1', 'Drive 1'],
    ['at-2', 'Drive 2'],
    ['at-3', 'Drive 3'],
  ]);
  expect(faults).toEqual([]);
  expect(await read<RehearsalView>(`/jobs/${id}/rehearsal`)).toMatchObject({
    ...{ of: { id: job, name }, mistakes: 0, found: [], missed: [] },
    ...{ endedAt: null, unrehearsed: [] },
  });
  await post(`/jobs/${id}/wire/rest`).expect(200);
});

test('a mistake is put right by whoever names it, and what was not found is told at the end', async () => {
  const job = await jobOf(named('Weigher'));
  const id = await rehearsalOf(job, { kind: 'chosen', which: ['cable-out', 'drops-out'] });
  await post(`/jobs/${id}/wire/listen`).expect(200);
  const cabinet = () => read<CabinetView>(`/jobs/${id}/practice/cabinet`);
  const out = (await cabinet()).devices.find(({ cable }) => !cable);
  expect(out).toBeDefined();
  const claim = (kind: string, interfaceId: string) =>
    post(`/jobs/${id}/rehearsal/claims`, { kind, interfaceId });
  expect((await claim('wrong-label', out?.id ?? '').expect(200)).body).toEqual({ isRight: false });
  expect((await claim('cable-out', out?.id ?? '').expect(200)).body).toEqual({ isRight: true });
  expect((await cabinet()).devices.every(({ cable }) => cable)).toBe(true);
  const during = await read<RehearsalView>(`/jobs/${id}/rehearsal`);
  expect(during).toMatchObject({
    ...{ mistakes: 2, wrongClaims: 1, missed: [] },
    found: [{ kind: 'cable-out', interfaceId: out?.id, person: 'Mara Quist' }],
  });
  const ended = (await post(`/jobs/${id}/rehearsal/end`).expect(200)).body as RehearsalView;
  expect(ended.missed.map(({ kind }) => kind)).toEqual(['drops-out']);
  expect(ended.endedAt).not.toBeNull();
  const late = await claim('drops-out', ended.missed[0]?.interfaceId ?? '').expect(409);
  expect((late.body as ErrorView).code).toBe('rehearsal.ended');
});

test('a rehearsal takes no adapter, and a job that is none says so', async () => {
  const job = await jobOf(named('Conveyor'));
  const id = await rehearsalOf(job, NONE);
  const refused = await post(`/jobs/${id}/wire`, { kind: 'live', adapter: 'lo' }).expect(409);
  expect((refused.body as ErrorView).code).toBe('rehearsal.live');
  const none = await bench.call('get', `/jobs/${job}/rehearsal`).expect(404);
  expect((none.body as ErrorView).code).toBe('rehearsal.none');
});

test('its devices stay as delivered, whatever is changed in its plan', async () => {
  const id = await rehearsalOf(await jobOf(named('Filler')), NONE);
  const edit = { op: 'set', type: 'device', id: 'drive-1', field: 'title', from: 'Drive 1' };
  await post(`/jobs/${id}/edits`, { edits: [{ ...edit, to: 'Pump' }], why: 'renamed' }).expect(200);
  const { devices } = await read<CabinetView>(`/jobs/${id}/practice/cabinet`);
  expect(devices.map(({ title }) => title)).toEqual(['Drive 1', 'Drive 2', 'Drive 3']);
});

test('how long a round takes: what is left, by cabinet; another order or more people as they are said', async () => {
  const job = await jobOf('How long');
  const times = async (body: object): Promise<RoundTimes> =>
    (await post(`/jobs/${job}/round/times`, body).expect(200)).body as RoundTimes;
  const one = await times({ people: 1 });
  expect(one).toMatchObject({ calls: 3, people: 1, waited: { factory: 0 } });
  expect(one.cabinets.map(({ calls }) => calls)).toEqual([3]);
  expect(one.savings.map(([saving]) => saving)).toContain('bound');
  // All stand in one cabinet: nobody else finds anything to do.
  expect((await times({ people: 4, order: ['at-3', 'at-1'] })).calls).toBe(2);
  expect(await times({ people: 1, order: ['nobody'] })).toMatchObject({ calls: 0, seconds: 0 });
  for (const people of [0, 5, 1.5])
    expect((await post(`/jobs/${job}/round/times`, { people })).status).toBe(400);
});
