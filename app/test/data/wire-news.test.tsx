import { QueryClient, QueryObserver } from '@tanstack/react-query';
import { act, renderHook } from '@testing-library/react';
import type { FieldView, HeardNews, HeardView } from '@ipsonomo/core/api';
import { fieldQuery, heardQuery, trafficQuery } from '../../src/data/queries';
import { HeardTaker, putField, takeWires, useOthersAnswering } from '../../src/data/wire-news';

// What is told of the wire several times a second draws a page again only where something is to be seen.

const field = (now: number, received: number, answers: number | null = null): FieldView =>
  ({
    ...{
      now,
      jobId: 'job',
      source: 'practice',
      link: 'up',
      answeringUntil: answers,
      tasks: [],
      notices: [],
    },
    counters: { received, sent: 0, malformed: 0, requests: 0, strangersDropped: 0 },
    socket: { tags: [], subnets: [], outside: 0, heardAt: now, neighbour: null, bridge: null },
  }) as unknown as FieldView;

/** How often whoever shows a query is told to draw again. */
function drawn(
  client: QueryClient,
  options: { readonly queryKey: readonly unknown[] },
): () => number {
  let count = 0;
  const observer = new QueryObserver(client, { ...options, enabled: false });
  // As the hook does: only what is looked at counts.
  observer.trackResult(observer.getCurrentResult(), (key) => observer.trackProp(key));
  observer.trackProp('data');
  observer.subscribe(() => (count += 1));
  return () => count;
}

const flushed = () => new Promise((resolve) => setTimeout(resolve, 5));

test('frames that change nothing are no reason to draw; what changes is', async () => {
  const client = new QueryClient();
  const fields = drawn(client, fieldQuery('job'));
  const counts = drawn(client, trafficQuery('job'));
  for (let i = 0; i < 10; i += 1) {
    putField(client, field(1000 + i, i));
    await flushed();
  }
  expect(fields()).toBe(1);
  expect(counts()).toBe(10);
  putField(client, field(2000, 11, 9000));
  await flushed();
  expect(fields()).toBe(2);
});

test('what is older than what is known changes nothing', async () => {
  const client = new QueryClient();
  putField(client, field(2000, 1, 5000));
  putField(client, field(1999, 2, null));
  expect(client.getQueryData(fieldQuery('job').queryKey)?.answeringUntil).toBe(5000);
  expect(client.getQueryData(trafficQuery('job').queryKey)?.counters.received).toBe(1);
});

test('that another job answers is told beside the own wire, and no longer than it does', () => {
  const client = new QueryClient();
  // What other tests told is over.
  takeWires(client, []);
  const { result } = renderHook(() => useOthersAnswering('here'));
  const put = (jobId: string, now: number, until: number | null) =>
    act(() => void putField(client, { ...field(now, 1, until), jobId }));
  put('here', 3000, 9000);
  expect(result.current).toBe(0);
  put('there', 3000, 9000);
  expect(result.current).toBe(1);
  put('there', 3001, null);
  expect(result.current).toBe(0);
  put('there', 3002, 9000);
  expect(result.current).toBe(1);
  act(() => takeWires(client, ['here']));
  expect(result.current).toBe(0);
  put('here', 3001, null);
});

test('each job has a wire of its own, and what was told of one without threads is over', () => {
  const client = new QueryClient();
  putField(client, field(2000, 1, 5000));
  putField(client, { ...field(1000, 7), jobId: 'other' });
  expect(client.getQueryData(trafficQuery('other').queryKey)?.counters.received).toBe(7);
  const taker = new HeardTaker(client);
  taker.take(heard('a', 1));
  taker.take(heard('b', 1, 'other'));
  taker.close();
  takeWires(client, ['other']);
  expect(client.getQueryData(heardQuery('job').queryKey)).toEqual([]);
  expect(client.getQueryState(fieldQuery('job').queryKey)?.isInvalidated).toBe(true);
  expect(client.getQueryState(fieldQuery('other').queryKey)?.isInvalidated).toBe(false);
});

const heard = (mac: string, count: number, jobId = 'job'): HeardNews => ({
  ...{ jobId, all: false },
  clients: [{ mac, count } as unknown as HeardView],
  forgotten: [],
});

describe('those that ask', () => {
  beforeEach(() => jest.useFakeTimers());
  afterEach(() => {
    jest.useRealTimers();
    Reflect.deleteProperty(document, 'visibilityState');
  });

  const known = (client: QueryClient) =>
    (client.getQueryData(heardQuery('job').queryKey) ?? []).map(
      ({ mac, count }) => `${mac} ${count}`,
    );

  test('the first is seen at once, those that follow together, and nobody is left out', () => {
    const client = new QueryClient();
    const taker = new HeardTaker(client);
    taker.take(heard('a', 1));
    expect(known(client)).toEqual(['a 1']);
    for (let i = 2; i <= 5; i += 1) taker.take(heard('a', i));
    taker.take(heard('b', 1));
    expect(known(client)).toEqual(['a 1']);
    jest.advanceTimersByTime(400);
    expect(known(client).sort()).toEqual(['a 5', 'b 1']);
    taker.close();
  });

  test('while nobody sees the page it is noted, and drawn when it comes to the front', () => {
    const client = new QueryClient();
    const taker = new HeardTaker(client);
    Object.defineProperty(document, 'visibilityState', { value: 'hidden', configurable: true });
    taker.take(heard('a', 1));
    jest.advanceTimersByTime(60_000);
    expect(known(client)).toEqual([]);
    Object.defineProperty(document, 'visibilityState', { value: 'visible', configurable: true });
    document.dispatchEvent(new Event('visibilitychange'));
    expect(known(client)).toEqual(['a 1']);
    taker.close();
  });
});
