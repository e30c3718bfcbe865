import 'fake-indexeddb/auto';
import { carriedUrl, carryPaper, letGoOfPaper } from '../../src/data/carried-papers';
import { forgetAnswers } from '../../src/data/kept-answers';

// Papers that are taken along: opened from the browser's own disk, and never as anything that is run.

const made: Blob[] = [];
Object.assign(URL, {
  createObjectURL: (blob: Blob) => `blob:${made.push(blob)}`,
});
const answering = (type: string | null, ok = true) =>
  Object.assign(globalThis, {
    fetch: () =>
      Promise.resolve({
        ...{ ok, status: ok ? 200 : 404, headers: { get: () => type } },
        arrayBuffer: () => Promise.resolve(new Uint8Array([1, 2, 3]).buffer),
      }),
  });

const paper = { id: 'ab12', name: 'manual.pdf' };

test.each([
  ['application/pdf', 'application/pdf'],
  ['image/png; charset=x', 'image/png'],
  ['text/html', 'application/octet-stream'],
  [null, 'application/octet-stream'],
])('a paper of type %s is opened as %s', async (told, type) => {
  answering(told);
  await carryPaper('job', paper);
  expect(await carriedUrl(paper)).toMatch(/^blob:/);
  expect([made.at(-1)?.type, made.at(-1)?.size]).toEqual([type, 3]);
});

test('what could not be taken is not there, and what is let go of is gone', async () => {
  answering('application/pdf', false);
  await expect(carryPaper('job', { id: 'cd34', name: 'b' })).rejects.toThrow('404');
  expect(await carriedUrl({ id: 'cd34', name: 'b' })).toBeUndefined();
  await letGoOfPaper(paper);
  expect(await carriedUrl(paper)).toBeUndefined();
});

test('whoever is let in no longer has none', async () => {
  answering('application/pdf');
  await carryPaper('job', paper);
  await forgetAnswers();
  expect(await carriedUrl(paper)).toBeUndefined();
});
