import { fireEvent, waitFor } from '@testing-library/react';
import type { ServersView, ServerView, SilencedView, WireElsewhere } from '@ipsonomo/core/api';
import { DatabaseBar } from '../../src/features/frame/DatabaseBar';
import { Laptops } from '../../src/features/wire/crew/Laptops';
import { show } from '../world';

// R-SERVERS: the laptops of a crew as a page of one of them shows them.

const server = (name: string, fields: Partial<ServerView> = {}): ServerView => ({
  ...{ id: name, name, isOwn: false, state: 'there', heardAt: 1_000_000, wires: [] },
  ...fields,
});
const wire = (fields: Partial<WireElsewhere> = {}): WireElsewhere => ({
  ...{ jobId: 'job', source: 'live:eth1', person: 'Ilse Brandt', answeringUntil: null },
  ...{ answers: 0, doing: [] },
  ...fields,
});
const OWN = server('Hall 1', { isOwn: true });
const me = (role: string) => ({
  id: 'me',
  name: 'Mara Quist',
  role,
  hasPassword: true,
  grants: [],
});

const open = (servers: readonly ServerView[], role = 'keep', silenced?: SilencedView) =>
  show(<Laptops />, {
    also: [
      ['/servers/own', {}],
      ['/silence/everywhere', silenced],
      ['/servers', { servers, databaseAwaySince: null } satisfies ServersView],
      ['/me', me(role)],
      ['/jobs', [{ id: 'job', name: 'Tern Cove hatchery' }]],
    ],
  });

test('where there is one alone, nothing is said of laptops', async () => {
  const { calls, container } = open([OWN]);
  await waitFor(() => expect(calls).toEqual([]));
  expect(container.textContent).toBe('');
});

test.each([
  ['no wire in use', server('Tower')],
  [
    /^eth1 · silent, listening · for Tern Cove hatchery, Ilse Brandt listens$/i,
    server('Tower', { wires: [wire()] }),
  ],
  [
    /^eth1 · searching over layer 2 · for Tern Cove hatchery, Ilse Brandt listens$/i,
    server('Tower', { wires: [wire({ doing: ['search'] })] }),
  ],
  [
    /^practice site · answering 3 devices · for Tern Cove hatchery, Ilse Brandt listens$/i,
    server('Tower', {
      wires: [wire({ source: 'practice', answers: 3, answeringUntil: Date.now() + 9e6 })],
    }),
  ],
  [/^! not heard of since .*\d\d:\d\d/, server('Tower', { state: 'unheard' })],
  [/^switched off .*\d\d:\d\d/, server('Tower', { state: 'ended' })],
] as const)('what goes on at another: %s', async (said, tower) => {
  const own = { ...OWN, wires: [wire({ source: 'live:wlan0', person: 'Mara Quist' })] };
  const { findByText } = open([own, tower]);
  expect(await findByText('Tower')).toBeTruthy();
  expect(await findByText(said)).toBeTruthy();
});

test('a keeper has all fall silent, and is told of whom nobody knows', async () => {
  const silenced = {
    servers: [
      { id: 'a', name: 'Hall 1', isSilent: true },
      { id: 'b', name: 'Tower', isSilent: false },
    ],
  };
  const { findByText, calls } = open([OWN, server('Tower')], 'keep', silenced);
  fireEvent.click(await findByText('Fall silent on all laptops'));
  expect(await findByText(/^Tower did not say that it fell silent/)).toBeTruthy();
  expect(await findByText('Hall 1 fell silent.')).toBeTruthy();
  expect(calls[0]).toMatchObject({ method: 'POST', path: '/api/silence/everywhere' });
});

test('whoever keeps nothing sees what goes on, and ends it nowhere else', async () => {
  const { findByText, queryByText, queryByLabelText } = open([OWN, server('Tower')], 'assign');
  expect(await findByText('Tower')).toBeTruthy();
  expect(queryByText('Fall silent on all laptops')).toBeNull();
  expect(queryByLabelText(/What the others call/)).toBeNull();
});

test('a keeper says where the laptop stands', async () => {
  const { findByLabelText, findByText, queryByText, calls } = open([OWN, server('Tower')]);
  const field = await findByLabelText('What the others call this laptop: where it stands');
  expect(queryByText('Call it so')).toBeNull();
  fireEvent.change(field, { target: { value: 'Pump house' } });
  fireEvent.click(await findByText('Call it so'));
  await waitFor(() => expect(calls[0]?.body).toEqual({ name: 'Pump house' }));
});

test('a laptop that lost the database of the crew says since when, and what goes on', async () => {
  const { findByText } = show(<DatabaseBar />, {
    also: [['/servers', { servers: [OWN], databaseAwaySince: Date.now() } satisfies ServersView]],
  });
  expect(await findByText(/^! The database of the crew is out of reach since/)).toBeTruthy();
});
