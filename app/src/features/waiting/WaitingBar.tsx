import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { WAITING_WORDS } from '@ipsonomo/language/screens/waiting';
import { useHeld } from '../../data';
import { Words } from '../../parts';
import { SPACE, TOUCH, useColours } from '../../theme';

/**
 * That something waits to be sent, or was refused, on every page; nothing where nothing does.
 * @param isInPage it stands within a page's own margins, and not across the window
 */
export function WaitingBar({ isInPage = false }: { readonly isInPage?: boolean }) {
  const held = useHeld();
  const router = useRouter();
  const colours = useColours();
  if (held.length === 0) return null;
  const refused = held.filter((one) => one.refused !== null).length;
  const title =
    refused > 0
      ? WAITING_WORDS.barRefused({ count: refused })
      : WAITING_WORDS.barWaits({ count: held.length });
  return (
    <View
      role="status"
      style={{
        ...{ flexDirection: 'row', alignItems: 'center', gap: 12, minHeight: TOUCH },
        ...{
          paddingHorizontal: isInPage ? 0 : SPACE.page,
          borderBottomWidth: 1,
          borderBottomColor: colours.line,
        },
      }}
    >
      <View style={{ flex: 1 }}>
        <Words size="second" tone={refused > 0 ? 'brick' : 'ink'}>
          {title}
        </Words>
      </View>
      <Button type="clear" title={WAITING_WORDS.look} onPress={() => router.navigate('/waiting')} />
    </View>
  );
}
