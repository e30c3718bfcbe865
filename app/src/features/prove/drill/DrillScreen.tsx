import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { drillRowsOf, expectedOf, type DrillView, type JobView } from '@ipsonomo/core/api';
import { returnWords } from '@ipsonomo/language';
import { formatIpv4 } from '@ipsonomo/core/net';
import { returnsOf, worstFirst, type Plan, type Returned } from '@ipsonomo/core/plan';
import { DRILL_WORDS } from '@ipsonomo/language/screens/drill';
import { PROVE_WORDS } from '@ipsonomo/language/screens/prove';
import { type Acting, acts, useAct, usePlan, useWire } from '../../../data';
import { AddressText, LongList, Notice, Page, Refusals, Row, Words } from '../../../parts';
import { useWide } from '../../../theme';
import { issuesOf, lengthOf } from '../../words';

/** A cold start of the cabinet, watched without a word: who comes back, where, after how long, and by whose help. */
export function DrillScreen({ job }: { readonly job: string }) {
  const { view, plan, error } = usePlan(job);
  const { field, now } = useWire();
  const drill = useAct(acts.drill, { job });
  const state = field?.drill ?? null;
  const phase = state?.phase ?? 'none';
  return (
    <Page maxWidth={1100} action={<Step {...{ phase, drill }} />}>
      <View style={{ gap: 4 }}>
        <Words size="title" heading={1}>
          {PROVE_WORDS.coldStart}
        </Words>
        <Words tone="second">{LEAD[phase]}</Words>
      </View>
      <Refusals issues={issuesOf(error ?? drill.error)} />
      {phase === 'spoiled' ? (
        <Notice tone="brick" title={DRILL_WORDS.ipsonomoItselfHasSentSomething}>
          {DRILL_WORDS.whatComesBackNowMayHave}
        </Notice>
      ) : null}
      {state && view && plan && state.onAt !== null ? (
        <Returns {...{ job, view, plan, state }} now={state.endedAt ?? now} onAt={state.onAt} />
      ) : null}
    </Page>
  );
}

const LEAD = {
  none: DRILL_WORDS.ipsonomoFallsSilentYouSwitchThe,
  off: DRILL_WORDS.nothingIsSentNowSwitchThe,
  on: DRILL_WORDS.listeningWaitUntilNothingNewComes,
  ended: DRILL_WORDS.whatCameBackAsItWas,
  spoiled: DRILL_WORDS.itEnded,
} as const;

type Phase = keyof typeof LEAD;

const ACTS = {
  none: ['begin', DRILL_WORDS.beginFallSilentAndListen],
  off: ['on', DRILL_WORDS.itIsOnAgain],
  on: ['end', DRILL_WORDS.allThatWillComeIsBack],
  ended: ['begin', DRILL_WORDS.beginAnother],
  spoiled: ['begin', DRILL_WORDS.beginAgain],
} as const;

function Step({
  phase,
  drill,
}: {
  readonly phase: Phase;
  readonly drill: Acting<typeof acts.drill>;
}) {
  const [step, title] = ACTS[phase];
  return (
    <Button
      size="lg"
      title={title}
      loading={drill.isPending}
      onPress={() => drill.mutate({ step })}
    />
  );
}

interface ReturnsProps {
  readonly job: string;
  readonly view: JobView;
  readonly plan: Plan;
  readonly state: DrillView;
  readonly onAt: number;
  readonly now: number;
}

function Returns({ job, view, plan, state, onAt, now }: ReturnsProps) {
  const router = useRouter();
  const rows = drillRowsOf(state);
  const expected = expectedOf(plan, view);
  const all = worstFirst(returnsOf(expected, rows));
  const known = new Set(expected.map(({ mac }) => mac));
  const strangers = rows.filter(({ mac }) => !known.has(mac));
  const bad = all.filter(({ how }) => BAD.includes(how));
  const seconds = Math.max(0, Math.round((now - onAt) / 1000));
  return (
    <>
      <Words size="strong">
        {DRILL_WORDS.sDeviceSpokeOfBoundDevice({
          seconds,
          rows: rows.length,
          bad: bad.length,
          all: all.length,
        })}
      </Words>
      {all.length === 0 ? (
        <Notice tone="plain" title={DRILL_WORDS.noDeviceIsBoundYet}>
          {DRILL_WORDS.aColdStartTellsAboutDevices}
        </Notice>
      ) : null}
      <View>
        <LongList
          items={all}
          keyOf={({ expected: { interfaceId } }) => interfaceId}
          render={(one) => (
            <Line
              {...{ one, view, onAt }}
              onPress={() => router.navigate(`/job/${job}/call/${one.expected.interfaceId}`)}
            />
          )}
        />
      </View>
      {strangers.length > 0 ? (
        <Words size="second" tone="second">
          {DRILL_WORDS.otherSpokeThatNoDeviceOf({ strangers: strangers.length })}
        </Words>
      ) : null}
    </>
  );
}

const BAD: readonly string[] = ['asks', 'elsewhere', 'leans', 'silent'];

interface LineProps {
  readonly one: Returned;
  readonly view: JobView;
  readonly onAt: number;
  readonly onPress: () => void;
}

function Line({ one, view, onAt, onPress }: LineProps) {
  const wide = useWide();
  const { devices, subnets } = view;
  const { row, how } = one;
  const { interfaceId } = one.expected;
  const device = devices.find(({ interfaces }) => interfaces.some(({ id }) => id === interfaceId));
  const at = device?.interfaces.find(({ id }) => id === interfaceId);
  if (!device || !at) return null;
  const isBad = BAD.includes(how);
  const words = returnWords({
    how,
    seconds: row && Math.round((row.firstAt - onAt) / 100) / 10,
    has: row?.address && formatIpv4(row.address.value),
    by: row?.answered && formatIpv4(row.answered.by),
  });
  const network = subnets.find(({ id }) => id === at.subnetId)?.network;
  return (
    <Row label={device.title} onPress={onPress}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 12 }}>
        <View style={wide ? { flex: 1, flexDirection: 'row', gap: 16 } : { flex: 1 }}>
          <View style={wide ? { flex: 2 } : null}>
            <Words size="strong">{device.title}</Words>
          </View>
          <View style={wide ? { flex: 4 } : null}>
            <Words size="second" tone={how === 'starting' ? 'second' : isBad ? 'brick' : 'moss'}>
              {how === 'starting' ? '' : isBad ? '× ' : '✓ '}
              {words}
            </Words>
          </View>
        </View>
        <AddressText address={at.address} length={lengthOf(network)} still />
      </View>
    </Row>
  );
}
