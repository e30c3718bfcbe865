import { Button } from '@rneui/themed';
import { useState } from 'react';
import { View } from 'react-native';
import type { StationGiving, StationView } from '@ipsonomo/core/api';
import { evidenceWords, nameSlipWords } from '@ipsonomo/language';
import { findDevice, stationNameOf } from '@ipsonomo/core/plan';
import { CALL_WORDS } from '@ipsonomo/language/screens/call';
import { acts, useAct, useField, useStations, useWire } from '../../../data';
import { Card, Field, Notice, Refusals, timeOf, Words, useDraft } from '../../../parts';
import { issuesOf } from '../../words';
import { Bound } from './Bound';
import { CallPage, type Call } from './CallPage';
import { EvenSo } from './EvenSo';
import { StationLine } from './StationLine';

interface GiveProps {
  readonly call: Call;
  readonly give: StationGiving['give'];
  readonly title: string;
  readonly type?: 'solid' | 'outline';
}

/** Gives a bound station what is planned for it. */
export function GiveButton({ call, give, title, type = 'solid' }: GiveProps) {
  const { job, at } = call;
  const field = useField();
  const giving = useAct(acts.giveStation, { job, interface: at.id });
  const busy = field?.tasks.some((one) => one.kind === 'station-set' && one.interfaceId === at.id);
  return (
    <>
      <EvenSo
        about={at.id}
        error={giving.error}
        title={CALL_WORDS.theMachineMayStopGiveIt}
        onEvenSo={(evenSo) => giving.mutate({ give, evenSo })}
      />
      <Button
        size="lg"
        type={type}
        title={title}
        disabled={busy === true && !giving.isPending}
        loading={giving.isPending}
        onPress={() => giving.mutate({ give })}
      />
    </>
  );
}

/** A station that is bound: its planned name and address, given over layer 2. */
export function GiveStation({ call }: { readonly call: Call }) {
  const { job, at, device } = call;
  const { now } = useWire();
  const station = useStations().find((one) => one.mac === at.mac);
  const search = useAct(acts.searchStations, { job });
  const planned = findDevice(call.plan, device.id);
  const name = planned ? stationNameOf(planned) : device.name;
  const byController = device.way === 'controller';
  const slip = station?.name ? nameSlipWords(station.name, name) : undefined;
  return (
    <CallPage
      call={call}
      action={
        byController ? (
          <GiveButton call={call} give="name" title={CALL_WORDS.giveItTheName({ name })} />
        ) : (
          <GiveButton call={call} give="stored" title={CALL_WORDS.giveNameAndAddressToStay} />
        )
      }
    >
      <Refusals issues={issuesOf(search.error)} />
      {at.trouble ? (
        <Notice tone="brick" title={CALL_WORDS.itWasNotGiven}>
          {`${evidenceWords(at.trouble)} (${timeOf(at.trouble.at)}).`}
        </Notice>
      ) : null}
      <Card>
        <Words size="second" tone="second">
          {CALL_WORDS.plannedName}
        </Words>
        <Words size="device">{name}</Words>
        <Words size="second" tone="second">
          {CALL_WORDS.inItNow}
        </Words>
        {station ? (
          <StationLine {...{ station, now }} bare />
        ) : (
          <Words size="second">{CALL_WORDS.itWasNotFoundInThis}</Words>
        )}
        <Button
          type="outline"
          title={station ? CALL_WORDS.lookAgain : CALL_WORDS.searchOverLayer2}
          loading={search.isPending}
          onPress={() => search.mutate()}
        />
      </Card>
      {slip ? (
        <Notice tone="brick" title={CALL_WORDS.nearlyItsNameAndNotIts}>
          {slip}
        </Notice>
      ) : null}
      {byController ? (
        <ByController name={name} isNamed={station?.name === name} />
      ) : (
        <GiveButton
          {...{ call, give: 'temporary', type: 'outline' }}
          title={CALL_WORDS.onlyForNowUntilPowerOff}
        />
      )}
      {station && isUsed(station, name) ? <Used call={call} station={station} /> : null}
      <Bound call={call} />
    </CallPage>
  );
}

/** The controller does the rest, if its project has this very name. */
function ByController({ name, isNamed }: { readonly name: string; readonly isNamed: boolean }) {
  if (!isNamed) return <Notice tone="plain">{CALL_WORDS.itsControllerGivesItTheAddress}</Notice>;
  return (
    <Notice tone="ochre" title={CALL_WORDS.itHasItsNameAndWaits}>
      {CALL_WORDS.ifNothingComesWithinAMinute({ name })}
    </Notice>
  );
}

const isUsed = ({ name }: StationView, planned: string): boolean =>
  name !== null && name !== '' && name !== planned;

/** It carries another job's name: set back by a deliberate act with a reason, never in bulk. */
function Used({ call, station }: { readonly call: Call; readonly station: StationView }) {
  const { job, at } = call;
  const reset = useAct(acts.resetStation, { job, interface: at.id });
  const [open, setOpen] = useState(false);
  const [reason, setReason, forget] = useDraft(`set back ${at.id}`);
  const setBack = (evenSo?: string) => {
    const said = { reason: reason.trim(), ...(evenSo === undefined ? {} : { evenSo }) };
    void reset.mutateAsync(said).then(forget, () => undefined);
  };
  return (
    <View style={{ gap: 10 }}>
      <Notice tone="ochre" title={CALL_WORDS.itWasUsedBefore}>
        {CALL_WORDS.itGoesByIsItReally({
          name: station.name ?? '',
          address: station.address ? CALL_WORDS.andHas({ address: station.address }) : '',
        })}
      </Notice>
      <EvenSo
        about={at.id}
        error={reset.error}
        title={CALL_WORDS.theMachineMayStopSetIt}
        onEvenSo={setBack}
      />
      {open ? (
        <>
          <Field
            label={CALL_WORDS.whyIsItFreeToBe}
            value={reason}
            onChange={setReason}
            placeholder={CALL_WORDS.takenFromTheOldPressLine}
          />
          <Button
            type="outline"
            title={CALL_WORDS.setItBackToHowIt}
            disabled={reason.trim() === ''}
            loading={reset.isPending}
            onPress={() => setBack()}
          />
        </>
      ) : (
        <Button type="outline" title={CALL_WORDS.setItBackFirst} onPress={() => setOpen(true)} />
      )}
    </View>
  );
}
