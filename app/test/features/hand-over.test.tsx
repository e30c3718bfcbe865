import { fireEvent, waitFor } from '@testing-library/react';
import { AT_ONCE, type HandedOver, type PackageView, type PackageWish } from '@ipsonomo/core/api';
import { Captures } from '../../src/features/hand-over/Captures';
import { HandOverScreen } from '../../src/features/hand-over/HandOverScreen';
import { DeviceLabel } from '../../src/features/plan/device/DeviceLabel';
import { deviceInfo, jobView, show } from '../world';

// Hand over: looked at before it is taken, taken by reader or all at once, and never over a wrong plan in silence.

const READY: PackageView = {
  ...{ state: 'ready', name: 'Tern hosts.txt', bytes: 1234, text: '172.22.40.85\tfh2-drive-1' },
  files: [{ format: 'hosts', name: 'Tern hosts.txt', bytes: 1234 }],
  left: [
    {
      ...{ format: 'hosts', count: 1 },
      some: [
        {
          ...{ interfaceId: 'at', title: 'Drum 2', address: '172.22.40.86' },
          ...{ reason: 'not-a-host-name', value: 'plc_1' },
        },
      ],
    },
  ],
};

const links: string[] = [];
let click: jest.SpyInstance;
beforeEach(() => {
  links.length = 0;
  click = jest.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(function (
    this: HTMLAnchorElement,
  ) {
    links.push(new URL(this.href).pathname);
  });
});
afterEach(() => click.mockRestore());

const open = (view: PackageView = READY, handed: readonly HandedOver[] = [], wrong = 0) => {
  // So many more with the same address.
  const others = Array.from({ length: wrong }, (_, at) =>
    deviceInfo({ id: `other-${at}`, name: `other-${at}` }, { id: `other-at-${at}` }),
  );
  const job = jobView([deviceInfo(), ...others]);
  const screen = show(<HandOverScreen job="job" />, {
    job,
    also: [
      ['/runs', []],
      ['/hand-overs', handed],
      ['/packages/p1', view],
      ['/packages', { id: 'p1' }],
    ],
  });
  const sent = (path: string) =>
    screen.calls.filter((one) => one.method === 'POST' && one.path.endsWith(path));
  const wishes = () => sent('/packages').map(({ body }) => body as PackageWish);
  return { ...screen, sent, wishes };
};

test('a format is looked at: what is in it, what is not and why; taking it is noted', async () => {
  const { findByText, getByLabelText, sent, wishes } = open();
  fireEvent.click(getByLabelText('Look at: Hosts file'));
  await findByText(/172\.22\.40\.85/);
  await findByText('Drum 2, 172.22.40.86: "plc_1" is no host name');
  fireEvent.click(await findByText('Save Tern hosts.txt'));
  await waitFor(() =>
    expect(sent('/hand-overs').map(({ body }) => body)).toEqual([
      { reader: 'it', formats: ['hosts'] },
    ]),
  );
  expect(wishes()).toEqual([
    { formats: ['hosts'], scope: { cabinets: [], subnets: [] }, despite: true },
  ]);
  expect(links).toEqual(['/api/jobs/job/packages/p1/file']);
});

test('all of it, or all of one reader: what was taken is noted for each of them', async () => {
  const { findByText, getByText, getByLabelText, sent, wishes } = open();
  fireEvent.click(getByText('Take everything as one ZIP'));
  await waitFor(() => expect(wishes()[0]?.formats).toEqual(AT_ONCE));
  fireEvent.click(await findByText('Save Tern hosts.txt'));
  await waitFor(() => expect(sent('/hand-overs')).toHaveLength(4));
  fireEvent.click(getByLabelText(/^Take all \d+: For the cabinet$/));
  await waitFor(() =>
    expect(wishes()[1]?.formats).toEqual(['labels-pdf', 'swap-cards', 'cabinet-sheets']),
  );
});

test('a part of the job: its cabinets and subnets, said in what is asked for', async () => {
  const { getByText, getByLabelText, wishes } = open();
  fireEvent.click(getByText('Choose a part of the job'));
  fireEvent.click(getByLabelText('FH2'));
  fireEvent.click(getByText('Take everything as one ZIP'));
  await waitFor(() => expect(wishes()[0]?.scope).toEqual({ cabinets: ['FH2'], subnets: [] }));
  getByText('A part: 1 interface');
});

test('a wrong plan leaves only once a person said so', async () => {
  const { getByText, getByLabelText, wishes } = open(READY, [], 1);
  const take = () => getByText('Take everything as one ZIP').closest('[aria-disabled]');
  getByText(/wrong in this plan$/);
  expect(take()?.getAttribute('aria-disabled')).toBe('true');
  fireEvent.click(getByLabelText('It leaves all the same'));
  fireEvent.click(getByText('Take everything as one ZIP'));
  await waitFor(() => expect(wishes()[0]?.despite).toBe(true));
});

test('a wrong plan may be looked at, and not saved', async () => {
  const { findByText, getByLabelText } = open(READY, [], 1);
  fireEvent.click(getByLabelText('Look at: Hosts file'));
  const save = await findByText('Save Tern hosts.txt');
  expect(save.closest('[aria-disabled]')?.getAttribute('aria-disabled')).toBe('true');
  fireEvent.click(getByLabelText('It leaves all the same'));
  fireEvent.click(await findByText('Save Tern hosts.txt'));
  await waitFor(() => expect(links).toHaveLength(1));
});

test('while it is written one sees how far it is, and may take it back; what fell says why', async () => {
  const writing: PackageView = { state: 'writing', done: 2, total: 23, doing: 'kea' };
  const first = open(writing);
  fireEvent.click(first.getByText('Take everything as one ZIP'));
  await first.findByText('Writing 3 of 23: DHCP reservations for Kea');
  fireEvent.click(first.getByText('Take it back'));
  await waitFor(() => expect(first.calls.some(({ method }) => method === 'DELETE')).toBe(true));
  first.unmount();
  const fell = open({
    state: 'failed',
    issue: { code: 'package.fell', where: '', facts: { why: 'no room' } },
  });
  fireEvent.click(fell.getByText('Take everything as one ZIP'));
  await fell.findByText(/were not written: no room/);
});

test('each reader’s last hand-over is told, and how much changed since', async () => {
  const handed: HandedOver = {
    ...{ reader: 'it', at: 1_700_000_000_000, person: 'Mara Quist', revision: 1 },
    formats: ['hosts'],
  };
  const { findByText, getAllByText } = open(READY, [handed]);
  await findByText(/^Revision 1, .*Mara Quist · nothing changed since$/);
  expect(getAllByText('Not handed over yet')).toHaveLength(3);
});

test('how files look is kept with the job', async () => {
  const { getByText, getByLabelText, calls } = open();
  fireEvent.click(getByText('How the files look'));
  fireEvent.click(getByLabelText('address'));
  fireEvent.click(getByLabelText('device'));
  getByText('2 device', { exact: false });
  fireEvent.click(getByText('Keep it for this job'));
  await waitFor(() =>
    expect(calls.find(({ path }) => path.endsWith('/edits'))?.body).toMatchObject({
      edits: [{ type: 'settings', field: 'handOver', to: { columns: ['address', 'device'] } }],
    }),
  );
});

test('a plan whose kinds have papers may leave without them', async () => {
  const papers = show(<Captures job="job" hasPapers />, { also: [['/runs', []]] });
  fireEvent.click(papers.getByText('The plan without its papers, JSON'));
  expect(links).toEqual(['/api/jobs/job/plan.json']);
  papers.unmount();
  const none = show(<Captures job="job" hasPapers={false} />, { also: [['/runs', []]] });
  expect(none.queryByText('The plan without its papers, JSON')).toBe(null);
});

describe('the label of one device', () => {
  const label = (isWrong: boolean) => {
    const screen = show(<DeviceLabel job="job" interfaceId="at" isWrong={isWrong} />, {
      also: [
        ['/packages/p1', { ...READY, name: 'fh2-drive-1 172.22.40.85.svg', left: [] }],
        ['/packages', { id: 'p1' }],
      ],
    });
    const wish = () => screen.calls.find((one) => one.path.endsWith('/packages'))?.body;
    return { ...screen, wish };
  };

  test.each([
    ['Label as SVG', 'labels-svg'],
    ['Label as PNG', 'labels-png'],
  ])('%s is of this interface alone, and saved by name', async (button, format) => {
    const { findByText, getByText, wish } = label(false);
    fireEvent.click(getByText(button));
    fireEvent.click(await findByText('Save fh2-drive-1 172.22.40.85.svg'));
    const scope = { cabinets: [], subnets: [], interfaces: ['at'] };
    expect(wish()).toEqual({ formats: [format], scope, despite: false });
    expect(links).toEqual(['/api/jobs/job/packages/p1/file']);
  });

  test('of a device that is wrong it is taken as it stands, and that is said before', async () => {
    const { findByText, getByText, wish } = label(true);
    await findByText(/the label says what the plan says now/);
    fireEvent.click(getByText('Label as SVG'));
    await waitFor(() => expect(wish()).toMatchObject({ despite: true }));
  });
});
