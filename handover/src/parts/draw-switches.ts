import type { SwitchElement, SwitchFace } from '@ipsonomo/core/switches';
import { text, type Drawing, type Op } from './drawing';
import { widthOf } from './fonts';

const CELL = 9;
const DIAL = 22;
const HEIGHT = 28;

/** The switches of a device as they sit on it, set as they have to stand. @param positions left to right */
export function drawSwitches(face: SwitchFace, positions: readonly number[]): Drawing {
  let [x, taken] = [0, 0];
  const ops = face.elements.flatMap((element): readonly Op[] => {
    const count = element.kind === 'dip' ? element.weights.length : 1;
    const own = positions.slice(taken, taken + count);
    taken += count;
    const drawn = element.kind === 'dip' ? dipRow(element, own, x) : dial(element, own[0] ?? 0, x);
    x += (element.kind === 'dip' ? count * CELL : DIAL) + 8;
    return drawn;
  });
  return { width: x, height: HEIGHT, ops };
}

const centred = (x: number, y: number, size: number, words: string): Op =>
  text(x - widthOf(words, 'bold', size) / 2, y, size, words, 'bold');

/** Up is on; the lever is the filled half. */
function dipRow(
  { label, weights }: Extract<SwitchElement, { kind: 'dip' }>,
  positions: readonly number[],
  x: number,
): readonly Op[] {
  const cells = weights.flatMap((weight, at): readonly Op[] => {
    const left = x + at * CELL;
    const isOn = positions[at] === 1;
    return [
      ...[centred(left + CELL / 2, 8.5, 2.4, String(weight))],
      { kind: 'rect', x: left + 1.5, y: 10, width: CELL - 3, height: 12, isFilled: false },
      {
        ...{ kind: 'rect', x: left + 2.2, width: CELL - 4.4, height: 5, isFilled: true },
        y: isOn ? 10.7 : 16.3,
      },
      centred(left + CELL / 2, 26, 3, isOn ? '1' : '0'),
    ];
  });
  return [text(x, 4.5, 3.2, label, 'bold'), ...cells];
}

/** Its positions around, the one that is set by the hand and below in a large figure. */
function dial(
  { label, positions, look }: Extract<SwitchElement, { kind: 'dial' }>,
  at: number,
  x: number,
): readonly Op[] {
  const figure = positions > 10 ? at.toString(36).toUpperCase() : String(at);
  const middle = x + DIAL / 2;
  const head = text(x, 4.5, 3.2, label, 'bold');
  if (look === 'thumbwheel')
    return [
      head,
      { kind: 'rect', x: middle - 6, y: 8, width: 12, height: 16, isFilled: false },
      centred(middle, 20, 11, figure),
    ];
  const [centre, radius] = [15, 7.5];
  const angle = (position: number) => (position / positions) * 2 * Math.PI - Math.PI / 2;
  const on = (position: number, far: number): readonly [number, number] => [
    middle + Math.cos(angle(position)) * far,
    centre + Math.sin(angle(position)) * far,
  ];
  const ticks = Array.from({ length: positions }, (_, position): Op => {
    return { kind: 'line', from: on(position, radius), to: on(position, radius + 1.2) };
  });
  const [tipX, tipY] = on(at, radius - 1);
  return [
    head,
    { kind: 'circle', x: middle, y: centre, radius, isFilled: false },
    ...ticks,
    { kind: 'line', from: [middle, centre], to: [tipX, tipY], thick: 0.8 },
    { kind: 'circle', x: tipX, y: tipY, radius: 0.9, isFilled: true },
    centred(middle, 28, 4, figure),
  ];
}
