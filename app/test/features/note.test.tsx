import { fireEvent, waitFor } from '@testing-library/react';
import type { EvidenceView } from '@ipsonomo/core/api';
import { NoteCard } from '../../src/features/plan/device/NoteCard';
import { Seen } from '../../src/features/plan/device/Seen';
import { interfaceView, show } from '../world';

// What a person notes of a device, and shows.

const open = () => show(<NoteCard job="job" id="at" />, { also: [['/said-note', {}]] });

/** What a phone's camera gives. */
const chosen = (file: File) => {
  const made = document.createElement.bind(document);
  jest.spyOn(document, 'createElement').mockImplementation((tag: string) => {
    const element = made(tag);
    if (tag === 'input')
      Object.assign(element, {
        click: () => {
          Object.defineProperty(element, 'files', { value: [file] });
          element.dispatchEvent(new Event('change'));
        },
      });
    if (tag === 'canvas')
      Object.assign(element, {
        getContext: () => ({ drawImage: () => undefined }),
        toDataURL: () => `data:image/jpeg;base64,SIZE${(element as HTMLCanvasElement).width}`,
      });
    return element;
  });
};
afterEach(() => jest.restoreAllMocks());

test('a note is kept as it was typed, and the form is empty and closed again', async () => {
  const { findByText, getByLabelText, findByLabelText, calls, queryByText } = open();
  fireEvent.click(await findByText('Add a note or a photo'));
  const field = await findByLabelText('What is to be noted of it');
  expect(
    (await findByText('Keep it')).closest('[aria-disabled="true"], [disabled]'),
  ).not.toBeNull();
  fireEvent.change(field, { target: { value: 'Its lamp is cracked' } });
  fireEvent.click(await findByText('Keep it'));
  await waitFor(() =>
    expect(calls).toEqual([
      {
        ...{ method: 'POST', path: '/api/jobs/job/interfaces/at/said-note' },
        body: { text: 'Its lamp is cracked' },
      },
    ]),
  );
  expect(await findByText('Add a note or a photo')).toBeTruthy();
  expect(queryByText('Keep it')).toBeNull();
  fireEvent.click(await findByText('Add a note or a photo'));
  expect((getByLabelText('What is to be noted of it') as HTMLInputElement).value).toBe('');
});

test('a photo is made small, and is enough by itself', async () => {
  chosen(new File(['x'], 'photo.jpg', { type: 'image/jpeg' }));
  Object.assign(globalThis, {
    createImageBitmap: () => Promise.resolve({ width: 4000, height: 3000, close: () => undefined }),
  });
  const { findByText, findByLabelText, calls } = open();
  fireEvent.click(await findByText('Add a note or a photo'));
  fireEvent.click(await findByText('Take a photo'));
  expect(await findByLabelText('Photo of the device')).toBeTruthy();
  fireEvent.click(await findByText('Keep it'));
  await waitFor(() => expect(calls[0]?.body).toEqual({ text: '', photo: 'SIZE1600' }));
});

test('what is no picture is said to be none', async () => {
  chosen(new File(['x'], 'list.txt'));
  Object.assign(globalThis, { createImageBitmap: () => Promise.reject(new Error('no picture')) });
  const { findByText } = open();
  fireEvent.click(await findByText('Add a note or a photo'));
  fireEvent.click(await findByText('Take a photo'));
  expect(await findByText(/^This browser cannot read that picture/)).toBeTruthy();
});

test('a note stands among what was seen, with its photo', async () => {
  const note = {
    ...{ id: '7', kind: 'said-note', at: Date.now(), mac: null, address: null },
    ...{ source: 'desk', person: 'Mara Quist', facts: { text: 'Cracked', photo: 'ab12' } },
  } as unknown as EvidenceView;
  const { findByText, findAllByLabelText } = show(<Seen job="job" at={interfaceView()} />, {
    evidence: [note],
  });
  expect(await findByText('noted: Cracked (with a photo)')).toBeTruthy();
  const [photo] = await findAllByLabelText('Photo: Cracked');
  expect(photo?.outerHTML).toContain('/api/jobs/job/photos/ab12');
});
