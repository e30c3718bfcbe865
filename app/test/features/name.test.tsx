import { fireEvent, waitFor } from '@testing-library/react';
import { Button } from 'react-native';
import { acts, changeSettings, readSettings, useAct } from '../../src/data';
import { NameAsk } from '../../src/features/frame/NameAsk';
import { FIELD, show } from '../world';

// Whoever decides something is known by name: asked once, at the first decision, which then goes on by itself.

function Acts() {
  const listen = useAct(acts.listen, { job: 'job' });
  const silence = useAct(acts.silence, { job: 'job' });
  const rest = useAct(acts.rest, { job: 'job' });
  return (
    <>
      <NameAsk />
      <Button title="listen" onPress={() => listen.mutate()} />
      <Button title="silence" onPress={() => silence.mutate()} />
      <Button title="rest" onPress={() => rest.mutate()} />
      {listen.error ? <>{listen.error.message}</> : null}
    </>
  );
}

const open = () => {
  changeSettings({ person: '' });
  return show(<Acts />, { field: FIELD });
};

test('the first decision waits for a name, and goes on by itself', async () => {
  const { getByText, findByLabelText, queryByRole, calls } = open();
  expect(queryByRole('dialog')).toBeNull();
  fireEvent.click(getByText('listen'));
  fireEvent.change(await findByLabelText('Your name'), { target: { value: ' Ida Venn ' } });
  expect(calls).toEqual([]);
  fireEvent.click(getByText('Go on'));
  await waitFor(() => expect(calls.map(({ path }) => path)).toEqual(['/api/jobs/job/wire/listen']));
  expect(readSettings().person).toBe('Ida Venn');
  expect(queryByRole('dialog')).toBeNull();
});

test('whoever leaves it is told that nothing was done', async () => {
  const { getByText, findByText, findByRole, calls } = open();
  fireEvent.click(getByText('listen'));
  await findByRole('dialog');
  fireEvent.click(getByText('Leave it'));
  expect(await findByText('Nothing was done: say your name first.')).toBeTruthy();
  expect(calls).toEqual([]);
});

test('falling silent and ending never wait for a name', async () => {
  const { getByText, queryByRole, calls } = open();
  fireEvent.click(getByText('silence'));
  fireEvent.click(getByText('rest'));
  await waitFor(() =>
    expect(calls.map(({ path }) => path.split('/').at(-1))).toEqual(['silence', 'rest']),
  );
  expect(queryByRole('dialog')).toBeNull();
});
