import { Button } from '@rneui/themed';
import { useState } from 'react';
import { View } from 'react-native';
import { formatMac, parseLabel } from '@ipsonomo/core/net';
import { CALLS_WORDS } from '@ipsonomo/language/screens/calls';
import { DESK_WORDS } from '@ipsonomo/language/screens/desk';
import { acts, useAct, usePlan } from '../../../data';
import {
  AddressText,
  LongList,
  MacText,
  Notice,
  Page,
  Pick,
  Refusals,
  Row,
  Words,
  useDraft,
} from '../../../parts';
import { LabelField } from '../label/LabelField';
import { issuesOf, lengthOf, placeOf } from '../../words';
import { kindsWaiting, waitingFor, type Waiting } from './boxes';

/** Boxes as they come in: each sticker is bound at the desk, so that on site the first power-up is answered. */
export function DeskScreen({ job }: { readonly job: string }) {
  const { view, plan } = usePlan(job);
  const [kindId, setKindId] = useState<string>();
  const [typed, setTyped] = useDraft(`desk ${job}`);
  const [chosen, setChosen] = useState<string>();
  const [last, setLast] = useState<Waiting>();
  const all = view && plan ? waitingFor(view, plan) : [];
  const kinds = kindsWaiting(all);
  const waiting = kindId === undefined ? all : all.filter(({ device }) => device.kindId === kindId);
  // Without a choice the next of the kind is meant; of several kinds nobody can know.
  const meant =
    waiting.find(({ at }) => at.id === chosen) ??
    (kindId !== undefined || kinds.length === 1 ? waiting[0] : undefined);
  const bind = useAct(acts.bind, { job, interface: meant?.at.id ?? '' });
  const label = typed === '' ? undefined : parseLabel(typed);
  const act = () => {
    if (!meant || !label?.ok || bind.isPending) return;
    const binding = { mac: formatMac(label.value.mac), label: typed };
    bind.mutate(binding, {
      onSuccess: () => {
        setLast(meant);
        setTyped('');
        setChosen(undefined);
      },
    });
  };
  return (
    <Page
      action={
        <>
          <Refusals issues={issuesOf(bind.error)} />
          <Button
            size="lg"
            title={
              meant
                ? DESK_WORDS.bindTo({ title: meant.device.title })
                : DESK_WORDS.chooseWhichDeviceItIs
            }
            disabled={!meant || !label?.ok}
            loading={bind.isPending}
            onPress={act}
          />
        </>
      }
    >
      <Words size="title" heading={1}>
        {CALLS_WORDS.boxesAtTheDesk}
      </Words>
      <Words tone="second">{DESK_WORDS.scanOrTypeTheStickerOf}</Words>
      <LabelField
        label={DESK_WORDS.stickerOfTheBox}
        value={typed}
        onChange={setTyped}
        onEnter={act}
      />
      {label?.ok && label.value.repairs.length > 0 ? (
        <Notice tone="ochre" title={DESK_WORDS.lettersThatAreNoHexWere}>
          {label.value.repairs.map(({ from, to }) => DESK_WORDS.readAs({ from, to })).join(', ')}
        </Notice>
      ) : null}
      <Pick
        label={DESK_WORDS.whatIsInTheBox}
        options={[
          { value: undefined, title: DESK_WORDS.anyKind },
          ...kinds.map((one) => ({
            value: one.kindId,
            title: one.title,
            detail: DESK_WORDS.deviceWithoutAMac({ count: one.count }),
          })),
        ]}
        value={kindId}
        onChange={setKindId}
      />
      {last ? <LastBound key={last.at.id} job={job} last={last} /> : null}
      <Words size="strong" heading={2}>
        {waiting.length === 0
          ? DESK_WORDS.nothingWaitsForASticker
          : DESK_WORDS.otherWithoutAMacMac({ waiting: waiting.length })}
      </Words>
      <View>
        <LongList
          items={waiting}
          keyOf={({ at }) => at.id}
          render={(one) => (
            <WaitingRow
              one={one}
              length={lengthOf(view?.subnets.find(({ id }) => id === one.at.subnetId)?.network)}
              isMeant={one === meant}
              onPress={() => setChosen(one.at.id)}
            />
          )}
        />
      </View>
    </Page>
  );
}

interface WaitingProps {
  readonly one: Waiting;
  readonly length: number | undefined;
  readonly isMeant: boolean;
  readonly onPress: () => void;
}

/** A device without a MAC that the box may be for. */
function WaitingRow({ one, length, isMeant, onPress }: WaitingProps) {
  return (
    <Row label={DESK_WORDS.itIs({ title: one.device.title })} selected={isMeant} onPress={onPress}>
      <View style={{ flexDirection: 'row', justifyContent: 'space-between', gap: 8 }}>
        <View style={{ flex: 1 }}>
          <Words size="strong">{one.device.title}</Words>
          <Words size="second" tone="second">
            {[placeOf(one.device), one.kind?.name].filter(Boolean).join(' · ')}
          </Words>
        </View>
        <AddressText still address={one.at.address} length={length} />
      </View>
    </Row>
  );
}

/** What was bound just now, and the way back from a wrong one. */
function LastBound({ job, last }: { readonly job: string; readonly last: Waiting }) {
  const { view } = usePlan(job);
  const unbind = useAct(acts.unbind, { job, interface: last.at.id });
  const now = view?.devices
    .flatMap(({ interfaces }) => interfaces)
    .find(({ id }) => id === last.at.id);
  if (!now?.mac) return null;
  return (
    <Notice tone="moss" title={DESK_WORDS.isBound({ title: last.device.title })}>
      <View style={{ gap: 6 }}>
        <MacText mac={now.mac} />
        <Refusals issues={issuesOf(unbind.error)} />
        <Button
          type="outline"
          title={DESK_WORDS.takeItBack}
          loading={unbind.isPending}
          onPress={() => unbind.mutate()}
        />
      </View>
    </Notice>
  );
}
