import { fireEvent } from '@testing-library/react';
import { FindScreen } from '../../src/features/find/FindScreen';
import { deviceInfo, jobView, show } from '../world';

// R-FIND as a person meets it: type, and go there.

const JOB = jobView([
  deviceInfo(),
  deviceInfo({ id: 'pump', title: 'Intake pump' }, { id: 'pump-at', address: '172.22.40.86' }),
]);

const open = () => {
  const screen = show(<FindScreen job="job" />, { job: JOB });
  const type = (text: string) =>
    fireEvent.change(screen.getByLabelText(/^A device, any part/), { target: { value: text } });
  const links = () =>
    screen.queryAllByRole('link').map((one) => [one.textContent, one.getAttribute('href')]);
  return { ...screen, type, links };
};

test.each([
  ['.86', [['Intake pump172.22.40.86', '/job/job/device/pump']]],
  ['filter hall', [['Filter hall172.22.40.0/24', '/job/job/subnet/hall']]],
  ['copy', [['Copy a machinepage', '/job/job/copy']]],
  ['cabinet', []],
])('"%s" leads to %j', (text, expected) => {
  const { type, links } = open();
  expect(links()).toEqual([]);
  type(text);
  expect(links().slice(0, 1)).toEqual(expected);
});

test('what goes by nothing is said', () => {
  const { type, getByText } = open();
  type('no such thing');
  expect(getByText('Nothing in this job goes by that.')).toBeTruthy();
});
