import 'fake-indexeddb/auto';
import { fireEvent, waitFor } from '@testing-library/react';
import type { Paper } from '@ipsonomo/core/plan';
import { PaperList } from '../../src/features/kinds/Papers';
import { show } from '../world';

// Papers of a kind, taken along for a cabinet without a network.

const paper = (id: string, bytes: number): Paper => ({
  ...{ id, name: `${id}.pdf`, what: 'manual', bytes },
});
// Browsers have it; jsdom does not.
globalThis.structuredClone ??= <T,>(value: T): T => value;

const papers = [paper('one', 2_000_000), paper('two', 500_000)];

test('how much room they take, what is missing, and that they are there', async () => {
  const opened: string[] = [];
  Object.assign(globalThis, { open: (url: string) => opened.push(url) });
  Object.assign(URL, { createObjectURL: () => 'blob:one' });
  const { findByText, findAllByText, getByLabelText } = show(
    <PaperList job="job" papers={papers} />,
  );
  const carry = await findByText('Carry them on this phone (2.5 MB)');
  Object.assign(globalThis, {
    fetch: (path: string) =>
      Promise.resolve({
        ...{ ok: path.includes('one'), status: 404, headers: { get: () => 'application/pdf' } },
        arrayBuffer: () => Promise.resolve(new Uint8Array([1]).buffer),
      }),
  });
  fireEvent.click(carry);
  expect(await findByText(/^! One could not be taken along/)).toBeTruthy();
  expect(await findByText('One is missing: carry it too (500 KB)')).toBeTruthy();
  expect(await findAllByText(/on this phone$/)).toHaveLength(1);
  fireEvent.click(getByLabelText('Open one.pdf'));
  await waitFor(() => expect(opened).toEqual(['blob:one']));
});
