import { Button } from '@rneui/themed';
import { useQueryClient } from '@tanstack/react-query';
import type { ErrorBoundaryProps } from 'expo-router';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { FRAME_WORDS } from '@ipsonomo/language/screens/frame';
import { LinkTo, Page, Words } from '../../parts';
import { TOUCH } from '../../theme';
import { isUnloaded } from './page-fault';

/**
 * In place of a page that threw. It falls alone: what stands around it, "Fall silent" above all, goes on, and so does
 * every other page.
 */
export function PageFell({ error, retry }: ErrorBoundaryProps) {
  const client = useQueryClient();
  const isNotHere = isUnloaded(error);
  const again = () => {
    // What it fell over may be what it was told: of that nothing is kept.
    client.removeQueries({ type: 'inactive' });
    void retry();
  };
  return (
    <Page action={<Button size="lg" title={FRAME_WORDS.tryAgain} onPress={again} />}>
      <Words size="title" heading={1}>
        {isNotHere ? FRAME_WORDS.thisPageIsNotHere : FRAME_WORDS.thisPageMetAnErrorOf}
      </Words>
      <Words>
        {isNotHere ? FRAME_WORDS.itWasNotLoadedYet : FRAME_WORDS.whatWasSavedIsSavedAnd}
      </Words>
      {isNotHere ? null : (
        <Words size="second" tone="second">
          {error.message}
        </Words>
      )}
      <LinkTo href="/" style={{ minHeight: TOUCH, justifyContent: 'center' }}>
        <Words size="strong">{COMMON_WORDS.allJobs}</Words>
      </LinkTo>
    </Page>
  );
}
