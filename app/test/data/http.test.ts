import 'fake-indexeddb/auto';
import { acts } from '@ipsonomo/contract';
import { ask, lateWatchers } from '../../src/data/http';
import { keepAnswer } from '../../src/data/kept-answers';

// What a page is told where the server does not answer, or not for long.

const jobs = (name: string) => [{ id: 'j', name }];

/** All that is read of an answer; this environment has no Response of its own. */
const answer = (value: unknown) => ({
  ...{ ok: true, status: 200 },
  text: () => Promise.resolve(JSON.stringify(value)),
});

const serverSays = (says: () => Promise<unknown>) => {
  globalThis.fetch = says as unknown as typeof fetch;
};

beforeEach(() => keepAnswer('/api/jobs', JSON.stringify(jobs('as it was'))));
afterEach(() => {
  jest.useRealTimers();
  lateWatchers.clear();
});

test('nobody answers: what was told last is shown', async () => {
  serverSays(() => Promise.reject(new TypeError('fetch failed')));
  expect(await ask(acts.listJobs, {})).toEqual(jobs('as it was'));
});

test('what was never told, and what is no reading, is refused', async () => {
  serverSays(() => Promise.reject(new TypeError('fetch failed')));
  const away = { issues: [{ code: 'server.away', where: '' }] };
  await expect(ask(acts.readPlan, { job: 'unknown' })).rejects.toMatchObject(away);
  await expect(ask(acts.addJob, {}, { body: { name: 'New' } })).rejects.toMatchObject(away);
});

test('a network that leads nowhere: after some seconds what is kept is shown, and looked at again once an answer comes', async () => {
  jest.useFakeTimers({ doNotFake: ['setImmediate', 'queueMicrotask', 'nextTick'] });
  let come: (value: unknown) => void = () => undefined;
  serverSays(() => new Promise((resolve) => (come = resolve)));
  const late = jest.fn();
  lateWatchers.add(late);
  const asked = ask(acts.listJobs, {});
  await jest.advanceTimersByTimeAsync(8_000);
  expect(await asked).toEqual(jobs('as it was'));
  expect(late).not.toHaveBeenCalled();
  come(answer(jobs('as it is')));
  await jest.advanceTimersByTimeAsync(1);
  expect(late).toHaveBeenCalledTimes(1);
});

test('what the server says is kept in place of what it said before', async () => {
  serverSays(() => Promise.resolve(answer(jobs('as it is'))));
  expect(await ask(acts.listJobs, {})).toEqual(jobs('as it is'));
  serverSays(() => Promise.reject(new TypeError('fetch failed')));
  expect(await ask(acts.listJobs, {})).toEqual(jobs('as it is'));
});
