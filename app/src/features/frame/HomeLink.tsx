import { View } from 'react-native';
import { FRAME_WORDS } from '@ipsonomo/language/screens/frame';
import { cutInTheMiddle, LinkTo, Words } from '../../parts';
import { TOUCH, useWide } from '../../theme';

/** Letters of a job's name for which there is room beside the wire. */
const ROOM = { phone: 20, wide: 60 };

/** Which job this is, and the way to all of them. */
export function HomeLink({ name }: { readonly name: string }) {
  const wide = useWide();
  return (
    <LinkTo
      href="/"
      accessibilityLabel={FRAME_WORDS.toAllJobs({ name })}
      style={{ minHeight: TOUCH, justifyContent: 'center', maxWidth: wide ? 600 : 190 }}
    >
      <View style={{ alignItems: 'flex-end' }}>
        <Words size="second" lines={1}>
          {cutInTheMiddle(name, wide ? ROOM.wide : ROOM.phone)}
        </Words>
        <Words size="caption" tone="plum">
          {FRAME_WORDS.allJobs}
        </Words>
      </View>
    </LinkTo>
  );
}
