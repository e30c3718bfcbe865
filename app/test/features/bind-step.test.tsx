import { fireEvent, waitFor } from '@testing-library/react';
import { CallPane } from '../../src/features/calls/call/CallPane';
import { deviceInfo, FIELD, heardView, jobView, show } from '../world';

const HEARD = '02:4c:7a:1d:80:03';
const OTHER = '02:4c:7a:1d:80:11';
const LABEL = 'Type the MAC from the label, in any notation';
const BIND = 'Bind and give 172.22.40.85';

const open = (heard = [heardView(HEARD)], device = deviceInfo()) => {
  const screen = show(<CallPane job="job" id="at" />, { job: jobView([device]), heard });
  const type = (text: string) =>
    fireEvent.change(screen.getByLabelText(LABEL), { target: { value: text } });
  const canBind = () =>
    screen.getByRole('button', { name: BIND }).getAttribute('aria-disabled') !== 'true';
  return { ...screen, type, canBind };
};

test('binding waits for a label that agrees; then it binds and answers, as one act', async () => {
  const { type, canBind, getByText, calls } = open();
  expect(canBind()).toBe(false);
  type('O2-4C-7A-1D-80-O3');
  expect(getByText('Label and wire agree.')).toBeTruthy();
  expect(getByText(/O as 0/)).toBeTruthy();
  expect(canBind()).toBe(true);
  fireEvent.click(getByText(BIND));
  await waitFor(() => expect(calls).toHaveLength(1));
  expect(calls).toEqual([
    {
      method: 'POST',
      path: '/api/jobs/job/interfaces/at/bind-and-answer',
      body: { mac: HEARD, label: 'O2-4C-7A-1D-80-O3', minutes: 10 },
    },
  ]);
});

test('a look-alike is pointed out; whoever insists has to say how they know', async () => {
  const { type, canBind, getByText, getByLabelText, calls } = open();
  type('02-4C-7A-1D-80-D3');
  expect(getByText(/D and 0 are easily confused/)).toBeTruthy();
  expect(canBind()).toBe(false);
  fireEvent.click(getByText('Label says D'));
  const why = getByLabelText('It is this one all the same: how do you know?');
  fireEvent.change(why, { target: { value: 'only this one has power' } });
  expect(canBind()).toBe(true);
  fireEvent.click(getByText(BIND));
  await waitFor(() => expect(calls[0]?.body).toMatchObject({ reason: 'only this one has power' }));
});

test('a label that names another heard device is held against that one', () => {
  const { type, canBind, getByLabelText } = open([heardView(HEARD), heardView(OTHER)]);
  expect(getByLabelText('0 2 4 C 7 A 1 D 8 0 0 3')).toBeTruthy();
  type(OTHER);
  expect(canBind()).toBe(true);
});

test('what is held against the label stays when another device speaks', () => {
  const { hear, getByLabelText, queryByLabelText, type, canBind } = open([heardView(OTHER)]);
  expect(getByLabelText('0 2 4 C 7 A 1 D 8 0 1 1')).toBeTruthy();
  // It would be the first of the two, and the likelier one.
  hear([heardView(HEARD, { lastAt: 1_000_500, count: 9 }), heardView(OTHER)]);
  expect(getByLabelText('0 2 4 C 7 A 1 D 8 0 1 1')).toBeTruthy();
  expect(queryByLabelText('0 2 4 C 7 A 1 D 8 0 0 3')).toBeNull();
  type(OTHER);
  expect(canBind()).toBe(true);
});

test('near is a hint and no match', () => {
  const { type, canBind, getByText } = open();
  type('02-4C-7A-1D-80-04');
  expect(getByText(/Near is a hint and no match/)).toBeTruthy();
  expect(canBind()).toBe(false);
});

test('two devices behind one MAC are shown, each with what tells it from the other', () => {
  const voice = (hostName: string, transaction: string) => ({
    ...{ hostName, clientId: null, vendorClass: null, parameters: null, port: null },
    ...{ transaction, lastAt: 998_000 },
  });
  const voices = [voice('left', '1'), voice('right', '2')];
  const { getByText } = open([heardView(HEARD, { twins: { differs: ['hostName'], voices } })]);
  expect(getByText('Two devices have this MAC. Neither is answered.')).toBeTruthy();
  expect(getByText(/host name left, last/)).toBeTruthy();
  expect(getByText(/host name right, last/)).toBeTruthy();
});

test('a way that does not ask is bound without answering', async () => {
  const camera = deviceInfo(
    { way: 'web-page', kindId: 'fennrick-camera-c1' },
    {
      check: {
        id: '1',
        kind: 'contradicted',
        at: 1,
        mac: null,
        address: null,
        source: 'practice',
        person: '',
        facts: { what: 'unbound', found: HEARD },
      },
    },
  );
  const screen = show(<CallPane job="job" id="at" />, { job: jobView([camera]), field: FIELD });
  fireEvent.change(screen.getByLabelText(LABEL), { target: { value: HEARD } });
  fireEvent.click(screen.getByText('Bind this MAC'));
  await waitFor(() => expect(screen.calls).toHaveLength(1));
});
