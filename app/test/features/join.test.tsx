import { fireEvent, waitFor } from '@testing-library/react';
import type { ClashView, JoinedView } from '@ipsonomo/core/api';
import { docOfPlan } from '@ipsonomo/core/plan';
import { JoinScreen } from '../../src/features/plan/join/JoinScreen';
import { otherSide } from '../../src/features/plan/join/other-side';
import { deviceInfo, jobView, planOfView, show } from '../world';

// R-UNITE: what another laptop brought, and what both changed.

const side = (person: string, value: unknown) => ({
  ...{ revision: `of ${person}`, person, at: 1_790_000_000_000 },
  value: value as never,
});
const clash = (fields: Partial<ClashView> = {}): ClashView => ({
  ...{ type: 'device', id: 'drive', field: 'title', title: 'Drum filter drive 1' },
  ...{ stands: side('Ilse Brandt', 'Drum filter drive 1'), lost: side('Mara Quist', 'Drive one') },
  ...fields,
});
const TAKEN = {
  ...{ serverName: 'Tower', at: 1_790_000_000_000, person: 'Ova', revisions: 3, evidence: 0 },
};

const open = (joined: JoinedView, role = 'keep') =>
  show(<JoinScreen job="job" />, {
    job: jobView([deviceInfo()]),
    also: [
      ['/joined', joined],
      ['/me', { id: 'me', name: 'Mara Quist', role, hasPassword: true, grants: [] }],
    ],
  });

test('what came, and from which laptop', async () => {
  const { findByText } = open({ taken: [TAKEN, { ...TAKEN, revisions: 0, at: 1 }], clashes: [] });
  expect(
    await findByText('Tower: 3 revisions and no piece of evidence that were not known here.'),
  ).toBeTruthy();
  expect(await findByText('Tower: nothing that was not known here.')).toBeTruthy();
});

test('both sides stand there with who and when; it stays, or the other is taken by an edit', async () => {
  const { findByText, getByText, calls } = open({ taken: [], clashes: [clash()] });
  expect(await findByText('Drum filter drive 1, what people call it')).toBeTruthy();
  expect(getByText(/^Stands: Drum filter drive 1 \(Ilse Brandt, /)).toBeTruthy();
  expect(getByText(/^The other: Drive one \(Mara Quist, /)).toBeTruthy();
  fireEvent.click(getByText('Take the other'));
  await waitFor(() => expect(calls).toHaveLength(1));
  expect(calls[0]).toMatchObject({
    path: '/api/jobs/job/edits',
    body: { edits: [{ op: 'set', id: 'drive', field: 'title', to: 'Drive one' }] },
  });
  fireEvent.click(getByText('It stays so'));
  await waitFor(() => expect(calls).toHaveLength(2));
  expect(calls[1]?.body).toEqual({
    ...{ type: 'device', id: 'drive', field: 'title' },
    ...{ stands: 'of Ilse Brandt', lost: 'of Mara Quist' },
  });
});

test('whoever keeps nothing takes nothing in', async () => {
  const { findByText, queryByText } = open({ taken: [], clashes: [] }, 'plan');
  expect(await findByText('A keeper takes in what another laptop wrote.')).toBeTruthy();
  expect(queryByText('Take in what another laptop wrote')).toBeNull();
});

const doc = docOfPlan(planOfView(jobView([deviceInfo()])));
const thing = doc.device.get('drive');
const whole = (stands: unknown, lost: unknown, id = 'drive') =>
  clash({ id, field: null, stands: side('Ilse', stands), lost: side('Mara', lost) });

test.each([
  ['set to the other', clash(), { op: 'set', field: 'title', to: 'Drive one' }],
  ['changed since', clash({ stands: side('Ilse', 'Something else') }), undefined],
  ['of what is gone', clash({ id: 'gone' }), undefined],
  ['taken out after all', whole(thing, undefined), { op: 'remove', thing }],
  ['put back', whole(undefined, { id: 'gone' }, 'gone'), { op: 'add', thing: { id: 'gone' } }],
  ['two that differ', whole(thing, { id: 'drive' }), undefined],
])('the other side: %s', (_name, one, edit) => {
  if (edit) expect(otherSide(one, doc)).toMatchObject(edit);
  else expect(otherSide(one, doc)).toBeUndefined();
});
