import { Button } from '@rneui/themed';
import { useState } from 'react';
import { View } from 'react-native';
import type { StationGiving, StationView } from '@ipsonomo/core/api';
import { evidenceWords, nameSlipWords } from '@ipsonomo/language';
import { findDevice, stationNameOf } from '@ipsonomo/core/plan';
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
        error={giving.error}
        title="The machine may stop: give it all the same"
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
          <GiveButton call={call} give="name" title={`Give it the name ${name}`} />
        ) : (
          <GiveButton call={call} give="stored" title="Give name and address, to stay" />
        )
      }
    >
      <Refusals issues={issuesOf(search.error)} />
      {at.trouble ? (
        <Notice tone="brick" title="It was not given">
          {`${evidenceWords(at.trouble)} (${timeOf(at.trouble.at)}).`}
        </Notice>
      ) : null}
      <Card>
        <Words size="second" tone="second">
          planned name
        </Words>
        <Words size="device">{name}</Words>
        <Words size="second" tone="second">
          in it now
        </Words>
        {station ? (
          <StationLine {...{ station, now }} bare />
        ) : (
          <Words size="second">It was not found in this run.</Words>
        )}
        <Button
          type="outline"
          title={station ? 'Look again' : 'Search over layer 2'}
          loading={search.isPending}
          onPress={() => search.mutate()}
        />
      </Card>
      {slip ? (
        <Notice tone="brick" title="Nearly its name, and not its name">
          {slip}
        </Notice>
      ) : null}
      {byController ? (
        <ByController name={name} isNamed={station?.name === name} />
      ) : (
        <GiveButton
          {...{ call, give: 'temporary', type: 'outline' }}
          title="Only for now, until power-off"
        />
      )}
      {station && isUsed(station, name) ? <Used call={call} station={station} /> : null}
      <Bound call={call} />
    </CallPage>
  );
}

/** The controller does the rest, if its project has this very name. */
function ByController({ name, isNamed }: { readonly name: string; readonly isNamed: boolean }) {
  if (!isNamed)
    return (
      <Notice tone="plain">
        Its controller gives it the address when it starts, to whoever has this name. Then it is
        seen here by itself.
      </Notice>
    );
  return (
    <Notice tone="ochre" title="It has its name and waits for its controller">
      {`If nothing comes within a minute: does the controller run, on this network? Does its project have exactly ${name}, letter by letter, and has no other device that name?`}
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
      <Notice tone="ochre" title="It was used before">
        {`It goes by ${station.name}${station.address ? ` and has ${station.address}` : ''}. Is it really free? Giving a name overwrites that one; setting it back clears all.`}
      </Notice>
      <EvenSo
        error={reset.error}
        title="The machine may stop: set it back all the same"
        onEvenSo={setBack}
      />
      {open ? (
        <>
          <Field
            label="Why is it free to be set back?"
            value={reason}
            onChange={setReason}
            placeholder="taken from the old press line"
          />
          <Button
            type="outline"
            title="Set it back to how it left its maker"
            disabled={reason.trim() === ''}
            loading={reset.isPending}
            onPress={() => setBack()}
          />
        </>
      ) : (
        <Button type="outline" title="Set it back first" onPress={() => setOpen(true)} />
      )}
    </View>
  );
}
