import request from 'supertest';
import { acts, hasRight, paramsIn, type AnyAct } from '@ipsonomo/contract';
import {
  ROLES,
  type MeView,
  type NewKeyView,
  type PeopleView,
  type Role,
} from '@ipsonomo/core/api';
import { rightsIn } from '../../src/http/rights';
import { ApiBench } from './api-bench';

// R-PEOPLE and R-RIGHTS: accounts, how they come in and end, and every act of the contract with every role and with nobody.

let bench: ApiBench;
let url: string;
beforeAll(async () => {
  bench = await ApiBench.open('people');
  url = bench.webUrl;
});
afterAll(() => bench.close());

const PASSWORD = 'four words in a row';
const cookieIn = (answer: { readonly headers: Readonly<Record<string, unknown>> }): string =>
  String(answer.headers['set-cookie']).split(';')[0] ?? '';

async function keyFor(role: Role, account?: string): Promise<string> {
  const answer = await bench.call('post', '/keys').send({ role, ...(account ? { account } : {}) });
  return (answer.body as NewKeyView).key;
}

let made = 0;

/** Somebody new, with the cookie of their browser. */
async function somebody(role: Role, password?: string) {
  const name = `Person ${(made += 1)}`;
  const key = await keyFor(role);
  const answer = await request(url)
    .post('/api/door')
    .send({ key, name, ...(password === undefined ? {} : { password }) })
    .expect(204);
  const cookie = cookieIn(answer);
  const { body } = await asked(cookie, 'get', '/me').expect(200);
  return { name, key, cookie, id: (body as MeView).id ?? '' };
}

const asked = (cookie: string, method: 'get' | 'post' | 'patch' | 'delete', path: string) =>
  request(url)[method](`/api${path}`).set('cookie', cookie);

const signIn = (name: string, password: string) =>
  request(url).post('/api/door/sign-in').send({ name, password });

const codeOf = ({ body }: { readonly body: unknown }) => (body as { readonly code?: string }).code;
const people = async (): Promise<PeopleView['accounts']> =>
  ((await bench.call('get', '/people')).body as PeopleView).accounts;

/** An id where one belongs that nobody has. */
const NOBODY = '3f0c3c5e-0000-4000-8000-00000000dead';
const pathOf = (act: AnyAct, job: string): string =>
  paramsIn(act).reduce(
    (path, name) =>
      path.replace(`:${name}`, name === 'job' ? job : name === 'number' ? '1' : NOBODY),
    act.path as string,
  );

describe.each([...ROLES, 'nobody'] as const)('R-RIGHTS: %s', (who) => {
  let cookie = '';
  beforeAll(async () => (cookie = who === 'nobody' ? '' : (await somebody(who)).cookie));

  // Signing out would end the one who asks.
  const all = Object.entries(acts as Readonly<Record<string, AnyAct>>).filter(
    ([name, { right }]) => right !== 'door' && name !== 'signOut',
  );

  test.each(all.map(([name, act]) => [name, act] as const))('%s', async (_name, act) => {
    const method = act.method.toLowerCase() as 'get' | 'post' | 'patch' | 'delete';
    const ask = (job: string) => asked(cookie, method, pathOf(act, job)).send();
    const answers = [await ask(NOBODY), await ask(bench.job.id)];
    if (who === 'nobody') {
      for (const answer of answers)
        expect([answer.status, codeOf(answer)]).toEqual([401, 'door.locked']);
      return;
    }
    const may = hasRight(who, act.right);
    for (const answer of answers) expect(codeOf(answer) === 'right.missing').toBe(!may);
    // Whoever may not is told the same of a job that is there and of one that is not.
    if (!may) expect(answers[0]?.body).toEqual(answers[1]?.body);
  });
});

test('a key makes one account, and is used up; the name stands beside what they do', async () => {
  const { name, key, cookie } = await somebody('plan');
  await request(url).post('/api/door').send({ key, name: 'Another' }).expect(403);
  const { id } = bench.job;
  await asked(cookie, 'post', `/jobs/${id}/subnets`)
    .set('x-person', 'Somebody%20else')
    .send({ name: 'Test', network: '10.77.0.0/24', purpose: '', gateway: null, vlan: null })
    .expect(201);
  const { body } = await asked(cookie, 'get', `/jobs/${id}/revisions`).expect(200);
  expect((body as readonly { readonly person: string }[])[0]?.person).toBe(name);
});

test('of many who come with one key at once, one is let in', async () => {
  const key = await keyFor('look');
  const answers = await Promise.all(
    Array.from({ length: 8 }, (_, at) =>
      request(url)
        .post('/api/door')
        .send({ key, name: `Crowd ${at}` }),
    ),
  );
  expect(answers.filter(({ status }) => status === 204)).toHaveLength(1);
});

describe('passwords', () => {
  test('who has one comes in with it, in any form of its letters; a wrong one and a name that is none are told alike', async () => {
    const { name } = await somebody('look', 'fünf Wörter am Stück');
    await signIn(name.toUpperCase(), 'fünf Wörter am Stück'.normalize('NFD')).expect(204);
    const [wrong, nobody] = [
      await signIn(name, 'fuenf Woerter am Stueck').expect(403),
      await signIn('Nobody at all', PASSWORD).expect(403),
    ];
    expect(wrong.body).toEqual(nobody.body);
    expect(codeOf(wrong)).toBe('people.wrong');
  });

  test.each([
    ['a short one', 'elf letters', 'people.password'],
    ['a long one', 'x1y2z3'.repeat(30), 'people.password'],
    ['one character', 'aaaaaaaaaaaaaaaa', 'people.plainPassword'],
    ['one that was stolen', 'Leave-Me Alone 2026', 'people.plainPassword'],
    ['another that was stolen', 'unbelievable', 'people.plainPassword'],
    ['the name', 'Person-Plain-Person-Plain', 'people.plainPassword'],
  ])('%s is refused, and the key stays good', async (_what, password, code) => {
    const key = await keyFor('look');
    const name = 'Person Plain';
    const answer = await request(url).post('/api/door').send({ key, name, password }).expect(422);
    expect(codeOf(answer)).toBe(code);
    await request(url)
      .post('/api/door')
      .send({ key, name: `Once ${code} ${_what}` })
      .expect(204);
  });

  test('a new one needs the old one, and signs other browsers out; everywhere means everywhere', async () => {
    const { name, cookie } = await somebody('look', PASSWORD);
    const other = cookieIn(await signIn(name, PASSWORD).expect(204));
    const change = (old: string | undefined) =>
      asked(cookie, 'post', '/me/password').send({ password: 'other words in a row', old });
    expect(codeOf(await change('something else'))).toBe('people.wrongOld');
    await change(PASSWORD).expect(200);
    await asked(other, 'get', '/me').expect(401);
    await asked(cookie, 'get', '/me').expect(200);
    await signIn(name, PASSWORD).expect(403);
    const third = cookieIn(await signIn(name, 'other words in a row').expect(204));
    await asked(third, 'post', '/me/sign-out').send({ from: 'everywhere' }).expect(204);
    for (const one of [cookie, third]) await asked(one, 'get', '/me').expect(401);
  });

  test('a forgotten one is replaced by a key for the account', async () => {
    const { name, id } = await somebody('look', PASSWORD);
    const key = await keyFor('look', id);
    await request(url)
      .post('/api/door')
      .send({ key, password: 'words after the loss' })
      .expect(204);
    await signIn(name, 'words after the loss').expect(204);
    await signIn(name, PASSWORD).expect(403);
  });

  test('a crew of a hundred comes in at once, and nobody who reads meanwhile waits for it', async () => {
    const { name, cookie } = await somebody('look', PASSWORD);
    const coming = Array.from({ length: 100 }, () => signIn(name, PASSWORD));
    const reads = await Promise.all(
      Array.from({ length: 50 }, () => asked(cookie, 'get', '/jobs').expect(200)),
    );
    expect(reads).toHaveLength(50);
    const all = await Promise.all(coming);
    expect(new Set(all.map(({ status }) => status))).toEqual(new Set([204]));
    await asked(cookie, 'post', '/me/sign-out').send({ from: 'everywhere' }).expect(204);
  });

  test('any characters make a password', async () => {
    await somebody('look', '!§$%&/()=?`´+*#');
  });

  test('neither passwords nor tokens are kept', async () => {
    const { id } = await somebody('look', PASSWORD);
    const { body } = await bench
      .call('post', '/programs')
      .send({ name: 'Collector', role: 'look', days: 1 })
      .expect(201);
    const kept = JSON.stringify(await bench.store.people.accounts());
    expect(kept).not.toContain(PASSWORD);
    expect(kept).not.toContain((body as { readonly token: string }).token);
    expect(kept).toContain('$argon2id$v=19$m=19456,t=2,p=1$');
    expect(JSON.stringify(await people())).not.toContain('argon2');
    expect((await people()).find((one) => one.id === id)?.hasPassword).toBe(true);
  });
});

test('whoever tries password after password is made to wait; where the person came in before, they still do', async () => {
  const { name } = await somebody('look', PASSWORD);
  await signIn(name, PASSWORD).expect(204);
  const { running } = bench;
  const from = '192.0.2.66';
  const tries = () => running.door.signIn(name, 'a wrong password', 'test', from);
  for (let one = 0; one < 10; one += 1)
    await expect(tries()).rejects.toMatchObject({ issues: [{ code: 'people.wrong' }] });
  await expect(tries()).rejects.toMatchObject({ issues: [{ code: 'door.slow' }] });
  await running.door.signIn(name, PASSWORD, 'test', '127.0.0.1');
});

test('names: nobody has another’s; two who say the same at their first decision are told apart', async () => {
  const [one, other] = [await somebody('look'), await somebody('look')];
  const taken = await asked(other.cookie, 'post', '/me').send({ name: one.name.toLowerCase() });
  expect([taken.status, codeOf(taken)]).toEqual([409, 'people.nameTaken']);
  await asked(other.cookie, 'post', '/me').send({ name: 'Ilse Brandt' }).expect(200);
  const cookie = cookieIn(
    await request(url)
      .post('/api/door')
      .send({ key: await keyFor('plan') })
      .expect(204),
  );
  const called = async () => ((await asked(cookie, 'get', '/me')).body as MeView).name;
  // Who looks has decided nothing yet.
  await asked(cookie, 'get', '/jobs').set('x-person', 'Ilse%20Brandt').expect(200);
  expect(await called()).toBe('');
  const decide = (name: string) => asked(cookie, 'post', '/jobs').set('x-person', name).send({});
  await decide('Ilse%20Brandt');
  expect(await called()).toBe('Ilse Brandt (2)');
  await decide('Somebody%20else');
  expect(await called()).toBe('Ilse Brandt (2)');
});

describe('an account that ends', () => {
  test('its browsers and streams end at once, also one that comes back later with what it kept', async () => {
    const { id, cookie } = await somebody('assign');
    await bench.call('delete', `/people/${id}`).expect(204);
    await asked(cookie, 'get', '/me').expect(401);
    await asked(cookie, 'post', `/jobs/${bench.job.id}/edits`).send({ edits: [] }).expect(401);
    await bench.call('delete', `/people/${id}`).expect(404);
    await bench.call('post', '/keys').send({ account: id }).expect(404);
  });

  test('a role that is taken away counts from the next thing that is asked', async () => {
    const { id, cookie } = await somebody('plan');
    const edit = () =>
      asked(cookie, 'post', `/jobs/${bench.job.id}/subnets`).send({
        ...{ name: 'Once', network: '10.78.0.0/24', purpose: '', gateway: null, vlan: null },
      });
    await edit().expect(201);
    await bench.call('post', `/people/${id}`).send({ role: 'look' }).expect(200);
    expect(codeOf(await edit().expect(403))).toBe('right.missing');
  });

  test('two keepers who remove each other at once: one stays', async () => {
    for (const { id, role } of await people())
      if (role === 'keep') await bench.call('post', `/people/${id}`).send({ role: 'look' });
    const [one, other] = [await somebody('keep'), await somebody('keep')];
    for (const { id, role } of await people())
      if (role === 'keep' && id !== one.id && id !== other.id)
        await bench.call('delete', `/people/${id}`).expect(204);
    const answers = await Promise.all([
      asked(one.cookie, 'delete', `/people/${other.id}`),
      asked(other.cookie, 'delete', `/people/${one.id}`),
    ]);
    const keepers = (await people()).filter(
      ({ role, kind }) => kind === 'person' && role === 'keep',
    );
    expect(keepers).toHaveLength(1);
    expect(answers.filter(({ status }) => status === 204)).toHaveLength(1);
    const last = keepers[0]?.id ?? '';
    expect(codeOf(await bench.call('delete', `/people/${last}`))).toBe('people.lastKeeper');
    const less = await bench.call('post', `/people/${last}`).send({ role: 'assign' });
    expect(codeOf(less)).toBe('people.lastKeeper');
  });
});

test('a program acts with its token as far as it may, under its name, and no longer once it is taken away', async () => {
  const { body } = await bench
    .call('post', '/programs')
    .send({ name: 'Night collector', role: 'look', days: 30 })
    .expect(201);
  const { id, token } = body as { readonly id: string; readonly token: string };
  const bearer = (method: 'get' | 'post', path: string, said = token) =>
    request(url)[method](`/api${path}`).set('authorization', `Bearer ${said}`);
  expect((await bearer('get', '/me').expect(200)).body).toMatchObject({ name: 'Night collector' });
  const edits = await bearer('post', `/jobs/${bench.job.id}/edits`).send({ edits: [], why: '' });
  expect(codeOf(edits)).toBe('right.missing');
  await bearer('get', '/me', `${token}x`).expect(401);
  await bench.call('delete', `/people/${id}`).expect(204);
  await bearer('get', '/me').expect(401);
});

test('a copy of a job that somebody else has does not let it be deleted; a keeper’s does', async () => {
  const name = `Copied ${Date.now()}`;
  const { path } = await bench.jobOf(name);
  await bench.call('post', `${path}/archive`).send({ archived: true }).expect(204);
  const remove = () => bench.call('post', `${path}/delete`).send({ name });
  for (const [role, then] of [
    ['plan', 'job.notWritten'],
    ['keep', undefined],
  ] as const) {
    const named = { name: `Copier ${role} ${Date.now()}`, role, days: 1 };
    const { body } = await bench.call('post', '/programs').send(named).expect(201);
    const { token } = body as { readonly token: string };
    const whole = request(url).get(`/api${path}/everything.zip`);
    await whole.set('authorization', `Bearer ${token}`).expect(200);
    const removed = await remove();
    expect([role, removed.status < 300 ? undefined : codeOf(removed)]).toEqual([role, then]);
  }
});

describe('the right to send', () => {
  const assigning = { name: 'x', browser: 'x', account: { id: '', role: 'assign' as Role } };

  /** A job whose wire is this adapter; undefined is a practice site. */
  const rightsOn = (adapter: string | undefined) =>
    rightsIn({
      people: bench.running.people,
      wires: { at: () => ({ adapter }) } as never,
    });

  test('is given apart, for a job and its adapter, and ends by itself; a practice site is nobody’s wire', async () => {
    const { id } = await somebody('assign');
    const actor = { ...assigning, account: { id, role: 'assign' as Role } };
    const { people: all } = bench.running;
    const job = bench.job.id;
    const may = (adapter: string | undefined, of = job) => {
      try {
        rightsOn(adapter).maySend(actor, of);
        return true;
      } catch (error) {
        expect(error).toMatchObject({ issues: [{ code: 'right.send' }] });
        return false;
      }
    };
    expect([may(undefined), may('eth0')]).toEqual([true, false]);
    await all.letSend(id, job, 'eth0', Date.now() + 60_000, 'Mara Quist');
    expect([may('eth0'), may('eth1'), may('eth0', NOBODY)]).toEqual([true, false, false]);
    await all.letSend(id, job, 'eth0', Date.now() - 1, 'Mara Quist');
    expect(may('eth0')).toBe(false);
    await all.letSend(id, job, 'eth0', Date.now() + 60_000, 'Mara Quist');
    await bench.call('post', `/jobs/${job}/wire/send/end`).send({ account: id }).expect(200);
    expect(may('eth0')).toBe(false);
  });

  test('an adapter is a keeper’s to choose; a practice site anybody’s who assigns', async () => {
    const { cookie } = await somebody('assign');
    const choose = (body: object) => asked(cookie, 'post', `/jobs/${bench.job.id}/wire`).send(body);
    const live = await choose({ kind: 'live', adapter: 'eth9' });
    expect([live.status, codeOf(live)]).toEqual([403, 'right.missing']);
    await choose({ kind: 'practice' }).expect(200);
  });
});
