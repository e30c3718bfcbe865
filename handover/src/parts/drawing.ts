import type { Face } from './fonts';

// What is drawn, in millimetres from the upper left corner: on paper and as a picture alike.

export type Op =
  | {
      readonly kind: 'text';
      readonly x: number;
      /** Of the baseline. */
      readonly y: number;
      readonly size: number;
      readonly face: Face;
      readonly text: string;
    }
  | {
      readonly kind: 'rect';
      readonly x: number;
      readonly y: number;
      readonly width: number;
      readonly height: number;
      readonly isFilled: boolean;
    }
  | {
      readonly kind: 'circle';
      readonly x: number;
      readonly y: number;
      readonly radius: number;
      readonly isFilled: boolean;
    }
  | {
      readonly kind: 'line';
      readonly from: readonly [x: number, y: number];
      readonly to: readonly [x: number, y: number];
      /** How thick; `LINE` where nothing is said. */
      readonly thick?: number;
    }
  | {
      readonly kind: 'qr';
      readonly x: number;
      readonly y: number;
      readonly side: number;
      readonly text: string;
    };

export interface Drawing {
  readonly width: number;
  readonly height: number;
  readonly ops: readonly Op[];
}

export const text = (
  x: number,
  y: number,
  size: number,
  words: string,
  face: Face = 'sans',
): Op => ({ kind: 'text', x, y, size, face, text: words });

/** Moved to another place. */
export function moved(op: Op, x: number, y: number): Op {
  return op.kind === 'line'
    ? {
        ...op,
        from: [op.from[0] + x, op.from[1] + y],
        to: [op.to[0] + x, op.to[1] + y],
      }
    : { ...op, x: op.x + x, y: op.y + y };
}

/** The thickness of a line, in millimetres. */
export const LINE = 0.25;
