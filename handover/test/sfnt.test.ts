import { readFileSync } from 'node:fs';
import * as fontkit from 'fontkit';
import { sfntOf } from '../src/parts/sfnt';

// Fonts as paper embeds them, held against fontkit's own reading of the same WOFF file.

const file = (name: string) => require.resolve(`@fontsource/${name}-normal.woff`);
const LETTERS = [...'AVTo Wäßfi0123456789.:-'];

test.each([
  ['atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400'],
  ['atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-ext-700'],
  ['atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-700'],
])('%s is the same font when it is unpacked', (name) => {
  const path = file(name);
  const packed = fontkit.openSync(path) as fontkit.Font;
  const plain = fontkit.create(sfntOf(readFileSync(path))) as fontkit.Font;
  expect(plain.postscriptName).toBe(packed.postscriptName);
  expect(plain.numGlyphs).toBe(packed.numGlyphs);
  for (const letter of LETTERS) {
    const [one, other] = [plain, packed].map((font) =>
      font.glyphForCodePoint(letter.codePointAt(0) ?? 0),
    );
    expect([letter, one?.id, one?.advanceWidth, one?.path.toSVG()]).toEqual([
      ...[letter, other?.id, other?.advanceWidth, other?.path.toSVG()],
    ]);
  }
});

test('letters stand one after the other, none moved to its neighbour', () => {
  const path = file('atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400');
  const font = fontkit.create(sfntOf(readFileSync(path))) as fontkit.Font;
  const { positions } = font.layout('AVATo');
  const widths = [...'AVATo'].map(
    (letter) => font.glyphForCodePoint(letter.codePointAt(0) ?? 0).advanceWidth,
  );
  expect(positions.map(({ xAdvance }) => xAdvance)).toEqual(widths);
});

test('what is no WOFF is refused', () => {
  expect(() => sfntOf(Buffer.from('wOF2 and more of it'))).toThrow('no WOFF 1.0');
});
