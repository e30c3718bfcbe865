import { useEffect } from 'react';
import { useQueryClient, type QueryClient, type QueryKey } from '@tanstack/react-query';
import {
  applyHeardNews,
  type FieldView,
  type HeardNews,
  type HeardView,
  type PresentView,
  type StationView,
} from '@ipsonomo/core';
import { keys } from './queries';

/** Keeps the page in step with the wire: server-sent events go straight into the query cache. */
export function useServerEvents(): void {
  const client = useQueryClient();
  useEffect(() => {
    if (typeof EventSource === 'undefined') return;
    const source = new EventSource('/api/events');
    const rereader = new Rereader(client);
    const on = <T>(name: string, take: (data: T) => void) =>
      source.addEventListener(name, (event: MessageEvent<string>) =>
        take(JSON.parse(event.data) as T),
      );
    on<FieldView>('field', (field) => putField(client, field));
    on<HeardNews>('heard', (news) =>
      client.setQueryData<readonly HeardView[]>(keys.heard, (known) =>
        applyHeardNews(known ?? [], news),
      ),
    );
    on<readonly StationView[]>('stations', (found) => client.setQueryData(keys.stations, found));
    on<readonly PresentView[]>('present', (seen) => client.setQueryData(keys.present, seen));
    on<{ jobId: string }>('job', ({ jobId }) => void rereader.again(keys.job(jobId)));
    // What happened before the stream was open, or while it was away, nobody told this page.
    source.addEventListener('open', () => void rereader.again([]));
    source.addEventListener('error', () => {
      void client.resetQueries({ queryKey: keys.field });
      void client.resetQueries({ queryKey: keys.heard });
      void client.resetQueries({ queryKey: keys.stations });
      void client.resetQueries({ queryKey: keys.present });
    });
    return () => source.close();
  }, [client]);
}

/** The wire as told last, by the server's clock: an answer may arrive after newer news. */
export const putField = (client: QueryClient, field: FieldView): void =>
  void client.setQueryData<FieldView>(keys.field, (known) =>
    known && known.now > field.now ? known : field,
  );

const PAUSE = 30;

/**
 * Reads again what has changed. What is being read at that moment was begun before the news and may
 * miss it, so its end is awaited first; news that come meanwhile are covered by the same reading.
 */
class Rereader {
  private readonly waiting = new Set<string>();

  constructor(private readonly client: QueryClient) {}

  async again(queryKey: QueryKey): Promise<void> {
    const name = JSON.stringify(queryKey);
    if (this.waiting.has(name)) return;
    this.waiting.add(name);
    while (this.client.isFetching({ queryKey }) > 0)
      await new Promise((resolve) => setTimeout(resolve, PAUSE));
    this.waiting.delete(name);
    await this.client.invalidateQueries({ queryKey });
  }
}
