import { Button } from '@rneui/themed';
import { usePathname, useRouter } from 'expo-router';
import { FRAME_WORDS } from '@ipsonomo/language/screens/frame';
import { Page, Words } from '../../parts';

/** A page that is not there: an address that was mistyped, or of another version. @param back where a way goes on */
export function NotFound({ back, title }: { readonly back: string; readonly title: string }) {
  const router = useRouter();
  const path = usePathname();
  return (
    <Page action={<Button size="lg" title={title} onPress={() => router.replace(back)} />}>
      <Words size="title" heading={1}>
        {FRAME_WORDS.thereIsNoSuchPage}
      </Words>
      <Words>{FRAME_WORDS.nothingStandsAtTheAddressMay({ path })}</Words>
    </Page>
  );
}
