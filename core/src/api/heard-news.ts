import type { HeardView } from './views';

/** What changed in the list of heard clients; `all` stands for the whole list anew. */
export interface HeardNews {
  readonly all: boolean;
  readonly clients: readonly HeardView[];
  /** MACs that are no longer remembered. */
  readonly forgotten: readonly string[];
}

/** The list after the news; the order of those that stay is kept. */
export function applyHeardNews(
  known: readonly HeardView[],
  { all, clients, forgotten }: HeardNews,
): readonly HeardView[] {
  if (all) return clients;
  const byMac = new Map(known.map((one) => [one.mac, one]));
  for (const mac of forgotten) byMac.delete(mac);
  for (const client of clients) byMac.set(client.mac, client);
  return [...byMac.values()];
}
