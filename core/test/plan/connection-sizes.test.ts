import fc from 'fast-check';
import {
  endWithBytes,
  measureEnd,
  moduleBytes,
  offeredBytes,
  SHELF,
  type ConnectionEnd,
  type Device,
} from '../../src/plan';
import { connectionSnags } from '../../src/snags';
import { connection, STATION } from '../snags/world';

// Units, viewpoint and headers are common practice, no source.

const END: ConnectionEnd = connection().device;
const end = (fields: Partial<ConnectionEnd>): ConnectionEnd => ({ ...END, ...fields });

test.each<
  [what: string, end: ConnectionEnd, inBytes: number | undefined, outBytes: number | undefined]
>([
  ['90 words of 16 bits', end({ inSize: 90, outSize: 4, unitBits: '16' }), 180, 8],
  ['double words', end({ inSize: 3, outSize: 1, unitBits: '32' }), 12, 4],
  ['a header of 4', end({ inSize: 20, outSize: 12, headerBytes: 4 }), 16, 8],
  [
    'the device called in what the controller calls out',
    end({ inSize: 8, outSize: 16, viewpoint: 'device' }),
    16,
    8,
  ],
  ['nothing stated', end({ inSize: undefined, outSize: undefined }), undefined, undefined],
])('%s', (_what, stated, inBytes, outBytes) => {
  expect(measureEnd(stated)).toEqual({ inBytes, outBytes });
});

test('an end that is given bytes states at least them, and no whole unit more', () => {
  const ends = fc.record({
    unitBits: fc.constantFrom('8', '16', '32'),
    viewpoint: fc.constantFrom('controller', 'device'),
    headerBytes: fc.constantFrom(0, 2, 4),
  });
  fc.assert(
    fc.property(ends, fc.nat(500), fc.nat(500), (fields, inBytes, outBytes) => {
      const stated = measureEnd(
        endWithBytes(end(fields as Partial<ConnectionEnd>), { inBytes, outBytes }),
      );
      const unit = Number(fields.unitBits) / 8;
      for (const [have, need] of [
        [stated.inBytes ?? -1, inBytes],
        [stated.outBytes ?? -1, outBytes],
      ] as const)
        expect([have >= need, have - need < unit]).toEqual([true, true]);
    }),
  );
});

const KIND = SHELF.find(({ id }) => id === 'wendle-station-20');
if (!KIND) throw new Error('no station on the shelf');
const modules = (...titles: readonly string[]): Device['modules'] =>
  titles.map((title, slot) => ({ slot, title }));

test('a station is as large as its modules, rounded up to what its kind offers', () => {
  const station = { modules: modules('16 inputs', '16 outputs', 'counter', 'nobody knows') };
  expect(moduleBytes(station, KIND)).toEqual({ inBytes: 14, outBytes: 6 });
  expect(offeredBytes(station, KIND)).toEqual({ inBytes: 16, outBytes: 8 });
});

test.each<
  [what: string, inSize: number | undefined, outSize: number | undefined, rules: readonly string[]]
>([
  ['as the modules come to', 16, 8, []],
  ['one module less than there is', 8, 8, ['S-SIZE-UNITS']],
  ['nothing', undefined, undefined, []],
])(
  'a station that states no size is held by its modules against a project with %s',
  (_what, inSize, outSize, rules) => {
    const device: Device = {
      ...STATION,
      modules: modules('16 inputs', '16 outputs', 'counter'),
      connection: connection({ inSize: undefined, outSize: undefined }, { inSize, outSize }),
    };
    expect(connectionSnags({ device, kind: KIND }).map(({ rule }) => rule)).toEqual(rules);
  },
);
