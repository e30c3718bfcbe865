import { Slot, usePathname, useRouter } from 'expo-router';
import { useRef } from 'react';
import { ScrollView, View } from 'react-native';
import { format } from 'date-fns';
import { sourceWords } from '@ipsonomo/core/api';
import { acts, type FieldNow, useAct, useAway, useJob, useWire } from '../../data';
import { LinkLine, Places, type Place, type PlaceEntry } from '../../parts';
import { useColours, useLowWindow, useWide } from '../../theme';
import { ClashBar } from './ClashBar';
import { PageFell } from './PageFell';
import { placeOfPath } from './place-of';
import { SkipLink } from './SkipLink';
import { Spoken } from './Spoken';
import { useKeptFocus } from './use-kept-focus';
import { leftWords, plural } from '../words';

const LABELS: readonly (readonly [Place, string])[] = [
  ['plan', 'Plan'],
  ['assign', 'Assign'],
  ['prove', 'Prove'],
  ['hand-over', 'Hand over'],
];

/** What stands around every screen of a job: the link line above, the places below or beside. */
export function JobFrame({ job }: { readonly job: string }) {
  const colours = useColours();
  const wide = useWide();
  const current = placeOfPath(usePathname());
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
      <WireLine job={job} />
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
      <Spoken job={job} />
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

function WireLine({ job }: { readonly job: string }) {
  const router = useRouter();
  const { field, now, isSending: wasSending } = useWire();
  const away = useAway();
  // Nobody knows what goes on there now.
  const isSending = wasSending && away === undefined;
  const silence = useAct(acts.silence, {});
  const wide = useWide();
  const until = field?.answeringUntil ?? 0;
  const isAnswering = until > now && away === undefined;
  const trouble = away !== undefined || isTroubled(field);
  return (
    <LinkLine
      wire={away === undefined ? wireWords(field) : 'No word from the server'}
      who={whoWords(field, isSending)}
      state={away === undefined ? stateWords(field, now) : awayWords(away)}
      left={isAnswering ? `${leftWords(until, now)}${wide ? ' left' : ''}` : undefined}
      isSending={isSending}
      trouble={trouble}
      onPress={() => router.navigate(`/job/${job}/wire`)}
      onFallSilent={() => silence.mutate()}
    />
  );
}

const isTroubled = (field: FieldNow | undefined): boolean =>
  field !== undefined && (field.link !== 'up' || field.notices.some(isTrouble));

/** What stands below was true then. */
const awayWords = (since: number): string => `what you see is of ${format(since, 'HH:mm:ss')}`;

/** What the laptop is called on this wire: spoken from, or its own address while it is silent. */
function whoWords(field: FieldNow | undefined, isSending: boolean): string | undefined {
  if (!field) return undefined;
  const spoken = field.voices.map((voice) => voice.address);
  const [first, ...more] = isSending ? spoken : field.ownAddresses;
  if (first === undefined) return undefined;
  return `as ${first}${more.length > 0 ? ` +${more.length}` : ''}`;
}

/** That nobody else answered is told, and no trouble. */
const isTrouble = ({ code }: FieldNow['notices'][number]): boolean => code !== 'no-other-server';

function wireWords(field: FieldNow | undefined): string {
  if (!field) return 'Asking the server';
  if (field.source === null) return 'No wire chosen';
  const name = field.source === 'practice' ? 'Practice site' : sourceWords(field.source);
  if (field.link === 'gone') return `${name}: adapter gone`;
  return field.link === 'down' ? `${name}: no link` : name;
}

const PROOF_WORDS = { sweep: 'looking for everybody', strangers: 'asking strangers' } as const;

function proofWords(proof: FieldNow['proof']): string {
  if (proof?.phase === 'sweep' || proof?.phase === 'strangers')
    return `Proving: ${PROOF_WORDS[proof.phase]}`;
  return `Proving, ${proof?.left ?? 0} to go`;
}

function stateWords(field: FieldNow | undefined, now: number): string {
  if (!field?.source) return 'tap to choose';
  const [task] = field.tasks;
  if ((field.answeringUntil ?? 0) > now) return `Answering ${plural(field.answers, 'device')}`;
  if (field.tasks.some(({ kind }) => kind === 'prove')) return proofWords(field.proof);
  if (field.tasks.some(({ kind }) => kind === 'vigil')) return 'Keeping a vigil';
  if (task?.kind === 'check') return `Asking ${plural(field.tasks.length, 'device')}`;
  if (task?.kind === 'watch-power') return 'Watching its power';
  if (task?.kind === 'identify') return 'Asking whether it is in use';
  if (task?.kind === 'pin' || task?.kind === 'station-set') return 'Talking to a device';
  if (task?.kind === 'search') return 'Searching over layer 2';
  if (task?.kind === 'sweep') return `Asking for every address, ${task.phase}`;
  if (task?.kind === 'walk') return `Walking to a device, ${task.phase}`;
  if (task?.kind === 'page') return 'Its page is open';
  if (task?.kind === 'follow') return 'Following a device';
  if (task?.kind === 'flash') return 'Flashing a lamp';
  if (task?.kind === 'look-for-servers') return 'Looking for other DHCP servers';
  return field.runId === null ? 'silent, not listening' : 'silent, listening';
}
