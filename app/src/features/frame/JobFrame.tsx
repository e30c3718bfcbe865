import { Slot, useRouter, useSegments } from 'expo-router';
import { useRef } from 'react';
import { ScrollView, View } from 'react-native';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { FRAME_WORDS } from '@ipsonomo/language/screens/frame';
import {
  acts,
  useAct,
  JobProvider,
  useAway,
  useJob,
  useOthersAnswering,
  useWire,
} from '../../data';
import { LinkLine, Places, type Place, type PlaceEntry } from '../../parts';
import { useColours, useLowWindow, useWide } from '../../theme';
import { WaitingBar } from '../waiting';
import { ClashBar } from './ClashBar';
import { DatabaseBar } from './DatabaseBar';
import { PageFell } from './PageFell';
import { placeOf } from './place-of';
import { SkipLink } from './SkipLink';
import { Spoken } from './Spoken';
import { HomeLink } from './HomeLink';
import { useFindKey } from './use-find-key';
import { useKeptFocus } from './use-kept-focus';
import {
  awayWords,
  isTroubled,
  othersShort,
  othersWords,
  stateWords,
  whoWords,
  wireWords,
} from './wire-words';
import { leftWords } from '../words';

const LABELS: readonly (readonly [Place, string])[] = [
  ['plan', COMMON_WORDS.plan],
  ['assign', FRAME_WORDS.assign],
  ['prove', COMMON_WORDS.prove],
  ['hand-over', COMMON_WORDS.handOver],
];

/** What stands around every screen of a job: the link line above, the places below or beside. */
export const JobFrame = ({ job }: { readonly job: string }) => (
  <JobProvider value={job}>
    <Frame job={job} />
  </JobProvider>
);

function Frame({ job }: { readonly job: string }) {
  const colours = useColours();
  const wide = useWide();
  const current = placeOf(useSegments());
  useFindKey(job);
  const now = useJob(job).job;
  const left = now?.view.left;
  const counts = [left?.plan, left?.assign, left?.prove, left?.handOver];
  const places: readonly PlaceEntry[] = LABELS.map(([place, label], i) => ({
    place,
    label,
    left: counts[i] ?? 0,
  }));
  const bar = (
    <Places
      places={places}
      current={current}
      wide={wide}
      pathOf={(place) => `/job/${job}/${place}`}
    />
  );
  const page = useRef<HTMLElement>(null);
  useKeptFocus(page);
  const low = useLowWindow();
  const frame = (
    <>
      <SkipLink page={page} />
      <WireLine job={job} name={now?.view.name} />
      <DatabaseBar />
      <WaitingBar />
      <View style={{ flex: 1, flexDirection: wide ? 'row' : 'column' }}>
        {wide ? bar : null}
        <View
          ref={page as never}
          style={{ flex: 1, minHeight: low, outlineWidth: 0 }}
          role="main"
          {...{ tabIndex: -1 }}
        >
          {now ? <ClashBar id={job} job={now} /> : null}
          <Slot unstable_screenErrorBoundary={PageFell} />
        </View>
        {wide ? null : bar}
      </View>
      <Spoken />
    </>
  );
  const style = { flex: 1, backgroundColor: colours.ground };
  // So low that the bars would leave nothing: they scroll along, and the page has the height of the window.
  if (low === undefined) return <View style={style}>{frame}</View>;
  return (
    <ScrollView style={style} contentContainerStyle={{ flexGrow: 1 }}>
      {frame}
    </ScrollView>
  );
}

function WireLine({ job, name }: { readonly job: string; readonly name: string | undefined }) {
  const router = useRouter();
  const { field, now, isSending: wasSending } = useWire();
  const away = useAway();
  // Nobody knows what goes on there now.
  const isSending = wasSending && away === undefined;
  const silence = useAct(acts.silence, { job });
  const others = useOthersAnswering(job);
  const wide = useWide();
  const until = field?.answeringUntil ?? 0;
  const isAnswering = until > now && away === undefined;
  // Beside the button of a phone there is no room for a sentence.
  const isShort = isSending && !wide;
  const trouble = away !== undefined || isTroubled(field);
  return (
    <LinkLine
      wire={
        away === undefined
          ? wireWords(field)
          : wide
            ? FRAME_WORDS.noWordFromTheServer
            : FRAME_WORDS.noServer
      }
      who={whoWords(field, isSending)}
      state={
        away === undefined
          ? stateWords(field, now) + (isShort ? '' : othersWords(others))
          : awayWords(away, wide)
      }
      left={
        isAnswering
          ? FRAME_WORDS.left({
              until: leftWords(until, now),
              wide,
              isShort: isShort ? othersShort(others) : '',
            })
          : undefined
      }
      isSending={isSending}
      trouble={trouble}
      onPress={() => router.navigate(`/job/${job}/wire`)}
      onFallSilent={() => silence.mutate()}
      end={name === undefined ? null : <HomeLink job={job} name={name} />}
    />
  );
}
