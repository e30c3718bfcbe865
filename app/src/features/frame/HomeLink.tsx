import { useSegments } from 'expo-router';
import { View } from 'react-native';
import { FIND_WORDS } from '@ipsonomo/language/screens/find';
import { FRAME_WORDS } from '@ipsonomo/language/screens/frame';
import { HELP_WORDS } from '@ipsonomo/language/screens/help';
import { cutInTheMiddle } from '@ipsonomo/core/names';
import { LinkTo, Words } from '../../parts';
import { TOUCH, useWide } from '../../theme';
import { pageOf } from '../help';

/** Letters of a job's name for which there is room: what the wire does stands beside it, and is never cut for a name. */
const ROOM = { phone: 14, wide: 60 };

interface Props {
  readonly job: string;
  readonly name: string;
}

/** Which job this is, the way to all of them, and the field that finds what is in it. */
export function HomeLink({ job, name }: Props) {
  const wide = useWide();
  const page = pageOf(useSegments());
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: wide ? 24 : 4 }}>
      <LinkTo
        href={`/job/${job}/find`}
        accessibilityLabel={FIND_WORDS.findInThisJob}
        style={{
          minHeight: TOUCH,
          minWidth: TOUCH,
          alignItems: 'center',
          justifyContent: 'center',
        }}
      >
        <Words size="second" tone="plum">
          {FIND_WORDS.find}
        </Words>
      </LinkTo>
      <LinkTo
        href={`/job/${job}/help?of=${page}`}
        accessibilityLabel={HELP_WORDS.helpForThisPage}
        style={{
          ...{ minHeight: TOUCH, minWidth: wide ? TOUCH : 28 },
          ...{ alignItems: 'center', justifyContent: 'center' },
        }}
      >
        <Words size="second" tone="plum">
          ?
        </Words>
      </LinkTo>
      <LinkTo
        href="/"
        accessibilityLabel={FRAME_WORDS.toAllJobs({ name })}
        style={{ minHeight: TOUCH, justifyContent: 'center', maxWidth: wide ? 600 : 92 }}
      >
        <View style={{ alignItems: 'flex-end' }}>
          <Words size={wide ? 'second' : 'caption'} lines={1}>
            {cutInTheMiddle(name, wide ? ROOM.wide : ROOM.phone)}
          </Words>
          <Words size="caption" tone="plum">
            {FRAME_WORDS.allJobs}
          </Words>
        </View>
      </LinkTo>
    </View>
  );
}
