import fc from 'fast-check';
import { cases } from '../../../core/test/cases';
import { isLong, jsonBytes, jsonPieces } from '../../src/http/json-pieces';

const many = <T>(value: T, count = 2345): readonly T[] =>
  Array.from({ length: count }, () => value);
const table = (count: number, value: unknown) =>
  Object.fromEntries(Array.from({ length: count }, (_, at) => [`d${at}`, value]));

const LONG_ANSWERS: readonly (readonly [string, unknown])[] = [
  ['a list', many({ id: 'a"b', at: 1 })],
  ['a list with what JSON cannot say', many(undefined)],
  ['a list inside', { id: 'j', things: { device: many({ id: 'ö' }), cable: [] }, gone: undefined }],
  ['a table', table(2345, { stage: 'planned' })],
  ['a table whose first part says nothing', { ...table(600, undefined), ...table(1200, 1) }],
  ['a table inside', { mark: 'a-1', seen: table(1000, null), isWhole: true }],
  ['a time beside it', { at: new Date(0), list: many(new Date(1)) }],
  ['numbers as names', Object.fromEntries(many(0).map((_, at) => [String(9000 - at), at]))],
];

describe('a long answer', () => {
  test.each(LONG_ANSWERS)('%s is written in pieces to the text it would be', (_, answer) => {
    const pieces = [...jsonPieces(answer)];
    expect(isLong(answer)).toBe(true);
    expect(pieces.join('')).toBe(JSON.stringify(answer));
    expect(pieces.length).toBeGreaterThan(1);
  });

  test('a table that says nothing is an empty one', () => {
    expect([...jsonPieces(table(1000, undefined))]).toEqual(['{}']);
  });

  test('whatever is in it', () => {
    fc.assert(
      fc.property(
        fc.json().map((text) => JSON.parse(text) as unknown),
        fc.string(),
        (one, name) => {
          const answer = { before: one, [name]: many(one, 1001), after: [one] };
          expect([...jsonPieces(answer)].join('')).toBe(JSON.stringify(answer));
        },
      ),
      { numRuns: cases(40) },
    );
  });

  test.each([[[1, 2]], [{ id: 'a' }], [null], ['text'], [many(1, 999)]])(
    'what is short is one text',
    (answer) => {
      expect(isLong(answer)).toBe(false);
      expect([...jsonPieces(answer)]).toEqual([JSON.stringify(answer)]);
    },
  );

  test('others have their turn between the pieces', async () => {
    let others = 0;
    let pieces = 0;
    let next = setImmediate(function again() {
      others += 1;
      next = setImmediate(again);
    });
    for await (const piece of jsonBytes(many({ id: 'x' }, 5000))) pieces += Math.sign(piece.length);
    clearImmediate(next);
    expect(others).toBeGreaterThanOrEqual(pieces - 1);
  });
});
