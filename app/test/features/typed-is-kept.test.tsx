import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fireEvent } from '@testing-library/react';
import type { Issue } from '@ipsonomo/core/net';
import { EvenSo } from '../../src/features/calls/call/EvenSo';
import { ApiError } from '../../src/data';
import { show } from '../world';

// What is typed is kept for the tab (`useDraft`): a text that a page holds by itself is gone with it.

const FEATURES = join(__dirname, '../../src/features');

/** What is not typed, or may not be kept. */
const HELD: Readonly<Record<string, string>> = {
  'plan/ThisJob.tsx': 'the name of a job, typed anew by whoever deletes it',
  'calls/label/LabelField.tsx': 'what was wrong with a picture',
  'start/door/DoorScreen.tsx': 'a password and a key',
  'start/door/You.tsx': 'passwords',
  'routes/LanesScreen.tsx': 'which lane is looked at',
  'routes/picture/PictureScreen.tsx': 'which lane is looked at',
  'find/FindScreen.tsx': 'what is looked for now',
};

test('every text that somebody types on a page is kept, but for what may not be', () => {
  const holding = readdirSync(FEATURES, { recursive: true, encoding: 'utf8' })
    .filter((name) => name.endsWith('.tsx'))
    .filter((name) => readFileSync(join(FEATURES, name), 'utf8').includes("useState('')"));
  expect(holding.sort()).toEqual(Object.keys(HELD).sort());
});

test('why a device may be disturbed all the same stays through another page, until it is said', () => {
  const error = new ApiError([{ code: 'device.inUse', where: 'drive' } as Issue]);
  const said: string[] = [];
  const form = (about: string) =>
    show(
      <EvenSo
        {...{ about, error, title: 'The machine may stop: tell it' }}
        onEvenSo={(reason) => said.push(reason)}
      />,
    );
  const label = /Why may it be disturbed/;
  const first = form('at-1');
  fireEvent.change(first.getByLabelText(label), { target: { value: 'line is locked' } });
  first.unmount();
  const other = form('at-2');
  expect(other.getByLabelText(label)).toHaveProperty('value', '');
  other.unmount();
  const again = form('at-1');
  fireEvent.click(again.getByText('The machine may stop: tell it'));
  expect(said).toEqual(['line is locked']);
  again.unmount();
  expect(form('at-1').getByLabelText(label)).toHaveProperty('value', '');
});
