import { QueryClient, QueryObserver } from '@tanstack/react-query';
import type { JobNews } from '@ipsonomo/core/api';
import { must, parsePrefix } from '@ipsonomo/core/net';
import { docOf, firstDoc, toSubnet, type Edit } from '@ipsonomo/core/plan';
import { keys } from '@ipsonomo/contract';
import type { PlanNow } from '../../src/data/plan-state';
import { Rereader, takeJobNews } from '../../src/data/rereader';

// Which questions a page asks again when it is told that something of a job changed.

const subnet = (name: string): Edit => ({
  op: 'add',
  type: 'subnet',
  thing: docOf('subnet', toSubnet({ id: name, name, prefix: must(parsePrefix('10.0.0.0/24')) })),
});

const RENAMED: Edit = {
  ...{ op: 'set', type: 'subnet', id: 'none', field: 'name', from: 'a', to: 'b' },
};

function open() {
  const client = new QueryClient();
  const asked: string[] = [];
  const plan: PlanNow = { id: 'a', name: 'A', revision: 3, lastNamed: 0, doc: firstDoc() };
  const queries = {
    plan: { key: keys.plan('a'), data: plan },
    progress: {
      key: keys.progress('a'),
      data: { seen: {}, handedOver: 0, mark: 'e-5', isWhole: true },
    },
    round: { key: keys.round('a'), data: {} },
    other: { key: keys.plan('b'), data: plan },
  };
  for (const [name, { key, data }] of Object.entries(queries)) {
    client.setQueryData(key, data);
    new QueryObserver(client, {
      ...{ queryKey: key, staleTime: Infinity },
      queryFn: () => {
        asked.push(name);
        return data;
      },
    }).subscribe(() => undefined);
  }
  const rereader = new Rereader(client);
  const tell = async (...news: readonly Partial<JobNews>[]) => {
    for (const one of news)
      takeJobNews(client, rereader, {
        ...{ jobId: 'a', revision: null, made: null, mark: 'e-5' },
        ...one,
      });
    await new Promise((resolve) => setTimeout(resolve, 5));
    return [...asked].sort();
  };
  return { client, tell, plan: () => client.getQueryData<PlanNow>(keys.plan('a')) };
}

const made = (...names: readonly string[]) => ({ person: 'Ilse Brandt', edits: names.map(subnet) });

test.each<[string, readonly Partial<JobNews>[], readonly string[]]>([
  ['a short change that follows', [{ revision: 4, made: made('x') }], ['round']],
  [
    'two of them',
    [
      { revision: 4, made: made('x') },
      { revision: 5, made: made('y') },
    ],
    ['round'],
  ],
  ['my own change, known already', [{ revision: 3, made: made('x') }], ['round']],
  ['a long change', [{ revision: 4, made: null }], ['plan', 'round']],
  ['one that was missed before it', [{ revision: 5, made: made('x') }], ['plan', 'round']],
  [
    'one that does not go with what is known',
    [{ revision: 4, made: { person: 'Ilse Brandt', edits: [RENAMED] } }],
    ['plan', 'round'],
  ],
  ['a revision that has a name now', [{ revision: 3, mark: null }], ['plan', 'progress', 'round']],
  ['something was seen', [{ mark: 'e-6' }], ['progress', 'round']],
  ['something that no mark stands for', [{ mark: null }], ['progress', 'round']],
  ['nothing new was seen', [{}], ['round']],
])('%s', async (_what, news, expected) => {
  const { tell } = open();
  expect(await tell(...news)).toEqual(expected);
});

test('the plan of the page is the one that was made of it', async () => {
  const { tell, plan } = open();
  await tell({ revision: 4, made: made('x') }, { revision: 5, made: made('y') });
  expect(plan()?.revision).toBe(5);
  expect([...(plan()?.doc.subnet.keys() ?? [])]).toEqual(['x', 'y']);
});
