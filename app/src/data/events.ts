import { useEffect } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { applyHeardNews, type HeardNews, type HeardView } from '@ipsonomo/core';
import { keys } from './queries';

/** Keeps the page in step with the wire: server-sent events go straight into the query cache. */
export function useServerEvents(): void {
  const client = useQueryClient();
  useEffect(() => {
    if (typeof EventSource === 'undefined') return;
    const source = new EventSource('/api/events');
    source.addEventListener('field', (event: MessageEvent<string>) =>
      client.setQueryData(keys.field, JSON.parse(event.data)),
    );
    source.addEventListener('heard', (event: MessageEvent<string>) =>
      client.setQueryData<readonly HeardView[]>(keys.heard, (known) =>
        applyHeardNews(known ?? [], JSON.parse(event.data) as HeardNews),
      ),
    );
    source.addEventListener('job', (event: MessageEvent<string>) => {
      const { jobId } = JSON.parse(event.data) as { jobId: string };
      void client.invalidateQueries({ queryKey: keys.job(jobId) });
    });
    // While the server was away things happened: read all of it again.
    let lost = false;
    source.addEventListener('error', () => {
      lost = true;
    });
    source.addEventListener('open', () => {
      if (lost) void client.invalidateQueries();
      lost = false;
    });
    return () => source.close();
  }, [client]);
}
