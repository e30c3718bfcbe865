import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { View } from 'react-native';
import { DRAWN, type VigilRowView, type VigilView } from '@ipsonomo/core/api';
import { vigilWords } from '@ipsonomo/language';
import type { Plan } from '@ipsonomo/core/plan';
import { secondsOf } from '@ipsonomo/core/vigil';
import { PROVE_WORDS } from '@ipsonomo/language/screens/prove';
import { VIGIL_WORDS } from '@ipsonomo/language/screens/vigil';
import { acts, download, pathOf, useAct, useJob, vigilQuery } from '../../../data';
import { Notice, Page, Pick, Refusals, Words, type PickOption } from '../../../parts';
import { useWide } from '../../../theme';
import { placesOf, scopeOf, WHOLE } from '../scopes';
import { issuesOf } from '../../words';
import { BeatStrip } from './BeatStrip';

const EVERY: readonly PickOption<number>[] = [
  { value: 1, title: VIGIL_WORDS.everySecond },
  { value: 10, title: VIGIL_WORDS.every10S },
  { value: 60, title: VIGIL_WORDS.everyMinute },
];

const LONG: readonly PickOption<number>[] = [
  { value: 10, title: VIGIL_WORDS.n10Minutes },
  { value: 60, title: VIGIL_WORDS.n1Hour },
  { value: 480, title: VIGIL_WORDS.n8Hours, detail: VIGIL_WORDS.aShift },
  { value: 1440, title: VIGIL_WORDS.n24Hours },
];

/** Chosen devices asked over minutes to hours: who is lost when, and in which beat. */
export function VigilScreen({ job: id }: { readonly job: string }) {
  const { job, error } = useJob(id);
  const [place, setPlace] = useState(WHOLE);
  const [everySeconds, setEvery] = useState(1);
  const [minutes, setMinutes] = useState(10);
  const start = useAct(acts.beginVigil, { job: id });
  const stop = useAct(acts.endVigil, { job: id });
  const { data: vigil } = useQuery(vigilQuery(id));
  const goesOn = vigil?.state !== undefined && vigil.state !== null && vigil.state.how === null;
  return (
    <Page
      maxWidth={1100}
      action={
        <>
          <Refusals issues={issuesOf(start.error ?? stop.error)} />
          {goesOn ? (
            <Button
              size="lg"
              title={VIGIL_WORDS.endTheVigil}
              loading={stop.isPending}
              onPress={() => stop.mutate()}
            />
          ) : (
            <Button
              size="lg"
              title={VIGIL_WORDS.beginTheVigil}
              loading={start.isPending}
              onPress={() => start.mutate({ scope: scopeOf(place), everySeconds, minutes })}
            />
          )}
        </>
      }
    >
      <View style={{ gap: 4 }}>
        <Words size="title" heading={1}>
          {PROVE_WORDS.vigil}
        </Words>
        <Words tone="second">{VIGIL_WORDS.devicesAreAskedInASteady}</Words>
      </View>
      <Refusals issues={issuesOf(error)} />
      {job && !goesOn ? (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12 }}>
          <View style={{ flexGrow: 1, minWidth: 160 }}>
            <Pick
              label={VIGIL_WORDS.whom}
              options={placesOf(job.plan)}
              value={place}
              onChange={setPlace}
            />
          </View>
          <View style={{ flexGrow: 1, minWidth: 110 }}>
            <Pick
              label={VIGIL_WORDS.howOften}
              options={EVERY}
              value={everySeconds}
              onChange={setEvery}
            />
          </View>
          <View style={{ flexGrow: 1, minWidth: 110 }}>
            <Pick
              label={VIGIL_WORDS.howLong}
              options={LONG}
              value={minutes}
              onChange={setMinutes}
            />
          </View>
        </View>
      ) : null}
      {job && vigil?.state ? <Watched {...{ id, vigil, plan: job.plan }} /> : null}
    </Page>
  );
}

interface WatchedProps {
  readonly id: string;
  readonly vigil: VigilView;
  readonly plan: Plan;
}

function Watched({ id, vigil, plan }: WatchedProps) {
  const { state, rows } = vigil;
  if (!state) return null;
  const done = secondsOf(state.begun, state.everyMillis);
  const all = secondsOf(state.beats, state.everyMillis);
  const lossy = rows.filter(({ summary }) => summary.lost > 0).length;
  const most = Math.max(5, ...rows.map(({ summary }) => summary.slowest ?? 0));
  return (
    <>
      <View style={{ gap: 2 }}>
        <Words size="strong">
          {VIGIL_WORDS.of({
            done: clock(done),
            all: clock(all),
            lossy:
              lossy === 0 ? VIGIL_WORDS.nothingLost : VIGIL_WORDS.deviceLostSomething({ lossy }),
          })}
        </Words>
        <Words size="second" tone="second">
          {VIGIL_WORDS.barsTheSlowestAnswerUpTo({ most: Math.ceil(most) })}
        </Words>
      </View>
      {state.how === 'stopped' ? (
        <Notice tone="plain" title={VIGIL_WORDS.itWasEndedBeforeItsTime}>
          {VIGIL_WORDS.whatWasSeenUntilThenIs}
        </Notice>
      ) : null}
      <View>
        {rows.slice(0, DRAWN).map((row) => (
          <WatchedRow key={row.interfaceId} {...{ row, plan, vigil, most }} />
        ))}
        {rows.length > DRAWN ? (
          <Words size="second" tone="second">
            {VIGIL_WORDS.andMoreThatLostLessAll({ rows: rows.length - DRAWN })}
          </Words>
        ) : null}
      </View>
      <Button
        type="outline"
        title={VIGIL_WORDS.downloadEveryBeatAsATable}
        onPress={() => download(pathOf(acts.fetchVigil, { job: id }))}
      />
    </>
  );
}

const clock = (seconds: number): string => {
  const whole = Math.floor(seconds);
  const part = (value: number) => String(value).padStart(2, '0');
  const hours = Math.floor(whole / 3600);
  const rest = `${part(Math.floor(whole / 60) % 60)}:${part(whole % 60)}`;
  return hours > 0 ? `${hours}:${rest}` : rest;
};

function WatchedRow({
  row,
  plan,
  vigil,
  most,
}: {
  readonly row: VigilRowView;
  readonly plan: Plan;
  readonly vigil: VigilView;
  readonly most: number;
}) {
  const wide = useWide();
  const { summary, buckets, interfaceId } = row;
  const device = plan.devices.find(({ interfaces }) =>
    interfaces.some(({ id }) => id === interfaceId),
  );
  const words = vigilWords(summary, vigil.state?.everyMillis ?? 1000);
  const isFine = summary.lost === 0;
  const title = device?.title ?? PROVE_WORDS.noLongerInThePlan;
  return (
    <View
      style={{ flexDirection: wide ? 'row' : 'column', columnGap: 16, paddingVertical: 8, gap: 2 }}
    >
      <View style={wide ? { flex: 2 } : null}>
        <Words size="strong" lines={1}>
          {title}
        </Words>
        <Words size="second" tone={summary.asked === 0 ? 'second' : isFine ? 'moss' : 'brick'}>
          {summary.asked === 0 ? '' : isFine ? '✓ ' : '× '}
          {words}
        </Words>
      </View>
      <View style={wide ? { flex: 4 } : null}>
        <BeatStrip
          {...{ buckets, most, total: vigil.buckets }}
          label={VIGIL_WORDS.beatByBeat({ title, words })}
        />
      </View>
    </View>
  );
}
