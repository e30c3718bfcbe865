import { get, type IncomingMessage } from 'node:http';
import request from 'supertest';
import type {
  CabinetView,
  FieldView,
  JobNews,
  MeView,
  PlanView,
  RunView,
  ServersView,
  SilencedView,
  TakenCallView,
} from '@ipsonomo/core/api';
import { ApiBench, device, subnet } from './api-bench';

// R-SERVERS: two servers, each with wires of its own, on one database. What is done at one is told at the other, and
// nothing of one ends what is the other's.

let [hall, tower]: ApiBench[] = [];
beforeAll(async () => {
  hall = await ApiBench.open('two_servers', 10);
  tower = await ApiBench.beside(hall, 10);
}, 60_000);
afterAll(async () => {
  await tower?.close();
  await hall?.close();
});

const at = (which: 'hall' | 'tower'): ApiBench => {
  const bench = which === 'hall' ? hall : tower;
  if (!bench) throw new Error('not open');
  return bench;
};
const post = (which: 'hall' | 'tower', path: string, body: object = {}) =>
  at(which).call('post', path).send(body);
const read = async <T>(which: 'hall' | 'tower', path: string): Promise<T> =>
  (await at(which).call('get', path).expect(200)).body as T;

async function until<T>(what: string, look: () => Promise<T | undefined | false>): Promise<T> {
  const end = Date.now() + 20_000;
  for (;;) {
    const found = await look();
    if (found) return found;
    if (Date.now() > end) throw new Error(`waited in vain: ${what}`);
    await new Promise((resolve) => setTimeout(resolve, 10));
  }
}

/** What a page of a server is told. */
class Stream {
  private text = '';
  private constructor(private readonly answer: IncomingMessage) {
    answer.setEncoding('utf8').on('data', (part: string) => (this.text += part));
  }

  static async open(which: 'hall' | 'tower'): Promise<Stream> {
    const cookie = await at(which).cookie();
    return new Promise((resolve) => {
      get(`${at(which).webUrl}/api/events`, { headers: { cookie } }, (answer) =>
        resolve(new Stream(answer)),
      );
    });
  }

  get hasEnded(): boolean {
    return this.answer.complete || this.answer.destroyed;
  }

  told<T>(name: string): readonly T[] {
    return [
      ...this.text.matchAll(new RegExp(`event: ${name}\\n(?:id: .*\\n)?data: (.*)\\n`, 'g')),
    ].map(([, data]) => JSON.parse(data ?? '') as T);
  }

  close(): void {
    this.answer.destroy();
  }
}

test('what is planned at one stands at the other at once, with what was changed', async () => {
  const pages = await Stream.open('tower');
  const { path } = await at('hall').jobOf(`Two halls ${Date.now()}`);
  const wanted = subnet({ network: '10.31.0.0/24', name: 'Tower' });
  await post('hall', `${path}/subnets`, wanted).expect(201);
  const news = await until('the news', () =>
    Promise.resolve(
      pages
        .told<JobNews>('job')
        .find(({ jobId, revision }) => path.endsWith(jobId) && revision === 2),
    ),
  );
  expect(news.made).toMatchObject({ person: 'Mara Quist' });
  expect(news.made?.edits).toHaveLength(1);
  const plan = await read<PlanView>('tower', `${path}/plan`);
  expect(plan).toMatchObject({ revision: 2 });
  // And the other way round, each field of one thing from one of them.
  await post('tower', `${path}/subnets`, subnet({ network: '10.32.0.0/24' })).expect(201);
  expect((await read<PlanView>('hall', `${path}/plan`)).revision).toBe(3);
  pages.close();
});

test('the wire of one knows what is bound at the other before it answers again', async () => {
  const { path, subnetId } = await at('hall').jobOf(`Bound elsewhere ${Date.now()}`);
  await at('hall').add(path, device({ subnetId, address: '10.9.0.20' }));
  await post('tower', `${path}/wire`, { kind: 'practice' }).expect(200);
  await post('tower', `${path}/wire/arm`, { minutes: 5 }).expect(200);
  const answers = async () => (await read<FieldView>('tower', `${path}/wire`)).answers;
  expect(await answers()).toBe(0);
  const { devices } = await at('hall').view(path);
  const id = devices[0]?.interfaces[0]?.id ?? '';
  await post('hall', `${path}/interfaces/${id}/bind`, {
    mac: '02:00:5e:00:53:77',
    label: '02005E005377',
  }).expect(204);
  await until('the wire of the tower answers it', async () => (await answers()) === 1);
  // The hall has no wire for the job, and sees who has.
  expect(await read<FieldView>('hall', `${path}/wire`)).toMatchObject({ source: null });
  const other = await until('the wire of the tower', async () => {
    const { servers } = await read<ServersView>('hall', '/servers');
    return servers
      .find(({ isOwn }) => !isOwn)
      ?.wires.find(({ jobId, answeringUntil }) => path.endsWith(jobId) && answeringUntil);
  });
  expect(other).toMatchObject({ source: 'practice', person: 'Mara Quist' });
});

test('a start of one ends no run of the other', async () => {
  const running = async () =>
    (await read<readonly FieldView[]>('tower', '/wires')).filter(({ runId }) => runId !== null);
  expect(await running()).not.toHaveLength(0);
  const third = await ApiBench.beside(at('hall'));
  for (const { jobId, runId } of await running())
    expect(
      (await read<readonly RunView[]>('tower', `/jobs/${jobId}/runs`)).find(
        ({ id }) => id === runId,
      ),
    ).toMatchObject({ endedAt: null });
  await third.close();
  await until('the others know that it ended', async () => {
    const { servers } = await read<ServersView>('hall', '/servers');
    const states = servers.map(({ state }) => state);
    return states.filter((one) => one === 'there').length === 2 && states.includes('ended');
  });
});

test('fall silent everywhere: the others do, say so, and tell their people who asked', async () => {
  const answering = async () =>
    (await read<readonly FieldView[]>('tower', '/wires')).some(
      ({ answeringUntil }) => answeringUntil,
    );
  expect(await answering()).toBe(true);
  const { servers } = (await post('hall', '/silence/everywhere').expect(200)).body as SilencedView;
  expect(servers.map(({ isSilent }) => isSilent)).toEqual([true, true]);
  expect(await answering()).toBe(false);
  const [wire] = await read<readonly FieldView[]>('tower', '/wires');
  expect(wire?.notices.map(({ code, facts }) => [code, facts])).toContainEqual([
    'silenced-from',
    { by: 'Mara Quist', from: 'Hall 1' },
  ]);
});

test('it is called what people call it, everywhere', async () => {
  await post('hall', '/servers/own', { name: 'Tower, level 3' }).expect(200);
  await until('its name at the other', async () =>
    (await read<ServersView>('tower', '/servers')).servers.some(
      ({ name, isOwn }) => name === 'Tower, level 3' && !isOwn,
    ),
  );
});

test('who is let in at one is let in at the other; shut out at one, their page at the other ends', async () => {
  // A browser keeps its cookies by the port they came from; what stands in it is the same.
  const port = new URL(at('tower').webUrl).port;
  const cookie = (await at('hall').cookie()).replace(/^ipsonomo-\d+/, `ipsonomo-${port}`);
  const me = () => request(at('tower').webUrl).get('/api/me').set('cookie', cookie);
  const { body } = await until('known at the other', async () => {
    const answer = await me();
    return answer.status === 200 && answer;
  });
  const { id } = body as MeView;
  const pages = await new Promise<IncomingMessage>((resolve) => {
    get(`${at('tower').webUrl}/api/events`, { headers: { cookie } }, resolve);
  });
  let isOver = false;
  pages.resume().on('close', () => (isOver = true));
  await post('hall', `/people/${id ?? ''}`, { role: 'look' }).expect(200);
  await until('their role at the other', async () => ((await me()).body as MeView).role === 'look');
  await at('hall')
    .call('delete', `/people/${id ?? ''}`)
    .expect(204);
  await until('shut out', async () => (await me()).status === 401);
  await until('the page ended', () => Promise.resolve(isOver));
});

test('of two who come with one key at once, through two servers, one comes in', async () => {
  for (let turn = 0; turn < 10; turn += 1) {
    const { key } = (await post('hall', '/keys', { role: 'plan' }).expect(201)).body as {
      key: string;
    };
    const enter = (which: 'hall' | 'tower') =>
      request(at(which).webUrl).post('/api/door').send({ key });
    // A key is known where it was made at once, and elsewhere as soon as it is told.
    if (turn > 0) await new Promise((resolve) => setTimeout(resolve, turn * 5));
    const both = await Promise.all([enter('hall'), enter('tower')]);
    expect(both.filter(({ status }) => status === 204)).toHaveLength(1);
  }
});

test('who is at a device is seen at the other, and that it is a rehearsal', async () => {
  const { path, subnetId } = await at('hall').jobOf(`At it ${Date.now()}`);
  await at('hall').add(path, device({ subnetId, address: '10.9.0.30' }));
  const { devices } = await at('hall').view(path);
  const id = devices[0]?.interfaces[0]?.id ?? '';
  const pages = await Stream.open('tower');
  await post('hall', `${path}/interfaces/${id}/taken`, {});
  await until('told', () =>
    Promise.resolve(pages.told<JobNews>('job').some(({ jobId }) => path.endsWith(jobId))),
  );
  const [call] = await read<readonly TakenCallView[]>('tower', `${path}/taken-calls`);
  expect(call).toMatchObject({ interface: id, person: 'Mara Quist' });
  const made = await post('hall', `${path}/rehearsals`, { wish: { kind: 'chosen', which: [] } });
  const { id: rehearsal } = made.body as { id: string };
  // At once, before any news of it can have come.
  const chosen = await post('tower', `/jobs/${rehearsal}/wire`, { kind: 'practice' }).expect(200);
  expect(chosen.body).toMatchObject({ source: 'rehearsal' });
  const cabinet = await read<CabinetView>('tower', `/jobs/${rehearsal}/practice/cabinet`);
  expect(cabinet.devices.map((one) => one.title)).toEqual(['Valve block']);
  pages.close();
});

test('a job that is deleted at one is gone at the other, with its wire', async () => {
  const name = `To go ${Date.now()}`;
  const { path } = await at('hall').jobOf(name);
  await post('tower', `${path}/wire`, { kind: 'practice' }).expect(200);
  await post('hall', `${path}/archive`, { archived: true }).expect(204);
  await at('hall').call('get', `${path}/everything.zip`).expect(200);
  await post('hall', `${path}/delete`, { name }).expect(204);
  await until('gone', async () => (await at('tower').call('get', `${path}/plan`)).status === 404);
  await until('its wire', async () =>
    (await read<readonly FieldView[]>('tower', '/wires')).every(
      ({ jobId }) => !path.endsWith(jobId),
    ),
  );
});
