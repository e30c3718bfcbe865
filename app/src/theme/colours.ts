/** What is read stands at 7 : 1 at least on what it stands on (WCAG 2.2, 1.4.6): in the sun, and behind scratched glass. */
export interface Colours {
  readonly ground: string;
  readonly surface: string;
  readonly line: string;
  readonly ink: string;
  /** Second line. */
  readonly second: string;
  /** What can be pressed, and "something may be sent". */
  readonly plum: string;
  readonly onPlum: string;
  readonly ochre: string;
  readonly ochreGround: string;
  readonly brick: string;
  readonly brickGround: string;
  readonly moss: string;
  readonly mossGround: string;
  /** A button that cannot be pressed yet. */
  readonly idle: string;
  readonly onIdle: string;
}

export const DAY: Colours = {
  ground: '#F4EFE4',
  surface: '#FFFCF5',
  line: '#D9D0BD',
  ink: '#1B1A17',
  second: '#484439',
  plum: '#5E2750',
  onPlum: '#FFFCF5',
  ochre: '#6A3F00',
  ochreGround: '#F6E3BC',
  brick: '#82251A',
  brickGround: '#F6DAD3',
  moss: '#32511E',
  mossGround: '#DFE9D1',
  idle: '#E4DCCB',
  onIdle: '#484439',
};

export const NIGHT: Colours = {
  ground: '#14130F',
  surface: '#1E1C17',
  line: '#3C382E',
  ink: '#F2ECDD',
  second: '#C1B9A7',
  plum: '#D9A6CB',
  onPlum: '#14130F',
  ochre: '#E9B351',
  ochreGround: '#3A2C10',
  brick: '#F29B88',
  brickGround: '#3D1C16',
  moss: '#A5CC7C',
  mossGround: '#22301A',
  idle: '#2B271F',
  onIdle: '#C1B9A7',
};
