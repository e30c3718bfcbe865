import {
  decodeWith,
  encodeWith,
  identification,
  realModules,
  RECORD,
  recordAnswer,
  recordQuestion,
  type RecordAnswer,
} from '@ipsonomo/core/wire';
import { askStation } from '../../src/engine/proof/talk-station';

// R-MODULES: a station asked for its records, and everything that may come back instead of them.

const STATION = { vendor: 1022, device: 8 };
const WHO = encodeWith(identification, {
  ...{ vendor: 1022, orderNumber: 'EB-8', serial: 'S1', hardware: 2, software: ['V', 3, 1, 4] },
});
const PLUGGED = encodeWith(realModules, [{ slot: 1, ident: 0x21, submodules: [] }]);

type Spoil = (answer: RecordAnswer) => RecordAnswer;
const same: Spoil = (answer) => answer;

/** Answers as a station does, but for what `spoil` makes of it. */
const asking =
  (spoil: Spoil, cut = 0) =>
  (call: Uint8Array): Promise<Uint8Array | string> => {
    const question = decodeWith(recordQuestion, call);
    const data = question.index === RECORD.modules ? PLUGGED : WHO;
    const bytes = encodeWith(recordAnswer, spoil({ ...question, status: 0, data }));
    return Promise.resolve(bytes.subarray(0, bytes.length - cut));
  };

test('who it is and what is plugged in', async () => {
  expect(await askStation(asking(same), STATION)).toEqual({
    said: {
      ...{ by: 'PROFINET', identity: undefined, product: 'EB-8', orderNumber: 'EB-8' },
      ...{ serial: 'S1', revision: '3.1.4', hardware: '2', connection: undefined },
    },
    modules: [{ slot: 1, ident: 0x21, name: '' }],
  });
});

const nothing = { said: undefined, modules: undefined };

test.each<[string, (call: Uint8Array) => Promise<Uint8Array | string>, object]>([
  ['nobody answers', () => Promise.resolve('silent'), nothing],
  ['no right to ask', () => Promise.resolve('no-right'), nothing],
  ['it refuses', asking((answer) => ({ ...answer, status: 0xde80b000 })), nothing],
  [
    'a late answer to another question',
    asking((answer) => ({ ...answer, activity: new Uint8Array(16) })),
    nothing,
  ],
  ['an answer that ends in the middle', asking(same, 9), nothing],
  ['something else altogether', () => Promise.resolve(Uint8Array.of(4, 3, 0)), nothing],
  [
    'a record of another kind',
    asking((answer) => ({ ...answer, data: Uint8Array.of(0, 0x99, 0, 2, 1, 0) })),
    nothing,
  ],
  [
    'it refuses to tell its modules only',
    asking((one) => (one.index === RECORD.modules ? { ...one, status: 1 } : one)),
    { modules: undefined },
  ],
])('%s', async (_name, ask, wanted) => {
  expect(await askStation(ask, STATION)).toMatchObject(wanted);
});

test('who is silent is not asked a second time', async () => {
  let asked = 0;
  await askStation(() => {
    asked += 1;
    return Promise.resolve('silent');
  }, STATION);
  expect(asked).toBe(1);
});
