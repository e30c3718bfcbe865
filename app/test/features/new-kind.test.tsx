import { fireEvent, waitFor, within } from '@testing-library/react';
import { NewKindScreen } from '../../src/features/kinds/short/NewKindScreen';
import { jobView, show } from '../world';

// A kind in six questions: switches are drawn, tried in both directions, and what is missing is told where it is.

const open = () => {
  const screen = show(<NewKindScreen job="job" />, {
    job: jobView([]),
    also: [['/edits', { revision: 2, edits: [] }]],
  });
  const type = (label: string, value: string) =>
    fireEvent.change(screen.getByLabelText(label), { target: { value } });
  const press = (name: string) => fireEvent.click(screen.getByText(name));
  const tick = (name: string) => fireEvent.click(screen.getByRole('checkbox', { name }));
  return { ...screen, type, press, tick };
};

test('with two dials: drawn, tried both ways, and put into the plan', async () => {
  const { type, press, tick, getByLabelText, getByText, calls } = open();
  type('Its maker', 'Ollerby');
  type('What the kind is called', 'Dosing head');
  tick('switches');
  fireEvent.click(getByLabelText('as its switches say'));
  press('Add a dial');
  press('Add a dial');
  type('What stands beside switch 1', '×10');
  type('What stands beside switch 2', '×1');
  expect(getByLabelText('What one step of switch 2 is worth')).toHaveProperty('value', '1');
  type('to value (1)', '99');
  type('How it must stand for this address', '.86');
  expect(await waitFor(() => getByText(/Try it, in 172.22.40.0\/24/))).toBeTruthy();
  press('Make this kind');
  await waitFor(() => expect(calls).toHaveLength(1));
  expect(calls[0]?.body).toMatchObject({
    edits: [
      {
        op: 'add',
        thing: {
          ...{ maker: 'Ollerby', name: 'Dosing head', factory: { kind: 'switches' } },
          switches: {
            elements: [
              { kind: 'dial', label: '×10', weight: 10 },
              { kind: 'dial', label: '×1', weight: 1 },
            ],
            meanings: [{ from: 1, to: 99, act: { kind: 'last-number' } }],
          },
        },
      },
    ],
  });
});

test('what is missing is told where it is, once somebody wants to be done', () => {
  const { press, queryByText, getByText, calls } = open();
  press('Add a row of DIP switches');
  expect(queryByText(/has no name/)).toBeNull();
  press('Make this kind');
  expect(getByText('4 things are still to be said.')).toBeTruthy();
  expect(getByText(/Switch 1 has no name/)).toBeTruthy();
  expect(getByText(/Choose at least one way/)).toBeTruthy();
  expect(calls).toEqual([]);
});

test('what was answered stays when the page is left and come back to', () => {
  const first = open();
  first.type('Its maker', 'Ollerby');
  first.tick('has a web page');
  first.unmount();
  const again = open();
  expect(again.getByLabelText('Its maker')).toHaveProperty('value', 'Ollerby');
  const page = again.getByRole('checkbox', { name: 'has a web page' });
  expect(page.getAttribute('aria-checked')).toBe('true');
  expect(within(again.container).queryByText(/still to be said/)).toBeNull();
});
