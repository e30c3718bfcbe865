import type { TextStyle } from 'react-native';

export const WORDS = 'Next';
export const FIGURES = 'Mono';

const words = (size: number, line: number, weight: TextStyle['fontWeight']): TextStyle => ({
  fontFamily: WORDS,
  fontSize: size,
  lineHeight: line,
  fontWeight: weight,
});

/** The sizes of words. Addresses and MACs have their own parts. */
export const TYPE = {
  title: words(27, 32, '700'),
  device: words(21, 27, '600'),
  strong: words(17, 24, '600'),
  body: words(17, 24, '400'),
  second: words(15, 21, '400'),
  caption: words(13, 18, '500'),
} as const;

export type TypeSize = keyof typeof TYPE;

/** Steps of distance, in points. */
export const SPACE = { tight: 4, small: 8, medium: 12, page: 16, wide: 24 } as const;

/** The least a thumb in a glove can hit. */
export const TOUCH = 48;

/** From this width on, list and detail stand side by side. */
export const WIDE = 1000;
