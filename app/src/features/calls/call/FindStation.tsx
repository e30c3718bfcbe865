import { Button } from '@rneui/themed';
import { useState } from 'react';
import { View } from 'react-native';
import type { StationView } from '@ipsonomo/core/api';
import { judgeLabel, parseLabel, parseMac } from '@ipsonomo/core/net';
import { CALL_WORDS } from '@ipsonomo/language/screens/call';
import { acts, useAct, useActOn, useStations, useWire, isListening } from '../../../data';
import { Card, LabelCheck, Notice, Refusals, Row, Words, useDraft } from '../../../parts';
import { reasonWords } from '../assign/awaited';
import { issuesOf } from '../../words';
import { LabelField } from '../label/LabelField';
import { CallPage, type Call } from './CallPage';
import { StationLine } from './StationLine';
import { stationOffers } from './stations';

/** Nothing is bound yet: stations are searched over layer 2, and the right one told by label or lamp. */
export function FindStation({ call }: { readonly call: Call }) {
  const { job } = call;
  const { field, now } = useWire();
  const search = useAct(acts.searchStations, { job });
  const stations = useStations();
  const [chosen, setChosen] = useState<string>();
  const listening = isListening(field);
  const offers = listening ? stationOffers(call, stations) : [];
  const held = offers.find(({ station }) => station.mac === chosen)?.station;
  const isSearching = search.isPending || field?.tasks.some((one) => one.kind === 'search');
  if (held)
    return <HeldStation key={held.mac} {...{ call, now }} station={held} onOther={setChosen} />;
  return (
    <CallPage
      call={call}
      action={
        <Button
          size="lg"
          type={offers.length > 0 ? 'outline' : 'solid'}
          title={offers.length > 0 ? CALL_WORDS.searchAgain : CALL_WORDS.searchOverLayer2}
          loading={isSearching === true}
          onPress={() => search.mutate()}
        />
      }
    >
      <Refusals issues={issuesOf(search.error)} />
      {offers.length === 0 ? (
        <Notice
          tone="plain"
          {...(search.isSuccess ? { title: CALL_WORDS.noneThatItMayBeWas } : {})}
        >
          {search.isSuccess
            ? CALL_WORDS.stationAnsweredNoneOfItsKind({ stations: stations.length })
            : CALL_WORDS.everyStationOnThisWireIs}
        </Notice>
      ) : (
        <View>
          <Words size="strong" heading={2}>
            {offers.length === 1
              ? CALL_WORDS.thisMayBeIt
              : CALL_WORDS.mayBeIt({ offers: offers.length })}
          </Words>
          {offers.map(({ station, reasons }) => (
            <Row
              key={station.mac}
              label={CALL_WORDS.lookAt({ mac: station.mac })}
              onPress={() => setChosen(station.mac)}
            >
              <StationLine {...{ station, now }} note={reasonWords(reasons)} />
            </Row>
          ))}
        </View>
      )}
    </CallPage>
  );
}

interface HeldProps {
  readonly call: Call;
  readonly station: StationView;
  readonly now: number;
  readonly onOther: (none: undefined) => void;
}

/** One station is looked at: its label or its lamp decides whether it is the one. */
function HeldStation({ call, station, now, onOther }: HeldProps) {
  const { job, at } = call;
  const flash = useActOn(acts.flash);
  const bind = useAct(acts.bind, { job, interface: at.id });
  const [typed, setTyped, forget] = useDraft(`label ${at.id} ${station.mac}`);
  const mac = parseMac(station.mac);
  const label = typed === '' ? undefined : parseLabel(typed);
  const verdict = label?.ok && mac.ok ? judgeLabel(label.value.mac, mac.value) : undefined;
  const byLabel = verdict?.kind === 'same';
  const byLamp = flash.isSuccess && typed === '';
  const act = () =>
    void bind
      .mutateAsync({
        ...{ mac: station.mac, label: typed },
        ...(byLamp ? { reason: CALL_WORDS.itsLampFlashedWhenItWas } : {}),
      })
      .then(forget, () => undefined);
  return (
    <CallPage
      call={call}
      action={
        <>
          <Refusals issues={issuesOf(bind.error ?? flash.error)} />
          <Button
            size="lg"
            title={byLamp ? CALL_WORDS.itsLampFlashesBindIt : CALL_WORDS.bindThisOne}
            disabled={!byLabel && !byLamp}
            loading={bind.isPending}
            onPress={act}
          />
          {byLabel || byLamp ? null : (
            <Words size="caption" tone="second" align="center">
              {CALL_WORDS.onceLabelOrLampHasShown}
            </Words>
          )}
        </>
      }
    >
      <Card>
        {mac.ok ? (
          <LabelCheck label={label?.ok ? label.value.mac : undefined} heard={mac.value} />
        ) : null}
        <StationLine {...{ station, now }} bare />
        <Button
          type="outline"
          title={flash.isSuccess ? CALL_WORDS.flashItsLampAgain : CALL_WORDS.flashItsLamp}
          loading={flash.isPending}
          onPress={() => flash.mutate({ params: { job, mac: station.mac } })}
        />
        <LabelField label={CALL_WORDS.orTypeTheMacFromThe} value={typed} onChange={setTyped} />
        {byLabel ? <Notice tone="moss">{CALL_WORDS.labelAndWireAgree}</Notice> : null}
        {verdict && !byLabel ? (
          <Notice tone="brick">{CALL_WORDS.labelAndWireDifferThisIs}</Notice>
        ) : null}
      </Card>
      <Button type="clear" title={CALL_WORDS.lookAtTheOthers} onPress={() => onOther(undefined)} />
    </CallPage>
  );
}
