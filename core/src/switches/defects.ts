import type { Issue } from '../net';
import type { SwitchElement, SwitchFace } from './face';

/**
 * What a drawing of switches lacks before anybody can set or read them by it: a name for each, a worth for each that
 * makes the number or the mode, and something that values mean.
 * @returns `switches.label`, `switches.weight`, `switches.noMeaning`, each with the place of the element from 1
 */
export function faceDefects({ elements, meanings }: SwitchFace): readonly Issue[] {
  const issues = elements.flatMap((element, at): readonly Issue[] => [
    ...(element.label.trim() === ''
      ? [{ code: 'switches.label', where: String(at + 1) } as const]
      : []),
    ...(isWithoutWeight(element)
      ? [{ code: 'switches.weight', where: element.label || String(at + 1) } as const]
      : []),
  ]);
  return elements.length > 0 && meanings.length === 0
    ? [...issues, { code: 'switches.noMeaning', where: '' }]
    : issues;
}

/** Switches that are of no use to the address need be worth nothing. */
const isWithoutWeight = (element: SwitchElement): boolean =>
  element.use !== 'other' &&
  (element.kind === 'dial' ? element.weight === 0 : element.weights.every((one) => one === 0));
