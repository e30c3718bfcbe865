import type { KeyboardEvent } from 'react';

// What keys do where the platform's parts know only a press (WAI-ARIA Authoring Practices 1.2). They are handed on as they
// are: React Native's types know no keys.

const STEPS: Readonly<Record<string, number>> = {
  ArrowDown: 1,
  ArrowRight: 1,
  ArrowUp: -1,
  ArrowLeft: -1,
};

/** Space presses, as on a check box, a switch or a radio button. */
export const spacePresses = (press: () => void): object => ({
  onKeyDown(event: KeyboardEvent) {
    if (event.key !== ' ') return;
    event.preventDefault();
    press();
  },
});

/**
 * For a grid of single cells in rows of so many: arrows go to the next and choose it, up and down by a row.
 * @param columns cells of a row; the first row may have fewer
 */
export const arrowsInGrid = (columns: number, choose: (index: number) => void): object =>
  moves(
    'gridcell',
    (key) => STEPS[key] && STEPS[key] * (UPRIGHT.includes(key) ? columns : 1),
    choose,
  );

const UPRIGHT: readonly string[] = ['ArrowUp', 'ArrowDown'];

/**
 * For what holds a group of which one is chosen: arrows go from one to the next, round the end, and choose it; only one of
 * them is reached by Tab.
 * @param role of those in it
 */
export const arrowsChoose = (role: string, choose: (index: number) => void): object =>
  moves(role, (key) => STEPS[key], choose);

const moves = (
  role: string,
  stepOf: (key: string) => number | undefined,
  choose: (index: number) => void,
): object => ({
  onKeyDown(event: KeyboardEvent<HTMLElement>) {
    const step = stepOf(event.key);
    if (step === undefined) return;
    const all = [...event.currentTarget.querySelectorAll<HTMLElement>(`[role="${role}"]`)];
    const at = all.indexOf(document.activeElement as HTMLElement);
    if (at < 0) return;
    event.preventDefault();
    const next = (at + step + all.length) % all.length;
    all[next]?.focus();
    choose(next);
  },
});
