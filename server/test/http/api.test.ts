import { parse } from 'csv-parse/sync';
import type { DeviceInfo, ErrorView, FieldView, JobView, PlanView } from '@ipsonomo/core/api';
import { issueCodes } from '@ipsonomo/language';
import { addingDevices, removingDevice } from '../../../core/test/jobs';
import { givenStatus, statusOf } from '../../src/http/errors';
import { ApiBench, device, subnet, type Method } from './api-bench';

// The server without a port, on the real database, with the practice site in its own thread.

let bench: ApiBench;
let job: JobView;

beforeAll(async () => {
  bench = await ApiBench.open('api');
  ({ job } = bench);
}, 30_000);

afterAll(async () => {
  await bench.close();
  // Whatever was asked here was foreseen: nothing ended in the log of errors.
  expect(bench.logged).toEqual([]);
});

const call: ApiBench['call'] = (...args) => bench.call(...args);
const jobOf = (name: string) => bench.jobOf(name);

const NOBODY = '00000000-0000-4000-8000-000000000000';
const here = () => `/jobs/${job.id}`;
const hall = () => job.subnets[0]?.id ?? '';
const interfaceOf = (title: string) =>
  job.devices.find((one) => one.title === title)?.interfaces[0]?.id ?? '';
const bind = (title: string) => `${here()}/interfaces/${interfaceOf(title)}/bind`;

/** Bad input of every kind: a code, the place, and a status. */
test.each<[string, Method, () => string, () => unknown, number, string]>([
  ['no body', 'post', () => '/jobs', () => undefined, 400, 'body.invalid'],
  ['a wrong type', 'post', () => '/jobs', () => ({ name: 7 }), 400, 'body.invalid'],
  [
    'a field too many',
    'post',
    () => '/jobs',
    () => ({ name: 'x', admin: true }),
    400,
    'body.invalid',
  ],
  ['a job without a name', 'post', () => '/jobs', () => ({ name: '  ' }), 422, 'name.empty'],
  ['a job twice', 'post', () => '/jobs', () => ({ name: 'Tern Cove hatchery' }), 409, 'job.taken'],
  ['an unknown job', 'get', () => `/jobs/${NOBODY}/plan`, () => undefined, 404, 'thing.unknown'],
  ['an id that is none', 'get', () => "/jobs/1' or '1/plan", () => undefined, 404, 'thing.unknown'],
  ['an unknown address', 'get', () => '/nothing', () => undefined, 404, 'thing.unknown'],
  [
    'host bits',
    'post',
    () => `${here()}/subnets`,
    () => subnet({ network: '172.22.42.9/24' }),
    422,
    'prefix.hostBits',
  ],
  [
    'an overlap',
    'post',
    () => `${here()}/subnets`,
    () => subnet({ network: '172.22.40.0/22' }),
    422,
    'subnet.overlap',
  ],
  [
    'a VLAN of 4095',
    'post',
    () => `${here()}/subnets`,
    () => subnet({ vlan: 4095 }),
    400,
    'body.invalid',
  ],
  [
    'an octet of 300',
    'post',
    () => `${here()}/edits`,
    () => ({
      edits: addingDevices([device({ subnetId: hall(), address: '172.22.40.300' })]),
      why: '',
    }),
    422,
    'ipv4.octet',
  ],
  [
    'no edit at all',
    'post',
    () => `${here()}/edits`,
    () => ({ edits: [], why: '' }),
    400,
    'body.invalid',
  ],
  [
    'a group MAC',
    'post',
    () => bind('Drum filter drive 1'),
    () => ({ mac: '01:00:5e:00:00:01', label: '01:00:5e:00:00:01' }),
    422,
    'mac.group',
  ],
  [
    'half a MAC',
    'post',
    () => bind('Drum filter drive 1'),
    () => ({ mac: '02:4c:7a', label: '' }),
    422,
    'mac.length',
  ],
  [
    'a label that reads otherwise',
    'post',
    () => bind('Drum filter drive 1'),
    () => ({ mac: '02:4c:7a:1d:80:11', label: '02-4C-7A-1D-80-12' }),
    422,
    'label.differs',
  ],
  [
    'pinning what has no such object',
    'post',
    () => `${here()}/interfaces/${interfaceOf('Intake flow meter')}/pin`,
    () => ({}),
    422,
    'pin.noObject',
  ],
  [
    'answering before listening',
    'post',
    () => `${here()}/wire/arm`,
    () => ({ minutes: 5 }),
    409,
    'field.noWire',
  ],
  [
    'answering for a day',
    'post',
    () => `${here()}/wire/arm`,
    () => ({ minutes: 1440 }),
    400,
    'body.invalid',
  ],
  [
    'an adapter with a slash',
    'post',
    () => `${here()}/wire`,
    () => ({ kind: 'live', adapter: '../x' }),
    400,
    'body.invalid',
  ],
  [
    'an adapter that is not there',
    'post',
    () => `${here()}/wire`,
    () => ({ kind: 'live', adapter: 'nope0' }),
    404,
    'wire.noAdapter',
  ],
  [
    'an unknown act at the cabinet',
    'post',
    () => `${here()}/practice/cabinet`,
    () => ({ action: { kind: 'burn' } }),
    400,
    'body.invalid',
  ],
  [
    'a capture of another job',
    'get',
    () => `${here()}/runs/${NOBODY}/capture.pcap`,
    () => undefined,
    404,
    'thing.unknown',
  ],
])('%s', async (_name, method, path, body, status, code) => {
  const sent = body();
  const answer = await call(method, path()).send(sent as object | undefined);
  const error = answer.body as ErrorView;
  expect([answer.status, error.code]).toEqual([status, code]);
  expect(issueCodes).toContain(error.code);
  const after = (await call('get', `${here()}/plan`)).body as PlanView;
  expect(after.revision).toBe(job.revision);
});

test('what is no JSON, or too much of it, is refused as such', async () => {
  const json = () => call('post', '/jobs').set('content-type', 'application/json');
  expect((await json().send('{"name":')).body).toMatchObject({ code: 'body.invalid' });
  const much = await json().send(JSON.stringify({ name: 'x'.repeat(2_000_000) }));
  expect([much.status, (much.body as ErrorView).code]).toEqual([413, 'body.tooLarge']);
});

test("another site's page may not act here", async () => {
  const foreign = call('post', '/jobs').set('origin', 'http://elsewhere.example');
  expect((await foreign.send({ name: 'Theirs' })).status).toBe(400);
  const own = call('post', '/jobs')
    .set('host', '192.168.1.20:4780')
    .set('origin', 'http://192.168.1.20:4780');
  expect((await own.send({ name: 'Ours' })).status).toBe(201);
});

test('every code has a status of its own or its family’s', () => {
  expect(issueCodes.filter((code) => givenStatus(code) === undefined)).toEqual([]);
  expect([statusOf('ipv4.octet'), statusOf('door.slow'), statusOf('field.noWire')]).toEqual([
    422, 429, 409,
  ]);
});

test('add, change, bind, unbind, remove: each is a revision', async () => {
  const { path, subnetId } = await jobOf('Round trip');
  const wanted = device({ subnetId, address: '10.9.0.100', name: 'vb-1' });
  await bench.add(path, wanted);
  const view = () => bench.view(path);
  const [added] = (await view()).devices as [DeviceInfo];
  expect(added).toMatchObject({ name: 'vb-1', title: 'Valve block' });
  const edit = (edits: readonly object[]) => call('post', `${path}/edits`).send({ edits, why: '' });
  const set = (type: string, id: string | undefined, field: string, from: string, to: string) => ({
    ...{ op: 'set', type, id, field, from, to },
  });
  const [at0] = added.interfaces;
  await edit([
    set('interface', at0?.id, 'address', '10.9.0.100', '10.9.0.101'),
    set('device', added.id, 'title', 'Valve block', 'Valves'),
  ]).expect(200);
  await edit([set('interface', at0?.id, 'address', '10.9.0.101', '10.9.0.555')]).expect(422);
  const at = `${path}/interfaces/${at0?.id}`;
  const label = { mac: '02:00:5e:00:53:11', label: 'O2-00-5E-00-53-11' };
  await call('post', `${at}/bind`).send(label).expect(204);
  expect((await view()).devices[0]).toMatchObject({
    title: 'Valves',
    interfaces: [{ address: '10.9.0.101', mac: '02:00:5e:00:53:11', stage: 'planned' }],
  });
  const seen = (await call('get', `${at}/evidence`)).body as unknown[];
  expect(seen).toMatchObject([
    { kind: 'bound', person: 'Mara Quist', facts: { label: '02:00:5e:00:53:11' } },
  ]);
  await call('post', `${at}/said-kept`).expect(204);
  expect((await view()).devices[0]?.interfaces[0]?.stage).toBe('planned');
  await call('post', `${at}/unbind`).expect(204);
  const plan = (await call('get', `${path}/plan`)).body as PlanView;
  await edit(removingDevice(plan, added.id)).expect(200);
  expect(await view()).toMatchObject({ devices: [], revision: 6 });
});

test('R-CSV: the list reads back cell for cell, whatever was typed, and runs no formula', async () => {
  const { path, subnetId } = await jobOf('List; "quoted", job');
  const titles = ['Drive, "left"\nupper', '=HYPERLINK("x")', '+1', '@cmd', 'Förderer ✓'];
  const wanted = titles.map((title, i) =>
    device({ title, subnetId, name: `vb-${i}`, address: `10.9.0.${100 + i}` }),
  );
  await bench.add(path, ...wanted);
  const answer = await call('get', `${path}/files/addresses-csv?despite=yes`).expect(200);
  expect(answer.headers['content-type']).toBe('text/csv; charset=utf-8');
  expect(answer.headers['content-disposition']).toContain('revision 2.csv');
  expect(answer.text.endsWith('\r\n')).toBe(true);
  const rows = parse(answer.text, { record_delimiter: '\r\n', columns: true }) as Record<
    string,
    string
  >[];
  expect(rows.map((row) => row['device'])).toEqual([
    ...['Drive, "left"\nupper', `'=HYPERLINK("x")`, `'+1`, `'@cmd`, 'Förderer ✓'],
  ]);
  expect(rows[0]).toMatchObject({
    ...{
      address: '10.9.0.100',
      mask: '255.255.255.0',
      gateway: '10.9.0.1',
      network: '10.9.0.0/24',
    },
    ...{ MAC: '', way: 'BootP', stage: 'planned', 'last evidence': '', 'seen at': '' },
  });
});

test('handing over counts from there', async () => {
  const { path, subnetId } = await jobOf('Handed over');
  const left = async () => (await bench.view(path)).left.handOver;
  expect(await left()).toBe(1);
  await call('post', `${path}/hand-overs`)
    .send({ reader: 'it', formats: ['addresses-csv'] })
    .expect(204);
  expect(await left()).toBe(0);
  const wanted = device({ subnetId, address: '10.9.0.100' });
  await bench.add(path, wanted);
  expect(await left()).toBe(1);
});

test('the practice wire: chosen, listened on, and a capture to take away', async () => {
  await call('post', `${here()}/wire`).send({ kind: 'practice' }).expect(200);
  const field = (await call('post', `${here()}/wire/listen`).expect(200)).body as FieldView;
  expect(field).toMatchObject({ jobId: job.id, source: 'practice' });
  // Another job has a wire of its own, and none chosen yet.
  const { path } = await jobOf('Another');
  const other = await call('post', `${path}/wire/listen`).expect(409);
  expect((other.body as ErrorView).code).toBe('field.noWire');
  await call('post', `${path}/wire`).send({ kind: 'practice' }).expect(200);
  const second = (await call('post', `${path}/wire/listen`).expect(200)).body as FieldView;
  expect(second.runId).not.toBe(field.runId);
  const wires = (await call('get', '/wires').expect(200)).body as FieldView[];
  expect(wires.map(({ jobId, runId }) => [jobId, runId])).toEqual([
    [field.jobId, field.runId],
    [second.jobId, second.runId],
  ]);
  await call('post', `${here()}/wire/rest`).expect(200);
  const left = (await call('get', `${path}/wire`)).body as FieldView;
  expect(left.runId).toBe(second.runId);
  const runs = (await call('get', `${here()}/runs`)).body as { id: string; person: string }[];
  expect(runs[0]).toMatchObject({ id: field.runId, person: 'Mara Quist' });
  const capture = await call('get', `${here()}/runs/${field.runId}/capture.pcap`).expect(200);
  expect(capture.headers['content-type']).toBe('application/vnd.tcpdump.pcap');
});
