import { fireEvent, waitFor } from '@testing-library/react';
import type { AdapterView, CabinetView, ErrorView } from '@ipsonomo/core/api';
import { CabinetScreen } from '../../src/features/wire/cabinet/CabinetScreen';
import { WireScreen } from '../../src/features/wire/WireScreen';
import { wentTo } from '../router';
import { FIELD, show } from '../world';

// Which wire a job is on, who has it, and what hands do at the cabinets of its practice site.

const adapter = (name: string, fields: Partial<AdapterView> = {}): AdapterView => ({
  ...{ name, mac: '02:00:5e:00:53:01', link: 'up', wireless: false, virtual: false },
  ...{ addresses: ['10.0.0.5'], job: null, speed: 100, received: 7 },
  ...fields,
});

const adapters = [
  adapter('eth0'),
  adapter('eth1', { job: { id: 'other', name: 'Bottling line 3' }, link: 'down' }),
  adapter('wlan0', { wireless: true, job: { id: 'job', name: 'Tern Cove hatchery' } }),
];

const open = (field = FIELD, answer: unknown = field) =>
  show(<WireScreen job="job" />, {
    field,
    also: [
      ['/adapters', adapters],
      ['/wire', answer],
    ],
  });

test('each adapter says what it is, and which other job has it', async () => {
  const { findByText, getByText, queryByText } = open({ ...FIELD, runId: null });
  expect(await findByText('cable · link · 100 Mbit/s · 02:00:5e:00:53:01 · 10.0.0.5')).toBeTruthy();
  expect(getByText(/^the wire of Bottling line 3 · cable · no link/)).toBeTruthy();
  // That it is this job's is plain from the mark.
  expect(getByText(/^radio · link/)).toBeTruthy();
  expect(queryByText(/the wire of Tern Cove/)).toBeNull();
});

test('while nobody listens the next thing is to listen; it is the job’s own wire that is asked', async () => {
  const { findByText, calls } = open({ ...FIELD, runId: null });
  fireEvent.click(await findByText('Start listening'));
  await waitFor(() => expect(calls).toHaveLength(1));
  expect(calls[0]).toMatchObject({ method: 'POST', path: '/api/jobs/job/wire/listen' });
});

test('an adapter that somebody listens on is taken only after a question', async () => {
  const facts = { person: 'Mara Quist', what: 'Bottling line 3' };
  const refused: ErrorView = {
    code: 'wire.inUse',
    issues: [{ code: 'wire.inUse', where: '', facts }],
  };
  const { findByText, getByText, calls } = open({ ...FIELD, runId: null }, refused);
  fireEvent.click(await findByText('eth1'));
  expect(await findByText(/Mara Quist is listening on the wire for Bottling line 3/)).toBeTruthy();
  fireEvent.click(getByText('End that run and take the wire'));
  await waitFor(() => expect(calls).toHaveLength(2));
  expect(calls.map(({ body }) => body)).toEqual([
    { kind: 'live', adapter: 'eth1' },
    { kind: 'live', adapter: 'eth1', evenSo: true },
  ]);
});

test('a run that goes on is ended here, with what was counted in it', async () => {
  const { findByText, getByText, calls } = open();
  fireEvent.click(await findByText('End listening'));
  await waitFor(() => expect(calls[0]?.path).toBe('/api/jobs/job/wire/rest'));
  expect(getByText('Your socket')).toBeTruthy();
});

const device = (title: string, fields: object = {}) => ({
  ...{ id: title.toLowerCase(), title, kind: 'Drive', place: 'FH2 / 2', segment: 'hall' },
  ...{ label: '02-4C-7A-1D-80-11', power: true, cable: true, lamp: 'steady', display: '' },
  ...{ ownSteps: [], setBack: [], isTypedInto: false, positions: [], face: null },
  ...fields,
});

const cabinet = {
  devices: [
    device('Drive'),
    device('Keypad scale', { isTypedInto: true, power: false, lamp: 'off' }),
  ],
  faults: [],
  segments: [],
  socket: 'hall',
} as unknown as CabinetView;

test('at the cabinets: found by a part of the name, switched, and typed into where it has keys', async () => {
  const { findByText, getByText, getByLabelText, queryByText, calls } = show(<CabinetScreen />, {
    also: [['/cabinet', cabinet]],
  });
  expect(await findByText('lamp steady: has an address')).toBeTruthy();
  fireEvent.click(getByLabelText('Power off: Drive'));
  await waitFor(() => expect(calls).toHaveLength(1));
  expect(calls[0]).toEqual({
    ...{ method: 'POST', path: '/api/jobs/job/practice/cabinet' },
    body: { action: { kind: 'power', device: 'drive', on: false } },
  });
  expect(queryByText('Do its own step')).toBeNull();
  fireEvent.click(getByText('Type an address into it'));
  fireEvent.change(getByLabelText(/Find/), { target: { value: 'keypad' } });
  expect(queryByText('Drive')).toBeNull();
  expect(getByLabelText('Power on: Keypad scale')).toBeTruthy();
});

const NEW_JOB = { ...FIELD, source: null, runId: null };

test('a job that is new has no wire until one is chosen, and no other job’s devices are offered', async () => {
  const { findByText, queryByText, queryByRole } = open(NEW_JOB);
  expect(await findByText('This job has no wire yet')).toBeTruthy();
  expect(await findByText('eth0')).toBeTruthy();
  expect(queryByText('Practice site')).toBeNull();
  expect(queryByRole('radio', { name: 'eth0', checked: true })).toBeNull();
});

test('without an adapter there is the rehearsal, and no empty list', async () => {
  const { findByText, queryByRole } = show(<WireScreen job="job" />, {
    field: NEW_JOB,
    also: [['/adapters', []]],
  });
  expect(await findByText(/has no network adapter\. Rehearse the plan below/)).toBeTruthy();
  expect(await findByText('Rehearse this plan')).toBeTruthy();
  expect(queryByRole('radiogroup', { name: /listens and speaks/ })).toBeNull();
});

test('a wire in use is told with whose it is, and a touch goes there', async () => {
  const facts = { person: 'Mara Quist', what: 'Bottling line 3' };
  const refused: ErrorView = {
    code: 'wire.inUse',
    issues: [{ code: 'wire.inUse', where: '', facts }],
  };
  const { findByText } = open(NEW_JOB, refused);
  fireEvent.click(await findByText('eth1'));
  fireEvent.click(await findByText('Go to the wire of Bottling line 3'));
  expect(wentTo()).toBe('/job/other/wire');
});
