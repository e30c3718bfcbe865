import { fireEvent, waitFor } from '@testing-library/react';
import type { RevisionView } from '@ipsonomo/core/api';
import { NewSubnetScreen } from '../../src/features/plan/add/NewSubnetScreen';
import { RevisionsScreen } from '../../src/features/plan/revisions/RevisionsScreen';
import { SnagsScreen } from '../../src/features/snags/SnagsScreen';
import { deviceInfo, jobView, show } from '../world';

// Pages of the plan and around it: what is typed is checked, and what is pressed is asked for once.

describe('a new subnet', () => {
  const open = () => {
    const screen = show(<NewSubnetScreen job="job" />, { job: jobView([deviceInfo()]) });
    const type = (label: string, value: string) =>
      fireEvent.change(screen.getByLabelText(label), { target: { value } });
    const add = () => screen.getByText('Add this subnet').closest('button, [role=button]');
    const isReady = () => add()?.getAttribute('aria-disabled') !== 'true';
    return { ...screen, type, isReady, add };
  };

  test.each([
    ['a prefix that is too long', '172.22.42.0/33', /\/33 is above 32/],
    ['an address inside a network', '172.22.42.5/24', /Its network is 172.22.42.0\/24/],
    ['one that another subnet has', '172.22.40.0/25', /172.22.40/],
  ])('%s is refused while it is typed', (_what, network, said) => {
    const { type, isReady, getAllByText } = open();
    type('Name', 'Laboratory');
    type('Network with prefix length', network);
    expect(getAllByText(said).length).toBeGreaterThan(0);
    expect(isReady()).toBe(false);
  });

  test('a good one tells its addresses and is added with what was typed', async () => {
    const { type, isReady, add, getByText, calls } = open();
    type('Name', 'Laboratory');
    type('Network with prefix length', '172.22.42.0/24');
    expect(getByText(/^254 addresses for devices, 172.22.42.1 to 172.22.42.254/)).toBeTruthy();
    type('VLAN, if it has one', '5000');
    expect(isReady()).toBe(false);
    type('VLAN, if it has one', '42');
    type('Gateway, if it has one', '172.22.42.1');
    expect(isReady()).toBe(true);
    fireEvent.click(add() as Element);
    await waitFor(() => expect(calls).toHaveLength(1));
    expect(calls[0]).toMatchObject({
      path: '/api/jobs/job/edits',
      body: {
        why: 'added subnet Laboratory 172.22.42.0/24',
        edits: [
          {
            ...{ op: 'add', type: 'subnet' },
            thing: {
              ...{ name: 'Laboratory', prefix: '172.22.42.0/24' },
              ...{ gateway: '172.22.42.1', vlan: 42 },
            },
          },
        ],
      },
    });
  });
});

const revision = (number: number, fields: Partial<RevisionView> = {}): RevisionView => ({
  ...{ number, at: 1_700_000_000_000, person: 'Mara Quist', what: 'added devices' },
  ...{ name: null, undoes: null, count: 3 },
  ...fields,
});

test('revisions: chosen, named, and the last of mine taken back', async () => {
  const revisions = [
    revision(3, { undoes: 2 }),
    revision(2, { name: 'as issued', count: 1 }),
    revision(1),
  ];
  const { findByText, getByText, getByLabelText, calls } = show(<RevisionsScreen job="job" />, {
    job: jobView([deviceInfo()]),
    also: [
      ['/edits', { revision: 1, lastNamed: 0, revisions: [] }],
      ['/revisions', revisions],
    ],
  });
  expect(await findByText('as issued')).toBeTruthy();
  expect(getByText(/takes back 2$/)).toBeTruthy();
  expect(getByText(/Mara Quist · .* · 1 change$/)).toBeTruthy();
  fireEvent.click(getByText('Undo my last'));
  await waitFor(() => expect(calls[0]?.path).toBe('/api/jobs/job/undo'));
  fireEvent.click(getByLabelText('Revision 1'));
  const named = getByLabelText('Name of revision 1');
  fireEvent.change(named, { target: { value: '  as built ' } });
  fireEvent.click(getByText('Name it'));
  await waitFor(() => expect(calls).toHaveLength(2));
  expect(calls[1]).toEqual({
    ...{ method: 'PATCH', path: '/api/jobs/job/revisions/1', body: { name: 'as built' } },
  });
});

describe('snags', () => {
  const twice = jobView([
    deviceInfo({ id: 'd1', title: 'Drive 1', name: 'drive-1' }, { id: 'a1' }),
    deviceInfo({ id: 'd2', title: 'Drive 2', name: 'drive-2', position: '3' }, { id: 'a2' }),
  ]);

  test('two devices with one address: told, and mended with one press', async () => {
    const { findAllByRole, getAllByText, calls } = show(<SnagsScreen job="job" />, { job: twice });
    const articles = await findAllByRole('article');
    const labels = articles.map((one) => one.getAttribute('aria-label'));
    expect(labels.some((one) => /^wrong: .*172.22.40.85/.test(one ?? ''))).toBe(true);
    const [mend] = getAllByText(/^Give .* 172\.22\.40\.\d+$/);
    fireEvent.click(mend as Element);
    await waitFor(() => expect(calls).toHaveLength(1));
    const { edits } = calls[0]?.body as { edits: readonly { op: string; field: string }[] };
    expect(edits[0]).toMatchObject({ op: 'set', field: 'address', from: '172.22.40.85' });
  });

  test('what is meant so is accepted with a reason, and not without one', async () => {
    const { findAllByText, getByText, getByLabelText, calls } = show(<SnagsScreen job="job" />, {
      job: twice,
    });
    const [meant] = await findAllByText('It is meant so …');
    fireEvent.click(meant as Element);
    fireEvent.click(getByText('Accept it'));
    expect(calls).toEqual([]);
    const why = getByLabelText('Why is it meant so?');
    fireEvent.change(why, { target: { value: 'a hot spare' } });
    fireEvent.click(getByText('Accept it'));
    await waitFor(() => expect(calls).toHaveLength(1));
    expect(calls[0]?.body).toMatchObject({
      edits: [{ op: 'add', type: 'acceptance', thing: { reason: 'a hot spare' } }],
    });
  });

  test('a plan without any says so', async () => {
    const { findByText } = show(<SnagsScreen job="job" />, { job: jobView([]) });
    expect(await findByText('Nothing in this plan speaks against it.')).toBeTruthy();
  });
});
