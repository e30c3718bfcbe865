import fc from 'fast-check';
import { cutInTheMiddle } from '../../src/names';
import { cases } from '../cases';

test.each([
  ['Drum filter drive 2', 20, 'Drum filter drive 2'],
  ['Tern Cove, second hall 12', 20, 'Tern Cove, secon… 12'],
  ['Controller, filter hall', 20, 'Controller, fi… hall'],
  ['abcdefghijklmnopqrstuvwxyz', 12, 'ab… stuvwxyz'],
  ['🟦🟦🟦🟦🟦🟦 7', 6, '🟦🟦🟦… 7'],
  ['', 5, ''],
])('%s in %d letters: %s', (text, most, cut) => {
  expect(cutInTheMiddle(text, most)).toBe(cut);
});

test('it has room, and ends as the name does', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme' }), fc.integer({ min: 10, max: 40 }), (text, most) => {
      const cut = cutInTheMiddle(text, most);
      expect([...cut].length).toBeLessThanOrEqual(most);
      expect(text.endsWith(cut.split('… ').at(-1) ?? '')).toBe(true);
    }),
    { numRuns: cases(100) },
  );
});
