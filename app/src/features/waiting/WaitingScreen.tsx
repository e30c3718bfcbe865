import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { View } from 'react-native';
import { WAITING_WORDS } from '@ipsonomo/language/screens/waiting';
import { jobsQuery, outbox, useHeld } from '../../data';
import { LongList, Page, Words } from '../../parts';
import { BackLine } from './BackLine';
import { HeldAct } from './HeldAct';
import { Room } from './Room';
import { saveHeld } from './save-held';

/** About as high as an act that waits. */
const ACT_LINE = 120;

/** What was done without the server: in its order, what became of it, and what may be done about it. */
export function WaitingScreen() {
  const held = useHeld();
  const { data: jobs } = useQuery(jobsQuery);
  const nameOf = (id: string | undefined) => jobs?.find((job) => job.id === id)?.name;
  const isAnything = held.some(({ refused }) => refused === null);
  return (
    <Page
      action={
        isAnything ? (
          <Button
            size="lg"
            title={WAITING_WORDS.sendNow}
            onPress={() => void outbox.flush().catch(() => undefined)}
          />
        ) : undefined
      }
    >
      <BackLine />
      <Words size="title" heading={1}>
        {WAITING_WORDS.head}
      </Words>
      <Words tone="second">{held.length === 0 ? WAITING_WORDS.nothing : WAITING_WORDS.what}</Words>
      <LongList
        items={held}
        keyOf={({ place }) => String(place)}
        height={ACT_LINE}
        render={(one) => <HeldAct act={one} jobName={nameOf(one.params['job'])} />}
      />
      {held.length > 0 ? (
        <View style={{ alignItems: 'flex-start' }}>
          <Button type="clear" title={WAITING_WORDS.saveAsFile} onPress={() => saveHeld(held)} />
        </View>
      ) : null}
      <Room />
    </Page>
  );
}
