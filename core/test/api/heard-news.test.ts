import { applyHeardNews, type HeardView } from '../../src/api';

test('news of what was heard: changed, forgotten, or all anew', () => {
  const heard = (mac: string, count: number) => ({ mac, count }) as HeardView;
  const known = [heard('a', 1), heard('b', 1), heard('c', 1)];
  const news = { all: false, clients: [heard('c', 2), heard('d', 1)], forgotten: ['a'] };
  expect(applyHeardNews(known, news)).toEqual([heard('b', 1), heard('c', 2), heard('d', 1)]);
  expect(applyHeardNews(known, { all: true, clients: [], forgotten: [] })).toEqual([]);
});
