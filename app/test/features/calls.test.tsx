import { fireEvent, waitFor, within } from '@testing-library/react';
import type { DeviceInfo, InterfaceView, StationView } from '@ipsonomo/core/api';
import { STAGES, type Stage, type Way } from '@ipsonomo/core/plan';
import { CallPane } from '../../src/features/calls/call/CallPane';
import { DeskScreen } from '../../src/features/calls/desk/DeskScreen';
import { deviceInfo, FIELD, heardView, jobView, show } from '../world';

// One device at the cabinet: which step is next follows from its way and from what was seen, never from a tick.

const MAC = '02:4c:7a:1d:80:11';
const OTHER = '02:4c:7a:1d:80:03';

/** What was reached so far. */
const upTo = (last: Stage): InterfaceView['notches'] =>
  STAGES.map((stage, at) => ({
    ...{ stage, by: null },
    state: at <= STAGES.indexOf(last) ? ('reached' as const) : ('open' as const),
  }));

const KINDS: Readonly<Partial<Record<Way, string>>> = {
  switches: 'tarnwick-valves-16',
  'layer2-name': 'eldrup-block-8',
  keypad: 'marrowby-weigher-w3',
  'web-page': 'fennrick-camera-c1',
  controller: 'eldrup-block-8',
};

const device = (way: Way, at: Partial<InterfaceView> = {}): DeviceInfo =>
  deviceInfo({ way, kindId: KINDS[way] ?? 'dunvarrick-drive-m' }, at);

const call = (way: Way, at: Partial<InterfaceView> = {}, more: Parameters<typeof show>[1] = {}) =>
  show(<CallPane job="job" id="at" />, { job: jobView([device(way, at)]), ...more });

const PROVEN = {
  ...{ id: 'e', kind: 'found-as-planned', at: 990_000, mac: MAC, address: null },
  ...{ source: 'practice', person: '', facts: {} },
} as unknown as InterfaceView['check'];

const bound = (last: Stage): Partial<InterfaceView> => ({
  mac: MAC,
  notches: upTo(last),
  stage: last,
});

test.each<readonly [string, Way, Partial<InterfaceView>, RegExp]>([
  ['asks by BootP, bound', 'bootp', bound('heard'), /^Answer for 10 minutes$/],
  ['asks by DHCP, bound', 'dhcp-mac', bound('heard'), /^Answer for 10 minutes$/],
  ['has it for now', 'bootp', bound('given'), /^Tell it to keep the address$/],
  ['keeps it', 'bootp', bound('pinned'), /^Prove it: ARP and ping$/],
  ['is proven', 'bootp', { ...bound('proven'), check: PROVEN }, /^To the proof$/],
  ['layer 2, not found yet', 'layer2-name', {}, /^Search over layer 2$/],
  ['layer 2, bound', 'layer2-name', bound('heard'), /^Give name and address, to stay$/],
  ['its controller gives it', 'controller', bound('heard'), /^Give it the name fh2-drive-1$/],
  ['typed at its keypad', 'keypad', {}, /^Look for it/],
  ['on its web page', 'web-page', {}, /^Look for it at 192\.168\.77\.10$/],
  ['switches', 'switches', {}, /: watch it$/],
])('%s: one next action', async (_what, way, at, action) => {
  const { findAllByText } = call(way, at);
  expect((await findAllByText(action)).length).toBe(1);
});

test('while nobody listens, listening comes before anything else', async () => {
  const { findByText, calls } = call('bootp', {}, { field: { ...FIELD, runId: null } });
  fireEvent.click(await findByText('Start listening'));
  await waitFor(() => expect(calls[0]?.path).toBe('/api/jobs/job/wire/listen'));
});

test('answering is one act on the wire of this job, and what it waits for stands instead of the button', async () => {
  const first = call('bootp', bound('heard'));
  fireEvent.click(await first.findByText('Answer for 10 minutes'));
  await waitFor(() => expect(first.calls).toHaveLength(1));
  expect(first.calls[0]).toMatchObject({ path: '/api/jobs/job/wire/arm', body: { minutes: 10 } });
  first.unmount();
  const answering = { ...FIELD, answeringUntil: Date.now() + 300_000, answers: 1 };
  const { findByText, queryByText } = call('bootp', bound('heard'), { field: answering });
  expect(await findByText(/^Waiting for its next request · /)).toBeTruthy();
  expect(queryByText('Answer for 10 minutes')).toBeNull();
});

test('two that ask under one name are not answered, whichever is bound', async () => {
  const trouble = {
    ...{
      id: 'e',
      kind: 'twins',
      at: 990_000,
      mac: MAC,
      address: null,
      source: 'practice',
      person: '',
    },
    facts: { differs: 'hostName' },
  } as unknown as InterfaceView['trouble'];
  const { findByText } = call('bootp', { ...bound('heard'), trouble });
  expect(await findByText(/two devices have this MAC \(they differ in: host name\)/)).toBeTruthy();
});

describe('a station over layer 2', () => {
  const station = (fields: Partial<StationView> = {}): StationView => ({
    ...{ mac: MAC, name: '', type: 'block', vendor: 1, device: 2, address: null },
    ...{ isInConflict: false, firstAt: 990_000, lastAt: 998_000 },
    ...fields,
  });
  const at = (found: StationView) => call('layer2-name', bound('heard'), { stations: [found] });

  test('one that goes by another name was used: it is set back with a reason only', async () => {
    const { findByText, getByText, getByLabelText, calls } = at(
      station({ name: 'press-3', address: '10.1.2.3' }),
    );
    expect(await findByText(/^It goes by press-3 and has 10.1.2.3/)).toBeTruthy();
    fireEvent.click(getByText('Set it back first'));
    const reset = getByText('Set it back to how it left its maker');
    fireEvent.click(reset);
    expect(calls).toEqual([]);
    const why = getByLabelText('Why is it free to be set back?');
    fireEvent.change(why, { target: { value: 'from the old press' } });
    fireEvent.click(reset);
    await waitFor(() => expect(calls).toHaveLength(1));
    expect(calls[0]).toMatchObject({
      path: '/api/jobs/job/interfaces/at/station/reset',
      body: { reason: 'from the old press' },
    });
  });

  test('nearly its name is not its name', async () => {
    const { findByText } = at(station({ name: 'fh2-drvie-1' }));
    expect(await findByText('Nearly its name, and not its name')).toBeTruthy();
    expect(await findByText(/two letters that are swapped/)).toBeTruthy();
  });
});

describe('boxes at the desk', () => {
  const two = jobView([
    deviceInfo({ id: 'd1', title: 'Drive 1' }, { id: 'a1' }),
    deviceInfo(
      { id: 'd2', title: 'Valves', kindId: 'tarnwick-valves-16' },
      { id: 'a2', address: '172.22.40.101' },
    ),
  ]);

  test('of several kinds nobody can know which is meant: it is chosen, and the sticker bound to it', async () => {
    const { findByText, getByText, getByLabelText, calls } = show(<DeskScreen job="job" />, {
      job: two,
    });
    expect(await findByText('2 devices without a MAC')).toBeTruthy();
    expect(getByText('Choose which device it is')).toBeTruthy();
    fireEvent.change(getByLabelText('Sticker of the box'), {
      target: { value: 'O2-4C-7A-1D-80-11' },
    });
    expect(getByText(/O read as 0/)).toBeTruthy();
    fireEvent.click(getByLabelText('it is Valves'));
    fireEvent.click(getByText('Bind to Valves'));
    await waitFor(() => expect(calls).toHaveLength(1));
    expect(calls[0]).toEqual({
      ...{ method: 'POST', path: '/api/jobs/job/interfaces/a2/bind' },
      body: { mac: MAC, label: 'O2-4C-7A-1D-80-11' },
    });
  });

  test('a sticker that is no MAC binds nothing', async () => {
    const { findByText, getByLabelText, getByText, calls } = show(<DeskScreen job="job" />, {
      job: jobView([deviceInfo({ title: 'Drive 1' })]),
    });
    expect(await findByText('Bind to Drive 1')).toBeTruthy();
    fireEvent.change(getByLabelText('Sticker of the box'), { target: { value: '02-4C-7A' } });
    fireEvent.click(getByText('Bind to Drive 1'));
    expect(calls).toEqual([]);
  });
});

test('what is heard is offered by how well it fits, and held digit under digit', async () => {
  const { findByText, container } = call(
    'bootp',
    {},
    {
      heard: [heardView(OTHER), heardView(MAC, { hostName: 'fh2-drive-1' })],
    },
  );
  expect(await findByText(/^Bind and give 172.22.40.85$/)).toBeTruthy();
  expect(within(container as HTMLElement).getAllByText(/heard|asked/i).length).toBeGreaterThan(0);
});
