import { browserDatabase } from './browser-store';
import type { OutboxStore, WaitingAct } from './outbox';

/** In the browser's database; on the page alone where the browser has none. */
export function outboxStore(): OutboxStore {
  const onPage = new Map<number, WaitingAct>();
  let last = 0;
  return {
    all: async () => {
      const kept = (await (await browserDatabase())?.getAll('waiting')) ?? [...onPage.values()];
      return kept as readonly WaitingAct[];
    },
    add: async (act) => {
      const known = await browserDatabase();
      if (known) {
        // On the disk before it is sent: what only waits to be written is lost with the power.
        const change = known.transaction('waiting', 'readwrite', { durability: 'strict' });
        const place = await change.store.add(act);
        await change.done;
        return place;
      }
      onPage.set((last += 1), { ...act, place: last });
      return last;
    },
    change: async (act) => {
      const change = (await browserDatabase())?.transaction('waiting', 'readwrite');
      if (!change) {
        if (onPage.has(act.place)) onPage.set(act.place, act);
        return;
      }
      if ((await change.store.getKey(act.place)) !== undefined) void change.store.put(act);
      await change.done;
    },
    remove: async (place) => {
      onPage.delete(place);
      await (await browserDatabase())?.delete('waiting', place);
    },
  };
}
