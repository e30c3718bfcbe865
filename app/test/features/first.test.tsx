import { fireEvent, waitFor } from '@testing-library/react';
import type { AdapterView, ErrorView } from '@ipsonomo/core/api';
import { changeSettings, readSettings } from '../../src/data';
import { HelpScreen } from '../../src/features/help/HelpScreen';
import { helpOf, pageOf } from '../../src/features/help/help-of';
import { FirstScreen } from '../../src/features/start/first/FirstScreen';
import { wentTo } from '../router';
import { show } from '../world';

// From nothing to a job with its first subnet in three screens; what was said stays until it is done.

const ADAPTERS: readonly AdapterView[] = [
  {
    ...{ name: 'eth0', mac: '02:00:5e:00:53:01', link: 'up', wireless: false, virtual: false },
    ...{ addresses: [], job: null, speed: 1000, received: 0 },
  },
];
const REFUSED: ErrorView = {
  code: 'subnet.overlaps',
  issues: [{ code: 'server.away', where: '' }],
};

function open(subnetAnswer: unknown = { id: 'hall' }) {
  const screen = show(<FirstScreen />, {
    also: [
      ['/adapters', ADAPTERS],
      ['/subnets', subnetAnswer],
      ['/wire', {}],
      ['/jobs', { id: 'new' }],
    ],
  });
  const type = (label: string, value: string) =>
    fireEvent.change(screen.getByLabelText(label), { target: { value } });
  const press = (name: string) => fireEvent.click(screen.getByText(name));
  return { ...screen, type, press };
}

beforeEach(() => changeSettings({ person: '', first: null }));

function toTheSubnet({ type, press }: ReturnType<typeof open>): void {
  type('Your name, written beside everything you decide', 'Ida Venn');
  press('Next');
  type('What the job is called', 'Bottling line 9');
  press('Next');
  type('Its name', 'Line');
  type('Its network', '192.168.10.0 255.255.255.0');
}

test('a name, a job, a subnet with a dotted mask; and then its devices', async () => {
  const screen = open();
  toTheSubnet(screen);
  screen.press('Begin the job');
  await waitFor(() => expect(wentTo()).toBe('/job/new/new-devices'));
  expect(screen.calls.map(({ path, body }) => [path, body])).toEqual([
    ['/api/jobs', { name: 'Bottling line 9' }],
    [
      '/api/jobs/new/subnets',
      { name: 'Line', network: '192.168.10.0/24', gateway: null, vlan: null, purpose: '' },
    ],
  ]);
  expect(readSettings()).toMatchObject({ person: 'Ida Venn', first: null });
});

test('closed in the middle it goes on where it was', () => {
  const first = open();
  toTheSubnet(first);
  first.unmount();
  const again = open();
  expect(again.getByText('step 3 of 3')).toBeTruthy();
  expect(again.getByLabelText('Its network')).toHaveProperty('value', '192.168.10.0 255.255.255.0');
});

test('with an adapter; where the subnet is refused the job is not made twice', async () => {
  const screen = open(REFUSED);
  screen.type('Your name, written beside everything you decide', 'Ida Venn');
  screen.press('Next');
  screen.type('What the job is called', 'Bottling line 9');
  fireEvent.click(await screen.findByText('eth0'));
  screen.press('Next');
  screen.type('Its name', 'Line');
  screen.type('Its network', '10.0.0.0/24');
  screen.press('Begin the job');
  await waitFor(() => expect(screen.calls).toHaveLength(3));
  screen.press('Begin the job');
  await waitFor(() => expect(screen.calls).toHaveLength(5));
  expect(screen.calls.filter(({ path }) => path === '/api/jobs')).toHaveLength(1);
  expect(screen.calls[1]?.body).toEqual({ kind: 'live', adapter: 'eth0' });
});

test('a network that is none is told, and nothing begins', () => {
  const screen = open();
  toTheSubnet(screen);
  screen.type('Its network', '192.168.10.9 255.255.255.0');
  expect(screen.getByText(/Its network is 192.168.10.0\/24/)).toBeTruthy();
  screen.press('Begin the job');
  expect(screen.calls).toEqual([]);
});

test.each([
  [['job', '[job]', '(plan)', 'plan'], 'plan'],
  [['job', '[job]', '(assign)', 'call', '[interface]'], 'call'],
  [['job', '[job]', '(prove)', 'there-and-back'], 'there-and-back'],
  [['job', '[job]'], ''],
])('the page of %j is %j', (segments, page) => {
  expect(pageOf(segments)).toBe(page);
  expect(helpOf(page) === undefined).toBe(page === '');
});

test('help says what the page is for, what the stages look like, and goes back', () => {
  const { getByText, getAllByRole, queryByText } = show(<HelpScreen of="wire" />);
  expect(getByText(/Nothing is sent before you say so/)).toBeTruthy();
  expect(getAllByRole('img').length).toBe(5);
  fireEvent.click(getByText('Back to the page'));
  expect(wentTo()).toBe('back');
  expect(queryByText('This page')).toBeTruthy();
});
