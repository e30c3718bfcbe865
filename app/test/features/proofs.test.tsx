import { fireEvent, waitFor } from '@testing-library/react';
import type { DrillView, ProofDetailView, ProofView, VigilView } from '@ipsonomo/core/api';
import { DrillScreen } from '../../src/features/prove/drill/DrillScreen';
import { RunScreen } from '../../src/features/prove/runs/RunScreen';
import { RunsScreen } from '../../src/features/prove/runs/RunsScreen';
import { VigilScreen } from '../../src/features/prove/vigil/VigilScreen';
import { deviceInfo, FIELD, jobView, show } from '../world';

// What was proven, what is watched, and what is different since.

const MAC = '02:4c:7a:1d:80:11';
const job = jobView([
  deviceInfo({ id: 'd1', title: 'Drive 1' }, { id: 'a1', mac: MAC }),
  deviceInfo({ id: 'd2', title: 'Drive 2' }, { id: 'a2', address: '172.22.40.86' }),
]);

const run = (id: string, fields: Partial<ProofView> = {}): ProofView => ({
  ...{ id, source: 'practice', person: 'Mara Quist', revision: 4, scope: 'cabinet FH2' },
  ...{ startedAt: 1_700_000_000_000, endedAt: 1_700_000_060_000, how: 'done', total: 5 },
  ...{ proven: 2, contradicted: 1, silent: 1, strangers: 1 },
  ...fields,
});

test('kept runs: the counts, who else was there, and how each ended', async () => {
  const runs = [
    run('one'),
    run('two', { how: 'stopped', contradicted: 0, silent: 0, proven: 5, strangers: 0 }),
  ];
  const { findByText, getByText } = show(<RunsScreen job="job" />, { also: [['/proofs', runs]] });
  expect(
    await findByText('2 proven, 1 otherwise, 1 silent, 1 not asked · 1 stranger'),
  ).toBeTruthy();
  expect(getByText('5 proven')).toBeTruthy();
  expect(getByText(/practice site · Mara Quist · plan revision 4 · to its end/)).toBeTruthy();
});

test('no run yet says what comes here', async () => {
  const { findByText } = show(<RunsScreen job="job" />, { also: [['/proofs', []]] });
  expect(await findByText('No run yet')).toBeTruthy();
});

const detail = (id: string, startedAt: number, results: readonly object[]): ProofDetailView =>
  ({
    ...run(id, { startedAt }),
    ...{ interfaceIds: ['a1', 'a2'], results, strangers: [] },
  }) as unknown as ProofDetailView;

const result = (interfaceId: string, kind: string, facts: object = {}) => ({
  ...{ interfaceId, kind, facts, at: 1_700_000_030_000, mac: MAC, id: interfaceId + kind },
});

test('a run shows every device, and what is different since the one before it', async () => {
  const before = detail('before', 1_600_000_000_000, [
    result('a1', 'found-as-planned'),
    result('a2', 'no-answer'),
  ]);
  const now = detail('now', 1_700_000_000_000, [
    result('a1', 'no-answer'),
    result('a2', 'no-answer'),
  ]);
  const { findByText, getAllByText } = show(<RunScreen job="job" id="now" />, {
    job,
    also: [
      ['/proofs/now', now],
      ['/proofs/before', before],
      ['/proofs', [run('now'), run('before', { startedAt: 1_600_000_000_000 })]],
    ],
  });
  expect(await findByText('as planned → silent')).toBeTruthy();
  expect(getAllByText('Drive 1')).toHaveLength(2);
  expect(getAllByText(/^× nothing answers at its address/)).toHaveLength(2);
});

describe('a cold start', () => {
  const drill = (fields: Partial<DrillView> = {}): DrillView => ({
    ...{ phase: 'on', onAt: 990_000, endedAt: null, rows: [] },
    ...fields,
  });
  const at = (state: DrillView | null) =>
    show(<DrillScreen job="job" />, { job, field: { ...FIELD, drill: state } });

  test.each([
    ['Begin: fall silent and listen', null, 'begin'],
    ['It is on again', drill({ phase: 'off', onAt: null }), 'on'],
    ['All that will come is back', drill(), 'end'],
    ['Begin another', drill({ phase: 'ended', endedAt: 999_000 }), 'begin'],
    ['Begin again', drill({ phase: 'spoiled' }), 'begin'],
  ] as const)('%s', async (title, state, step) => {
    const { getByText, calls } = at(state);
    fireEvent.click(getByText(title));
    await waitFor(() => expect(calls).toHaveLength(1));
    expect(calls[0]).toMatchObject({ path: '/api/jobs/job/drill', body: { step } });
  });

  test('who asks and is given nothing did not come back by itself', () => {
    const asked = { at: 993_000, message: 'BootP', count: 2 };
    const row = { mac: MAC, firstAt: 993_000, asked, answered: null, address: null };
    const { getByText } = at(drill({ rows: [row] }));
    expect(
      getByText(/1 device spoke · 1 of 1 bound device did not come back by itself/),
    ).toBeTruthy();
    expect(getByText(/asks for an address after 3 s, and nobody gives it one/)).toBeTruthy();
  });

  test('what we sent ourselves spoils it, and that is said', () => {
    expect(
      at(drill({ phase: 'spoiled' })).getByText('Ipsonomo itself has sent something'),
    ).toBeTruthy();
  });
});

describe('a vigil', () => {
  const none: VigilView = { state: null, buckets: 0, rows: [] };
  const at = (vigil: VigilView) =>
    show(<VigilScreen job="job" />, { job, also: [['/vigil', vigil]] });

  test('begins over the whole job, every second, for ten minutes, where nobody chose otherwise', async () => {
    const { findByText, calls } = at(none);
    fireEvent.click(await findByText('Begin the vigil'));
    await waitFor(() => expect(calls).toHaveLength(1));
    expect(calls[0]).toEqual({
      ...{ method: 'POST', path: '/api/jobs/job/vigil' },
      body: { scope: { kind: 'job' }, everySeconds: 1, minutes: 10 },
    });
  });

  test('while it goes on it tells who lost what, and can be ended', async () => {
    const summary = {
      ...{ asked: 60, lost: 3, mean: 1.2, slowest: 4, outages: 1, longest: 3, period: undefined },
    };
    const state = {
      ...{ id: 'v', startedAt: 0, everyMillis: 1000, beats: 600, begun: 60, how: null },
    };
    const rows = [{ interfaceId: 'a1', summary, buckets: [] }];
    const { findByText, getByText, calls } = at({
      state,
      buckets: 120,
      rows,
    } as unknown as VigilView);
    expect(await findByText('01:00 of 10:00 · 1 device lost something')).toBeTruthy();
    expect(getByText(/3 of 60 lost, the longest for 3 s/)).toBeTruthy();
    fireEvent.click(getByText('End the vigil'));
    await waitFor(() => expect(calls[0]?.method).toBe('DELETE'));
  });
});
