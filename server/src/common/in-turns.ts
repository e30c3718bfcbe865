/** So many small steps take some milliseconds. */
const AT_ONCE = 100;

/** A pause in which whatever else is due is done. */
export const breath = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));

/** Takes each of a long list, and lets others have their turn now and then: one thread answers everybody. */
export async function inTurns<T>(list: readonly T[], take: (one: T) => void): Promise<void> {
  for (const [index, one] of list.entries()) {
    if (index > 0 && index % AT_ONCE === 0) await breath();
    take(one);
  }
}
