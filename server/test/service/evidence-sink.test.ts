import {
  appendFileSync,
  existsSync,
  mkdtempSync,
  readFileSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { randomUUID } from 'node:crypto';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Journal, journalsIn, readJournal } from '../../../wire/src/kept/journal';
import type { FieldEvent } from '../../../wire/src/protocol';
import { EvidenceSink } from '../../src/service/evidence-sink';
import { Scratch } from '../scratch';

// What was seen is not lost by what one device says, by a line that was cut, nor changed by hand unseen.

let scratch: Scratch;
let job = '';
beforeAll(async () => {
  scratch = await Scratch.open('sink');
  job = (await scratch.store.addJob('Sink')).id;
});
afterAll(() => scratch.close());

const event = (fields: Partial<FieldEvent> = {}): FieldEvent => ({
  ...{ runId: undefined as unknown as string, sequence: 1, jobId: job, interfaceId: 'at' },
  ...{ kind: 'asked', at: Date.now(), mac: undefined, address: undefined, source: 'practice' },
  ...{ person: 'Mara', facts: { message: 'DISCOVER' }, bytes: undefined, ...fields },
});

function open() {
  const folder = mkdtempSync(join(tmpdir(), 'ipsonomo-sink-'));
  const logged: string[] = [];
  const sink = new EvidenceSink(
    scratch.store,
    folder,
    () => undefined,
    (line) => logged.push(line),
  );
  return { folder, logged, sink };
}

const countOf = async (interfaceId: string) =>
  (await scratch.store.evidence.of(job, interfaceId, 1000)).length;

test('one piece that the database refuses is kept apart and told; the others are written', async () => {
  const { folder, logged, sink } = open();
  const batch = Array.from({ length: 42 }, (_, at) =>
    event({
      interfaceId: 'batch',
      facts: { name: at === 7 ? 'a\0b' : at === 30 ? '\ud800' : 'ok' },
    }),
  );
  sink.take(batch);
  await sink.settled();
  expect([await countOf('batch'), sink.apart, logged.length]).toEqual([40, 2, 2]);
  const kept = readFileSync(join(folder, 'not-taken.txt'), 'utf8').trim().split('\n');
  expect(kept.map((line) => (JSON.parse(line) as FieldEvent).facts['name'])).toEqual([
    'a\0b',
    '\ud800',
  ]);
});

test('a journal with broken lines is read all the same, and what cannot be read is kept', async () => {
  const { folder, logged, sink } = open();
  const run = await scratch.store.addRun(job, 'practice', 'Mara');
  const journal = new Journal(folder, run.id, (error) => logged.push(String(error)));
  const { runId: _run, sequence: _sequence, ...rest } = event({ interfaceId: 'journal' });
  journal.event(rest);
  journal.event(rest);
  journal.close();
  const [path = ''] = journalsIn(folder);
  expect(statSync(path).mode & 0o777).toBe(0o600);
  const lines = readFileSync(path, 'utf8').split('\n');
  writeFileSync(
    path,
    [lines[0], '{"jobId": 7}', 'not JSON \0', '[]', 'null', lines[1], ''].join('\n'),
  );
  appendFileSync(path, '{"jobId":"cut');
  expect(readJournal(path)).toMatchObject({ events: [{}, {}], broken: { length: 5 } });
  await sink.recover();
  expect([await countOf('journal'), existsSync(path)]).toEqual([2, false]);
  expect(readFileSync(join(folder, 'not-taken.txt'), 'utf8').trim().split('\n')).toHaveLength(5);
});

test('a journal of another database stays where it is', async () => {
  const { folder, sink } = open();
  const journal = new Journal(folder, randomUUID(), () => undefined);
  const { runId: _run, sequence: _sequence, ...rest } = event({ jobId: randomUUID() });
  journal.event(rest);
  journal.close();
  await sink.recover();
  expect(journalsIn(folder)).toHaveLength(1);
});

test('sealed: no column can be changed and nothing emptied; what is changed by hand all the same is named', async () => {
  const { knex, store } = scratch;
  const others = async () => (await store.evidence.audit()).filter((one) => one.jobId === job);
  await store.evidence.append(
    [1, 2, 3].map((at) => ({ ...event({ interfaceId: 'sealed', at }), bytes: undefined })),
  );
  expect(await others()).toEqual([]);
  for (const set of ['person', 'interface_id', 'kind', 'source'])
    await expect(
      knex('evidence')
        .where('interface_id', 'sealed')
        .update({ [set]: 'x' }),
    ).rejects.toThrow(/never changed/);
  await expect(knex('evidence').update({ run_id: null })).rejects.toThrow(/never changed/);
  await expect(knex('evidence').delete()).rejects.toThrow(/never changed/);
  await expect(knex.raw('truncate evidence')).rejects.toThrow(/never changed/);

  const [first] = await store.evidence.of(job, 'sealed', 3);
  await knex.raw('alter table evidence disable trigger all');
  await knex('evidence').where('id', first?.id).update({ person: 'somebody else' });
  await knex.raw('alter table evidence enable trigger all');
  expect(await others()).toMatchObject([{ id: first?.id, interfaceId: 'sealed' }]);
});

test('many writers at once: one chain', async () => {
  const { store } = scratch;
  const { id } = await store.addJob('Chain');
  await Promise.all(
    Array.from({ length: 20 }, () =>
      store.evidence.append(
        [1, 2, 3, 4].map((at) => ({ ...event({ jobId: id, at }), bytes: undefined })),
      ),
    ),
  );
  expect((await store.evidence.audit()).filter((one) => one.jobId === id)).toEqual([]);
});
