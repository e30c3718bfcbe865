import fc from 'fast-check';
import { rawText, unwritable, visibleText } from '../../src/names';
import { cases } from '../cases';

// Any text that a device, a file or a header may bring: it can be stored, and comes back as it was.

/** UTF-16 as it may come, halves of characters included. */
const anyText = fc
  .array(fc.oneof(fc.nat(0xffff), fc.constantFrom(0, 0x5c, 0x78, 0x30, 0xd800, 0xdc00)), {
    maxLength: 30,
  })
  .map((units) => String.fromCharCode(...units));

test('what is made visible can be written, and nothing of it is lost', () => {
  fc.assert(
    fc.property(anyText, (text) => {
      const visible = visibleText(text);
      expect(unwritable(visible)).toBeUndefined();
      // As strict as a database: no half of a character survives a trip through UTF-8.
      expect(Buffer.from(visible, 'utf8').toString('utf8')).toBe(visible);
      expect(rawText(visible)).toBe(text);
    }),
    { numRuns: cases(2000), seed: 4627 },
  );
});

test.each([
  ['winch-b', 'winch-b'],
  ['Förderer 2', 'Förderer 2'],
  ['a\0b', 'a\\x00b'],
  ['a\u0085b', 'a\\x85b'],
  ['\ud800', '\\uD800'],
  ['C:\\x\\y', 'C:\\x\\y'],
  ['\\x00', '\\x5Cx00'],
])('%j is seen as %s', (text, visible) => {
  expect(visibleText(text)).toBe(visible);
});

test.each([
  ['one\ntwo\tthree\r\n', undefined],
  ['a\0b', { misfit: 'control', sign: '\\x00', place: 2 }],
  ['\udc00', { misfit: 'half-character', sign: '\\uDC00', place: 1 }],
])('%j: %j', (text, why) => {
  expect(unwritable(text)).toEqual(why);
});
