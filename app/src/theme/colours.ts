export interface Colours {
  readonly ground: string;
  readonly surface: string;
  readonly line: string;
  readonly ink: string;
  /** Second line; still at least 4.5:1 on ground and surface. */
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
  second: '#5B5548',
  plum: '#5E2750',
  onPlum: '#FFFCF5',
  ochre: '#8A5200',
  ochreGround: '#F6E3BC',
  brick: '#9B2C1F',
  brickGround: '#F6DAD3',
  moss: '#3B6023',
  mossGround: '#DFE9D1',
  idle: '#E4DCCB',
  onIdle: '#5B5548',
};

export const NIGHT: Colours = {
  ground: '#14130F',
  surface: '#1E1C17',
  line: '#3C382E',
  ink: '#F2ECDD',
  second: '#B9B09C',
  plum: '#D9A6CB',
  onPlum: '#14130F',
  ochre: '#E8B04B',
  ochreGround: '#3A2C10',
  brick: '#F08A74',
  brickGround: '#3D1C16',
  moss: '#A5CC7C',
  mossGround: '#22301A',
  idle: '#302C24',
  onIdle: '#B9B09C',
};
