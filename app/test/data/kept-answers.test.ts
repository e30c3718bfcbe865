import 'fake-indexeddb/auto';
import { forgetAnswers, keepAnswer, keepStep, keptAnswer } from '../../src/data/kept-answers';

// What the server answered last, in the browser's own database.

const never = (): string => {
  throw new Error('not asked for');
};

test('an answer is kept with what has changed since, and a new one in its place without', async () => {
  await keepAnswer('/plan', '{"revision":3}');
  await keepStep('/plan', { revision: 4 }, never);
  await keepStep('/plan', { revision: 5 }, never);
  expect(await keptAnswer('/plan')).toMatchObject({
    text: '{"revision":3}',
    steps: [{ revision: 4 }, { revision: 5 }],
  });
  await keepAnswer('/plan', '{"revision":5}');
  expect((await keptAnswer('/plan'))?.steps).toEqual([]);
});

test('what was never answered has no changes, and nothing is left once it is forgotten', async () => {
  await keepStep('/other', { revision: 1 }, never);
  expect(await keptAnswer('/other')).toBeUndefined();
  await keepAnswer('/other', '1');
  await forgetAnswers();
  expect(await keptAnswer('/other')).toBeUndefined();
});

test('behind a thousand steps it is written anew, and nothing is between the two', async () => {
  await keepAnswer('/long', '0');
  for (let step = 1; step <= 1001; step += 1) await keepStep('/long', step, () => String(step));
  expect(await keptAnswer('/long')).toMatchObject({ text: '1000', steps: [1001] });
}, 30_000);
