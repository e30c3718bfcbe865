import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { snagSentence } from '@ipsonomo/language';
import { snagKey } from '@ipsonomo/core/snags';
import { FRAME_WORDS } from '@ipsonomo/language/screens/frame';
import type { Job } from '../../data';
import { Notice, Words } from '../../parts';
import { SPACE } from '../../theme';
import { deviceAt } from '../snags';

/** What my change and somebody else's have made wrong together; both are kept, and both are told. */
export function ClashBar({ id, job }: { readonly id: string; readonly job: Job }) {
  const router = useRouter();
  const [seen, setSeen] = useState<ReadonlySet<string>>(new Set());
  const open = job.clashes.filter(({ snag }) => !seen.has(snagKey(snag)));
  const [first] = open;
  if (!first) return null;
  const { snag, people } = first;
  const device = deviceAt(job.plan, snag);
  return (
    <View style={{ padding: SPACE.page, paddingBottom: 0 }}>
      <Notice
        tone="brick"
        title={FRAME_WORDS.youAndTogetherMadeThisWrong({ value: people.join(' and ') })}
      >
        <Words size="second">{snagSentence(snag)}</Words>
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
          <Button
            type="outline"
            title={FRAME_WORDS.seeIt}
            onPress={() =>
              router.navigate(device ? `/job/${id}/device/${device}` : `/job/${id}/snags`)
            }
          />
          <Button
            type="clear"
            title={
              open.length > 1
                ? FRAME_WORDS.understoodMore({ open: open.length - 1 })
                : FRAME_WORDS.understood
            }
            onPress={() => setSeen(new Set([...seen, snagKey(snag)]))}
          />
        </View>
      </Notice>
    </View>
  );
}
