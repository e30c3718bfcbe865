import request from 'supertest';
import type { PlanView, TakenCallView } from '@ipsonomo/core/api';
import { ApiBench, device } from './api-bench';

// R-AT-IT: who is at which device.

let bench: ApiBench;

beforeAll(async () => {
  bench = await ApiBench.open('taken_calls');
}, 30_000);

afterAll(async () => {
  await bench.close();
  expect(bench.logged).toEqual([]);
});

/** Somebody with an account of their own, in a browser. */
async function somebody(name: string) {
  const cookie = await bench.cookie();
  const ask = (method: 'get' | 'post' | 'delete', path: string, body?: object) =>
    request(bench.webUrl)
      [method](`/api${path}`)
      .set({ cookie, 'x-person': encodeURIComponent(name) })
      .send(body);
  const see = async (path: string) =>
    (await ask('get', `${path}/taken-calls`).expect(200)).body as readonly TakenCallView[];
  return { ask, see };
}

async function oneDevice(name: string) {
  const { path, subnetId } = await bench.jobOf(name);
  await bench.add(path, device({ subnetId, address: '10.9.0.100', name: 'vb-100' }));
  const { things } = (await bench.call('get', `${path}/plan`).expect(200)).body as PlanView;
  return { path, at: `${path}/interfaces/${things.interface[0]?.id}` };
}

test('the first who acts at a device is at it; the second sees who, and takes it over with a word', async () => {
  const { path, at } = await oneDevice('Two at one');
  const mara = await somebody('Mara Quist');
  const ilse = await somebody('Ilse Brandt');
  await mara.ask('post', `${at}/said-kept`).expect(204);
  const seen = await until(
    () => ilse.see(path),
    (all) => all.length === 1,
  );
  expect(seen[0]).toMatchObject({ person: 'Mara Quist', isOwn: false, takenFrom: null });
  expect((await mara.see(path))[0]?.isOwn).toBe(true);
  const quarter = (seen[0]?.until ?? 0) - Date.now();
  expect(Math.abs(quarter - 15 * 60_000)).toBeLessThan(60_000);

  // To act there takes nothing from her, and is refused to nobody.
  await ilse.ask('post', `${at}/said-given`).expect(204);
  expect((await ilse.see(path))[0]?.person).toBe('Mara Quist');
  const refused = await ilse.ask('post', `${at}/taken`, {}).expect(409);
  expect(refused.body.issues[0]).toMatchObject({
    code: 'call.taken',
    facts: { person: 'Mara Quist' },
  });
  await ilse.ask('post', `${at}/taken`, { word: 'I have its key' }).expect(204);
  expect((await mara.see(path))[0]).toMatchObject({
    ...{ person: 'Ilse Brandt', isOwn: false },
    takenFrom: { person: 'Mara Quist', isMe: true, word: 'I have its key' },
  });
});

test('of ten who come at once, one is at it', async () => {
  const { path, at } = await oneDevice('Ten at once');
  const crew = await Promise.all(Array.from({ length: 10 }, (_, n) => somebody(`Person ${n}`)));
  const answers = await Promise.all(crew.map(({ ask }) => ask('post', `${at}/taken`, {})));
  const statuses = answers.map(({ status }) => status).sort();
  expect(statuses).toEqual([204, ...Array.from({ length: 9 }, () => 409)]);
  expect(await crew[0]?.see(path)).toHaveLength(1);
});

test('who leaves is at it no longer, and nobody leaves for another', async () => {
  const { path, at } = await oneDevice('Leaving');
  const [mara, ilse] = [await somebody('Mara Quist'), await somebody('Ilse Brandt')];
  await mara.ask('post', `${at}/taken`, {}).expect(204);
  await ilse.ask('delete', `${at}/taken`).expect(204);
  expect(await mara.see(path)).toHaveLength(1);
  await mara.ask('delete', `${at}/taken`).expect(204);
  expect(await mara.see(path)).toEqual([]);
});

test('a script is at no device, and there is none that is not planned', async () => {
  const { path, at } = await oneDevice('A script');
  await bench.call('post', `${at}/said-kept`).send({}).expect(204);
  expect((await bench.call('get', `${path}/taken-calls`).expect(200)).body).toEqual([]);
  await bench.call('post', `${path}/interfaces/nowhere/taken`).send({}).expect(404);
});

/** Who is at it is noted after the answer. */
async function until<T>(look: () => Promise<T>, holds: (value: T) => boolean): Promise<T> {
  for (let time = 0; ; time += 1) {
    const value = await look();
    if (holds(value) || time > 200) return value;
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
}
