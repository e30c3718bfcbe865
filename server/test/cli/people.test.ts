import { symlinkSync } from 'node:fs';
import { join } from 'node:path';
import request from 'supertest';
import type { AccountView, NewKeyView } from '@ipsonomo/core/api';
import { key, people } from '../../src/cli/keys';
import type { Output } from '../../src/cli/output';
import { ApiBench } from '../http/api-bench';
import { asked } from './asked';

// Keys and accounts from the terminal of the machine: what mends a lost password of the only keeper.

let bench: ApiBench;
const before = process.env['IPSONOMO_DATA'];
beforeAll(async () => {
  bench = await ApiBench.open('terminal');
  symlinkSync('sock', join(bench.captures, 'ipsonomo.sock'));
  process.env['IPSONOMO_DATA'] = bench.captures;
});
afterAll(async () => {
  if (before === undefined) delete process.env['IPSONOMO_DATA'];
  else process.env['IPSONOMO_DATA'] = before;
  await bench.close();
});

type Run = (inputs: readonly string[], output: Output) => Promise<boolean>;
const typed = (run: Run, ...inputs: readonly string[]) => asked((output) => run(inputs, output));

const enter = (body: object) => request(bench.webUrl).post('/api/door').send(body);

test('a key for the first keeper; when the password is lost, another for the same account', async () => {
  const { printed, told } = await typed(key);
  expect(told[0]).toContain('The key, to type:');
  const first = printed[0] as NewKeyView;
  await enter({ key: first.key, name: 'Mara Quist', password: 'four words in a row' }).expect(204);
  const again = (await typed(people, 'key', 'mara quist')).printed[0] as NewKeyView;
  await enter({ key: again.key, password: 'other words in a row' }).expect(204);
  const accounts = (await typed(people)).printed as readonly AccountView[];
  expect(accounts.map(({ name, role }) => [name, role])).toEqual([['Mara Quist', 'keep']]);
  await request(bench.webUrl)
    .post('/api/door/sign-in')
    .send({ name: 'Mara Quist', password: 'other words in a row' })
    .expect(204);
});

test('roles and ends; what cannot be is told in a sentence', async () => {
  const look = (await typed(key, 'look')).printed[0] as NewKeyView;
  await enter({ key: look.key, name: 'Ilse Brandt' }).expect(204);
  const roles = (all: readonly unknown[]) =>
    (all as readonly AccountView[]).map(({ name, role }) => [name, role]);
  expect(roles((await typed(people, 'role', 'Ilse Brandt', 'assign')).printed)).toContainEqual([
    ...['Ilse Brandt', 'assign'],
  ]);
  expect(roles((await typed(people, 'end', 'Ilse Brandt')).printed)).toEqual([
    ['Mara Quist', 'keep'],
  ]);
  for (const [inputs, sentence] of [
    [['end', 'Mara Quist'], /Let another one keep first/],
    [['key', 'Nobody'], /Nobody here is called “Nobody”/],
    [['raise', 'Mara Quist'], /none of key, role, end/],
  ] as const) {
    const { isGood, told } = await typed(people, ...inputs);
    expect([isGood, told.join(' ')]).toEqual([false, expect.stringMatching(sentence)]);
  }
});
