import type { LeftOut } from '@ipsonomo/core/api';
import type { PlannedInterface } from '@ipsonomo/core/plan';
import { leftOut } from '../format';
import type { Paper } from './paper';

/** Does something on paper for one interface. @returns the letters it needed for that and has not */
export function onPaper(paper: Paper, one: PlannedInterface, act: () => void): readonly LeftOut[] {
  // What the head of the page lacked is nobody's.
  paper.missing.clear();
  act();
  const letters = [...paper.missing].join(' ');
  return letters === '' ? [] : [leftOut(one, 'not-in-font', letters)];
}
