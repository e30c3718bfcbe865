import type { LeftOut } from '@ipsonomo/core/api';
import type { PlannedInterface } from '@ipsonomo/core/plan';
import { leftOut } from '../format';
import type { Paper } from './paper';

/** Does something on paper for one interface. @returns the letters it needed for that and has not, told once */
export function onPaper(paper: Paper, one: PlannedInterface, act: () => void): readonly LeftOut[] {
  const before = new Set(paper.missing);
  act();
  const letters = [...paper.missing].filter((letter) => !before.has(letter));
  return letters.length === 0 ? [] : [leftOut(one, 'not-in-font', letters.join(' '))];
}
