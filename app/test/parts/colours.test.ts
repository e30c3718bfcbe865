import { DAY, NIGHT, type Colours } from '../../src/theme/colours';

// WCAG 2.2, 1.4.6: seven to one, for everything that is read, on everything it stands on.

/** Relative luminance (WCAG 2.2). @param hex `#rrggbb` */
function luminance(hex: string): number {
  const [r = 0, g = 0, b = 0] = [1, 3, 5].map((at) => {
    const part = parseInt(hex.slice(at, at + 2), 16) / 255;
    return part <= 0.03928 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

function contrast(one: string, other: string): number {
  const [dark = 0, light = 0] = [luminance(one), luminance(other)].sort((a, b) => a - b);
  return (light + 0.05) / (dark + 0.05);
}

test('the measure itself: black on white, and a pair of the standard', () => {
  expect(contrast('#000000', '#FFFFFF')).toBeCloseTo(21, 5);
  // Understanding SC 1.4.3: #767676 is the lightest grey on white that has 4.5 : 1.
  expect(contrast('#767676', '#FFFFFF')).toBeCloseTo(4.54, 2);
});

const ON: Readonly<Record<string, readonly (keyof Colours)[]>> = {
  ink: ['ground', 'surface', 'idle', 'ochreGround', 'brickGround', 'mossGround'],
  second: ['ground', 'surface', 'idle'],
  plum: ['ground', 'surface', 'idle'],
  onPlum: ['plum'],
  ochre: ['ground', 'surface', 'ochreGround'],
  brick: ['ground', 'surface', 'brickGround'],
  moss: ['ground', 'surface', 'mossGround'],
  onIdle: ['idle'],
};

describe.each([
  ['by day', DAY],
  ['by night', NIGHT],
] as const)('%s', (_when, colours) => {
  const pairs = Object.entries(ON).flatMap(([what, on]) =>
    on.map((ground) => [what as keyof Colours, ground] as const),
  );
  test.each(pairs)('%s on %s', (what, ground) => {
    expect(contrast(colours[what], colours[ground])).toBeGreaterThanOrEqual(7);
  });
});
