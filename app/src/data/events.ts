import { useEffect } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { keys } from './queries';

/** Keeps the page in step with the wire: server-sent events go straight into the query cache. */
export function useServerEvents(): void {
  const client = useQueryClient();
  useEffect(() => {
    if (typeof EventSource === 'undefined') return;
    const source = new EventSource('/api/events');
    const put = (key: readonly string[]) => (event: MessageEvent<string>) =>
      client.setQueryData(key, JSON.parse(event.data));
    source.addEventListener('field', put(keys.field));
    source.addEventListener('heard', put(keys.heard));
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
