import 'fake-indexeddb/auto';
import { forgetAnswers, keepAnswer, keepStep, keptAnswer } from '../../src/data/kept-answers';

// What the server answered last, in the browser's own database.

test('an answer is kept with what has changed since, and a new one in its place without', async () => {
  await keepAnswer('/plan', '{"revision":3}');
  await keepStep('/plan', { revision: 4 });
  await keepStep('/plan', { revision: 5 });
  expect(await keptAnswer('/plan')).toMatchObject({
    text: '{"revision":3}',
    steps: [{ revision: 4 }, { revision: 5 }],
  });
  await keepAnswer('/plan', '{"revision":5}');
  expect((await keptAnswer('/plan'))?.steps).toEqual([]);
});

test('what was never answered has no changes, and nothing is left once it is forgotten', async () => {
  await keepStep('/other', { revision: 1 });
  expect(await keptAnswer('/other')).toBeUndefined();
  await keepAnswer('/other', '1');
  await forgetAnswers();
  expect(await keptAnswer('/other')).toBeUndefined();
});
