import { fireEvent, waitFor } from '@testing-library/react';
import type { AccountView, KeysView, MeView, NewKeyView } from '@ipsonomo/core/api';
import { DoorScreen } from '../../src/features/start/door/DoorScreen';
import { PeopleScreen } from '../../src/features/start/door/PeopleScreen';
import { You } from '../../src/features/start/door/You';
import { show } from '../world';

// The door, the people behind it, and what each may change of themselves.

const now = Date.now();

const account = (fields: Partial<AccountView>): AccountView => ({
  ...{ id: 'a1', kind: 'person', name: 'Ilse Brandt', role: 'assign', hasPassword: true },
  ...{ madeAt: now, madeBy: 'Mara Quist', endsAt: null, grants: [], isOwn: false },
  ...fields,
});

const KEYS: KeysView = {
  browsers: [
    {
      ...{ id: 'b1', account: 'a1', person: 'Ilse Brandt' },
      ...{ device: 'Mozilla/5.0 (Linux; Android 14)', isOwn: false },
      ...{ seenAt: now - 60_000, letInAt: now - 3_600_000 },
    },
  ],
  invitations: [
    {
      ...{ id: 'k1', by: 'the terminal', role: 'look', person: null },
      ...{ madeAt: now - 60_000, endsAt: now + 86_400_000 },
    },
  ],
};
const MADE: NewKeyView = {
  key: 'ABCDEFGHJKMNPQRSTUVW',
  endsAt: now + 86_400_000,
  addresses: ['http://10.0.0.5:4780/#key=A'],
};

const people = (
  accounts: readonly AccountView[],
  also: readonly (readonly [string, unknown])[] = [],
) =>
  show(<PeopleScreen />, {
    also: [
      ...also,
      ['/people/', { accounts }],
      ['/people', { accounts }],
      ['/keys/b1', {}],
      ['/keys', { ...KEYS, ...MADE }],
      ['/wires', []],
      ['/jobs', []],
    ],
  });

describe('the door', () => {
  test('takes a key and nothing else', async () => {
    const { getByLabelText, getByText, calls } = show(<DoorScreen error={undefined} />);
    const button = getByText('Come in with it');
    fireEvent.click(button);
    expect(calls).toEqual([]);
    const field = getByLabelText('The key: twenty letters and digits');
    fireEvent.change(field, { target: { value: 'ABCD-EFGH' } });
    fireEvent.click(button);
    await waitFor(() =>
      expect(calls).toEqual([{ method: 'POST', path: '/api/door', body: { key: 'ABCD-EFGH' } }]),
    );
  });

  test('takes name and password; the password is not shown', async () => {
    const { getByLabelText, getByText, calls } = show(<DoorScreen error={undefined} />);
    fireEvent.change(getByLabelText('Name'), { target: { value: 'Mara Quist' } });
    const password = getByLabelText('Password');
    expect(password.getAttribute('type')).toBe('password');
    fireEvent.change(password, { target: { value: 'four words in a row' } });
    fireEvent.click(getByText('Sign in'));
    await waitFor(() =>
      expect(calls).toEqual([
        {
          ...{ method: 'POST', path: '/api/door/sign-in' },
          body: { name: 'Mara Quist', password: 'four words in a row' },
        },
      ]),
    );
  });
});

describe('people', () => {
  test('who is in is listed with a way out, and a new key is shown as it is typed and as it is scanned', async () => {
    const { findAllByText, getByText, getByLabelText, findByLabelText, calls } = people([
      account({}),
    ]);
    expect(await findAllByText('Ilse Brandt')).toHaveLength(2);
    fireEvent.click(getByLabelText('Take back: Ilse Brandt'));
    await waitFor(() => expect(calls[0]).toMatchObject({ method: 'DELETE', path: '/api/keys/b1' }));
    getByText(/made by the terminal .*: for somebody who may look/);
    fireEvent.click(getByLabelText(/^look/));
    fireEvent.click(getByText('Make a key'));
    expect(await findByLabelText('The address http://10.0.0.5:4780/#key=A')).toBeTruthy();
    expect(getByText(/ABCD.EFGH.JKMN/)).toBeTruthy();
    expect(calls[1]).toMatchObject({ method: 'POST', path: '/api/keys', body: { role: 'look' } });
  });

  test('an account is taken away only once it was said twice; a key lets its person in again', async () => {
    const { findByLabelText, getByText, calls } = people([account({})]);
    fireEvent.click(await findByLabelText('A key for Ilse Brandt'));
    await waitFor(() => expect(calls[0]?.body).toEqual({ account: 'a1' }));
    fireEvent.click(await findByLabelText('Take away: Ilse Brandt'));
    expect(calls).toHaveLength(1);
    fireEvent.click(getByText(/^Take Ilse Brandt away/));
    await waitFor(() =>
      expect(calls[1]).toMatchObject({ method: 'DELETE', path: '/api/people/a1' }),
    );
  });

  test('where somebody may send is told with its end; on an open adapter they are let for a shift', async () => {
    const until = now + 3 * 3_600_000;
    const { findByText, findByLabelText, getByText, calls } = people(
      [account({ grants: [{ job: 'j1', wire: 'eth0', until, by: 'Mara Quist' }] })],
      [
        [
          '/wires',
          [
            { jobId: 'j2', source: 'live:eth1' },
            { jobId: 'j3', source: 'practice' },
          ],
        ],
      ],
    );
    await findByText(/may send on eth0 for 3 h \(Mara Quist\)/);
    fireEvent.click(await findByLabelText('Let Ilse Brandt send on eth1 (j2) for 12 h'));
    await waitFor(() =>
      expect(calls[0]).toMatchObject({
        path: '/api/jobs/j2/wire/send',
        body: { account: 'a1', hours: 12 },
      }),
    );
    fireEvent.click(getByText('Send no longer'));
    await waitFor(() => expect(calls[1]?.path).toBe('/api/jobs/j1/wire/send/end'));
  });

  test('a token is shown once it is made', async () => {
    const { findByLabelText, findByText, getByText, calls } = people(
      [account({})],
      [['/programs', { id: 'p', token: 'ips_secret', endsAt: now }]],
    );
    fireEvent.change(await findByLabelText('Its name'), { target: { value: 'Collector' } });
    fireEvent.click(getByText('Make a token'));
    await findByText('ips_secret');
    expect(calls[0]?.body).toEqual({ name: 'Collector', role: 'look', days: 90 });
  });
});

describe('you', () => {
  const me: MeView = { id: 'a1', name: 'Mara Quist', role: 'keep', hasPassword: false, grants: [] };

  test('a name is changed once it is left; a password is set', async () => {
    const { findByText, getByLabelText, getByText, calls } = show(<You />, {
      also: [
        ['/me/password', { ...me, hasPassword: true }],
        ['/me', me],
      ],
    });
    await findByText('You may keep the installation.');
    const name = getByLabelText('Your name, written beside everything you decide');
    await waitFor(() => expect((name as HTMLInputElement).value).toBe('Mara Quist'));
    fireEvent.change(name, { target: { value: 'Mara Q.' } });
    expect(calls).toEqual([]);
    fireEvent.blur(name);
    await waitFor(() =>
      expect(calls).toEqual([{ method: 'POST', path: '/api/me', body: { name: 'Mara Q.' } }]),
    );
    fireEvent.click(getByText('Set a password'));
    const field = getByLabelText(/^The new password/);
    fireEvent.change(field, { target: { value: 'four words in a row' } });
    fireEvent.click(getByText('Keep this password'));
    await waitFor(() => expect(calls[1]?.body).toEqual({ password: 'four words in a row' }));
  });

  test('who has no name yet has it once they typed it, whatever they may do', async () => {
    const { findByText, getByLabelText, calls } = show(<You />, {
      also: [['/me', { ...me, name: '', role: 'look' }]],
    });
    await findByText('You may look.');
    const name = getByLabelText('Your name, written beside everything you decide');
    fireEvent.change(name, { target: { value: 'Ilse Brandt' } });
    fireEvent.blur(name);
    await waitFor(() => expect(calls[0]).toMatchObject({ body: { name: 'Ilse Brandt' } }));
  });

  test('who may not keep is not led to the people', async () => {
    const { findByText, queryByText } = show(<You />, {
      also: [['/me', { ...me, role: 'look' }]],
    });
    await findByText('You may look.');
    expect(queryByText('People …')).toBe(null);
  });
});
