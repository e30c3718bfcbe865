import { LANGUAGE, messages } from '../src/message';
import { pseudoOf } from '../src/pseudo';

// Plural categories of English by CLDR (one, other), as Node's own Intl has them; ICU MessageFormat by its guide.

const SAID = messages({
  plain: 'Nothing was heard',
  fact: '{name} is at {address}.',
  count: '{count, plural, =0 {no device} one {# device} other {# devices}}',
  choice: '{isOn, select, true {on} other {off}}: {name}',
  both: '{bad, plural, one {# device of {all}} other {# devices of {all}}}',
});

test('a message is a text, or is asked with the facts its text names', () => {
  expect(SAID.plain).toBe('Nothing was heard');
  expect(SAID.fact({ name: 'Pump', address: '10.0.0.1' })).toBe('Pump is at 10.0.0.1.');
  expect(SAID.choice({ isOn: true, name: 'DIP' })).toBe('on: DIP');
  expect(SAID.choice({ isOn: false, name: 'DIP' })).toBe('off: DIP');
  // @ts-expect-error a fact lacks
  expect(SAID.fact({ name: 'Pump' })).toBe('Pump is at ….');
  // @ts-expect-error a fact too many
  SAID.fact({ name: 'Pump', address: '10.0.0.1', mask: '/24' });
  // @ts-expect-error a plural takes a number
  SAID.count({ count: '2' });
  // @ts-expect-error a text is not asked
  expect(() => SAID.plain({})).toThrow();
});

test.each([0, 1, 2, 21, 5000])('%d devices are counted as CLDR says', (count) => {
  const one = new Intl.PluralRules(LANGUAGE).select(count) === 'one';
  const counted = `${count} ${one ? 'device' : 'devices'}`;
  expect(SAID.count({ count })).toBe(count === 0 ? 'no device' : counted);
  expect(SAID.both({ bad: count, all: 9000 })).toBe(`${counted} of 9000`);
});

test('the pseudo-language has no letter of the alphabet and is longer by 40 %', () => {
  const text =
    'The quick brown fox jumps over the lazy dog, PACK MY BOX WITH FIVE DOZEN LIQUOR JUGS';
  expect(pseudoOf(text)).not.toMatch(/[A-Za-z]/);
  expect([...pseudoOf(text)].length / text.length).toBeCloseTo(1.4, 1);
});
