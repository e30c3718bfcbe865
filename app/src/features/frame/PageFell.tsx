import { Button } from '@rneui/themed';
import { useQueryClient } from '@tanstack/react-query';
import type { ErrorBoundaryProps } from 'expo-router';
import { LinkTo, Page, Words } from '../../parts';
import { TOUCH } from '../../theme';

/**
 * In place of a page that threw. It falls alone: what stands around it, "Fall silent" above all, goes on, and so does
 * every other page.
 */
export function PageFell({ error, retry }: ErrorBoundaryProps) {
  const client = useQueryClient();
  const again = () => {
    // What it fell over may be what it was told: of that nothing is kept.
    client.removeQueries({ type: 'inactive' });
    void retry();
  };
  return (
    <Page action={<Button size="lg" title="Try again" onPress={again} />}>
      <Words size="title" heading={1}>
        This page met an error of its own
      </Words>
      <Words>
        What was saved is saved, and on the wire nothing changed by it. Try again; if it stays so,
        load the application again, and tell whoever keeps it what stands here:
      </Words>
      <Words size="second" tone="second">
        {error.message}
      </Words>
      <LinkTo href="/" style={{ minHeight: TOUCH, justifyContent: 'center' }}>
        <Words size="strong">All jobs</Words>
      </LinkTo>
    </Page>
  );
}
