import { browserDatabase } from './browser-store';

// What the server answered last, for a page that is opened without it. A long answer is kept as the text it came as, and
// what changes of it later as steps behind it: nothing long is written again for a small change.

/** An answer that was kept, with what has changed since, in its order. */
export interface KeptSince {
  readonly text: string;
  readonly steps: readonly unknown[];
}

/** Keeps an answer in place of the one before. Never refuses: without room a page has nothing to show without the server. */
export async function keepAnswer(of: string, text: string): Promise<void> {
  try {
    const known = await browserDatabase();
    const change = known?.transaction(['answers', 'steps'], 'readwrite');
    if (!change) return;
    const steps = change.objectStore('steps');
    for (const key of await steps.index('of').getAllKeys(of)) void steps.delete(key);
    void change.objectStore('answers').put(text, of);
    await change.done;
  } catch {
    // No room.
  }
}

/** Behind so many steps the answer is written anew. */
const MOST_STEPS = 1_000;

/**
 * Keeps what has changed; nothing where the answer itself was not kept.
 * @param whole the answer as it is after this step, as text: asked for now and then
 */
export async function keepStep(of: string, value: unknown, whole: () => string): Promise<void> {
  try {
    const known = await browserDatabase();
    const change = known?.transaction(['answers', 'steps'], 'readwrite');
    if (!change || (await change.objectStore('answers').getKey(of)) === undefined) return;
    const steps = change.objectStore('steps');
    void steps.add({ of, value });
    const count = await steps.index('of').count(of);
    await change.done;
    if (count >= MOST_STEPS) await keepAnswer(of, whole());
  } catch {
    // No room.
  }
}

export async function keptAnswer(of: string): Promise<KeptSince | undefined> {
  try {
    const known = await browserDatabase();
    const text = await known?.get('answers', of);
    if (!known || text === undefined) return undefined;
    const steps = await known.getAllFromIndex('steps', 'of', of);
    return { text, steps: steps.map(({ value }) => value) };
  } catch {
    return undefined;
  }
}

/** Whoever is let in no longer is shown nothing that was told before; what waits to be sent stays. */
export async function forgetAnswers(): Promise<void> {
  const known = await browserDatabase();
  await known?.clear('answers');
  await known?.clear('steps');
  await known?.clear('papers');
}
