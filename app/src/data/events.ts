import { useEffect, useSyncExternalStore } from 'react';
import { BroadcastChannel } from 'broadcast-channel';
import { useQueryClient, type QueryClient } from '@tanstack/react-query';
import type {
  FieldView,
  HeardNews,
  JobNews,
  PresentNews,
  ServersView,
  StationsNews,
} from '@ipsonomo/core/api';
import { acts, keys } from '@ipsonomo/contract';
import { ask } from './http';
import { Rereader, takeJobNews } from './rereader';
import { HeardTaker, putField, takeWires } from './wire-news';
import { keepSending, outbox } from './waiting';
import { SharedStream, type Parts, type Source, type SourceListener } from './shared-stream';

/** Keeps the page in step with the wire: what the server tells goes straight into the query cache. */
export function useServerEvents(): void {
  const client = useQueryClient();
  useEffect(() => {
    if (typeof EventSource === 'undefined') return;
    const takers = { rereader: new Rereader(client), heard: new HeardTaker(client) };
    const stream = new SharedStream(partsOf(client), {
      news: (name, data) => takeNews(client, takers, name, data),
      missed: () => void takers.rereader.again([]),
      away: putAway,
    });
    stream.start();
    const stop = keepSending(client);
    const cut = () => stream.cut();
    globalThis.addEventListener?.('offline', cut);
    return () => {
      stop();
      globalThis.removeEventListener?.('offline', cut);
      takers.heard.close();
      void stream.close();
    };
  }, [client]);
}

const partsOf = (client: QueryClient): Parts => ({
  lastHeard,
  openChannel: () => new BroadcastChannel('ipsonomo-events'),
  open: openSource,
  // Through the client, which knows what to do where the door is shut.
  readState: () =>
    client.fetchQuery({
      queryKey: keys.state,
      queryFn: () => ask(acts.readState, {}),
      retry: false,
      staleTime: 0,
    }),
});

const NAMES = [
  ...['hello', 'beat', 'wires', 'servers', 'field', 'heard', 'stations', 'present', 'job'],
];

function openSource(since: string | undefined, listener: SourceListener): Source {
  const source = new EventSource(
    `/api/events${since ? `?since=${encodeURIComponent(since)}` : ''}`,
  );
  let known = '';
  for (const name of NAMES)
    source.addEventListener(name, (event: MessageEvent<string>) => {
      // The browser gives the last number to what has none of its own.
      const isNew = event.lastEventId !== known;
      known = event.lastEventId;
      const id = isNew ? event.lastEventId : undefined;
      listener.news({ id, name, data: JSON.parse(event.data) as unknown });
    });
  source.addEventListener('error', () => listener.lost(source.readyState === EventSource.CLOSED));
  return source;
}

interface Takers {
  readonly rereader: Rereader;
  readonly heard: HeardTaker;
}

function takeNews(
  client: QueryClient,
  { rereader, heard }: Takers,
  name: string,
  data: unknown,
): void {
  if (name === 'wires') takeWires(client, data as readonly string[]);
  else if (name === 'servers') client.setQueryData(keys.servers, data as ServersView);
  else if (name === 'field') putField(client, data as FieldView);
  else if (name === 'heard') heard.take(data as HeardNews);
  else if (name === 'stations') putStations(client, data as StationsNews);
  else if (name === 'present') putPresent(client, data as PresentNews);
  else if (name === 'job') takeJobNews(client, rereader, data as JobNews);
}

const putStations = (client: QueryClient, { jobId, stations }: StationsNews) =>
  client.setQueryData(keys.stations(jobId), stations);
const putPresent = (client: QueryClient, { jobId, present }: PresentNews) =>
  client.setQueryData(keys.present(jobId), present);

let awaySince: number | undefined;
const watchers = new Set<() => void>();

/** Kept so often, in milliseconds: a page that begins without the server says of when what it shows is. */
const NOTED = 10_000;
const HEARD = 'ipsonomo.heard';
let notedAt = 0;

const lastHeard = (): number | undefined =>
  Number(globalThis.localStorage?.getItem(HEARD)) || undefined;

function noteHeard(): void {
  if (Date.now() - notedAt < NOTED) return;
  notedAt = Date.now();
  try {
    globalThis.localStorage?.setItem(HEARD, String(notedAt));
  } catch {
    // Without storage it is told from when on the page is open.
  }
}

function putAway(since: number | undefined): void {
  if (since === undefined) noteHeard();
  if (since === awaySince) return;
  awaySince = since;
  for (const watcher of watchers) watcher();
  if (since === undefined) void outbox.flush().catch(() => undefined);
}

const watchAway = (watcher: () => void) => {
  watchers.add(watcher);
  return () => watchers.delete(watcher);
};

/** When the server was last heard, undefined while it is there. What the page shows was known then. */
export const useAway = (): number | undefined => useSyncExternalStore(watchAway, () => awaySince);
