import { Button } from '@rneui/themed';
import { useState } from 'react';
import { View } from 'react-native';
import type { StationView } from '@ipsonomo/core/api';
import { judgeLabel, parseLabel, parseMac } from '@ipsonomo/core/net';
import { acts, useAct, useActOn, useStations, useWire, isListening } from '../../../data';
import { Card, LabelCheck, Notice, Refusals, Row, Words, useDraft } from '../../../parts';
import { reasonWords } from '../assign/awaited';
import { issuesOf, plural } from '../../words';
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
          title={offers.length > 0 ? 'Search again' : 'Search over layer 2'}
          loading={isSearching === true}
          onPress={() => search.mutate()}
        />
      }
    >
      <Refusals issues={issuesOf(search.error)} />
      {offers.length === 0 ? (
        <Notice
          tone="plain"
          {...(search.isSuccess ? { title: 'None that it may be was found' } : {})}
        >
          {search.isSuccess
            ? `${plural(stations.length, 'station')} answered, none of its kind and free. Is it on, with a link lamp, in this subnet's switch? The search never crosses a router.`
            : 'Every station on this wire is asked who it is, whatever its address. That changes nothing.'}
        </Notice>
      ) : (
        <View>
          <Words size="strong" heading={2}>
            {offers.length === 1 ? 'This may be it' : `${offers.length} may be it`}
          </Words>
          {offers.map(({ station, reasons }) => (
            <Row
              key={station.mac}
              label={`look at ${station.mac}`}
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
        ...(byLamp ? { reason: 'its lamp flashed when it was asked to' } : {}),
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
            title={byLamp ? 'Its lamp flashes: bind it' : 'Bind this one'}
            disabled={!byLabel && !byLamp}
            loading={bind.isPending}
            onPress={act}
          />
          {byLabel || byLamp ? null : (
            <Words size="caption" tone="second" align="center">
              once label or lamp has shown it is the one
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
          title={flash.isSuccess ? 'Flash its lamp again' : 'Flash its lamp'}
          loading={flash.isPending}
          onPress={() => flash.mutate({ params: { job, mac: station.mac } })}
        />
        <LabelField
          label="Or type the MAC from the label, in any notation"
          value={typed}
          onChange={setTyped}
        />
        {byLabel ? <Notice tone="moss">Label and wire agree.</Notice> : null}
        {verdict && !byLabel ? (
          <Notice tone="brick">Label and wire differ: this is another device.</Notice>
        ) : null}
      </Card>
      <Button type="clear" title="Look at the others" onPress={() => onOther(undefined)} />
    </CallPage>
  );
}
