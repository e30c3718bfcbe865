import type { HeardView, PresentView, StationView } from './views';

/** What changed in the list of clients heard on the wire of a job; `all` stands for the whole list anew. */
export interface HeardNews {
  readonly jobId: string;
  readonly all: boolean;
  readonly clients: readonly HeardView[];
  /** MACs that are no longer remembered. */
  readonly forgotten: readonly string[];
}

/** The stations found on the wire of a job. */
export interface StationsNews {
  readonly jobId: string;
  readonly stations: readonly StationView[];
}

/** Everybody seen with an address on the wire of a job. */
export interface PresentNews {
  readonly jobId: string;
  readonly present: readonly PresentView[];
}

/** The list after the news; the order of those that stay is kept. */
export function applyHeardNews(
  known: readonly HeardView[],
  { all, clients, forgotten }: Omit<HeardNews, 'jobId'>,
): readonly HeardView[] {
  if (all) return clients;
  const byMac = new Map(known.map((one) => [one.mac, one]));
  for (const mac of forgotten) byMac.delete(mac);
  for (const client of clients) byMac.set(client.mac, client);
  return [...byMac.values()];
}
