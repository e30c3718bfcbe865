import Ajv2020 from 'ajv/dist/2020';
import {
  choice,
  either,
  flag,
  list,
  object,
  orNull,
  said,
  type Schema,
  text,
  thingId,
  uuid,
  whole,
} from '../src';

// Each form against Ajv (JSON Schema 2020-12): what fits and what does not.

const ajv = new Ajv2020({ formats: { uuid: /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i } });

const point = object({ x: whole(0, 9) }, { name: text(3) });

test.each<[string, Schema, readonly unknown[], readonly unknown[]]>([
  ['a text', text(3), ['', 'abc'], ['abcd', 1, null]],
  ['what is said', said(5), ['a', 'a b'], ['', ' a', 'a ', ' ', 'abcdef']],
  ['an id that the server gave', uuid, ['5e0c8a0e-0000-4000-8000-00005300aa01'], ['x', 1]],
  ['the id of a thing', thingId, ['a.b:c-1'], ['', 'a b', "1' or '1", 'x'.repeat(81)]],
  ['a whole number', whole(1, 4094), [1, 4094], [0, 4095, 1.5, '1']],
  ['one of several words', choice('a', 'b'), ['a'], ['c', 1]],
  ['what may be null', orNull(text(3)), [null, 'abc'], ['abcd', 1]],
  ['a list', list(flag, 2, 1), [[true], [true, false]], [[], [1], [true, true, true]]],
  [
    'an object',
    point,
    [{ x: 1 }, { x: 1, name: 'a' }],
    [{}, { x: 1, y: 2 }, { x: 1, name: 7 }, []],
  ],
  ['one of two', either(point, text(1)), [{ x: 0 }, 'a'], [{ x: -1 }, 'ab']],
])('%s', (_what, schema, good, bad) => {
  const check = ajv.compile(schema);
  expect([...good, ...bad].map((one) => check(one))).toEqual([
    ...good.map(() => true),
    ...bad.map(() => false),
  ]);
});
