import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { View } from 'react-native';
import { evidenceWords } from '@ipsonomo/core';
import { evidenceQuery, useInterfaceAct, useWire } from '../../data';
import { Notice, Refusals, timeOf, Words } from '../../parts';
import { issuesOf } from '../words';
import { Bound } from './Bound';
import { CallPage, type Call } from './CallPage';

/** It has the address for now: make it stay, then see it come back by itself. */
export function PinStep({ call }: { readonly call: Call }) {
  const { at, job } = call;
  const { field } = useWire();
  const pin = useInterfaceAct(job, at.id, 'pin');
  const said = useInterfaceAct(job, at.id, 'said-kept');
  const watch = useInterfaceAct(job, at.id, 'watch-power');
  const task = field?.tasks.find((one) => one.kind === 'watch-power' && one.interfaceId === at.id);
  const told = at.keep !== null && at.keep.kind !== 'keep-refused';
  if (task) return <Watching call={call} phase={task.phase} />;
  const watchButton = (type: 'solid' | 'outline') => (
    <Button
      size="lg"
      type={type}
      title={told ? 'Now cut its power and watch' : 'Cut its power without it, and watch'}
      loading={watch.isPending}
      onPress={() => watch.mutate()}
    />
  );
  return (
    <CallPage
      call={call}
      action={told ? watchButton('solid') : <MakeItStay call={call} pin={pin} said={said} />}
    >
      {told && at.keep ? (
        <Notice tone="moss" title={evidenceWords(at.keep.kind, at.keep.facts)}>
          {`${timeOf(at.keep.at)}. Whether it stays is seen only after power off and on.`}
        </Notice>
      ) : (
        <Notice tone="ochre" title="The address is temporary">
          It is gone at the next power-off, until the device is told to keep it.
        </Notice>
      )}
      {at.keep?.kind === 'keep-refused' ? (
        <Notice tone="brick" title="It was not told">
          {`${evidenceWords(at.keep.kind, at.keep.facts)} (${timeOf(at.keep.at)})`}
        </Notice>
      ) : null}
      <Refusals issues={issuesOf(pin.error ?? said.error ?? watch.error)} />
      <Steps call={call} />
      {told ? null : watchButton('outline')}
      <Bound call={call} />
    </CallPage>
  );
}

type Act = ReturnType<typeof useInterfaceAct>;

function MakeItStay({
  call,
  pin,
  said,
}: {
  readonly call: Call;
  readonly pin: Act;
  readonly said: Act;
}) {
  if (call.kind?.pinning.by === 'tcpip-object')
    return (
      <Button
        size="lg"
        title="Tell it to keep the address"
        loading={pin.isPending}
        onPress={() => pin.mutate()}
      />
    );
  return (
    <Button
      size="lg"
      title="Done at the device"
      loading={said.isPending}
      onPress={() => said.mutate()}
    />
  );
}

/** The kind's own way to keep an address, in order. */
function Steps({ call }: { readonly call: Call }) {
  const pinning = call.kind?.pinning;
  if (!pinning || pinning.steps.length === 0) return null;
  return (
    <View style={{ gap: 6 }}>
      <Words size="strong" heading={2}>
        At the device
      </Words>
      {pinning.steps.map((step, index) => (
        <Words key={step}>{`${index + 1}. ${step}`}</Words>
      ))}
    </View>
  );
}

const PHASES = [
  ['waiting-gone', 'Switch its power off'],
  ['waiting-back', 'Switch it on again'],
] as const;

function Watching({ call, phase }: { readonly call: Call; readonly phase: string }) {
  const at = PHASES.findIndex(([name]) => name === phase);
  const [latest] = useQuery(evidenceQuery(call.job, call.at.id)).data ?? [];
  const boot = call.kind?.bootSeconds ?? 10;
  return (
    <CallPage
      call={call}
      action={
        <Words size="strong" align="center">
          {phase === 'waiting-gone' ? 'Waiting to see it gone' : 'Waiting to see it back'}
        </Words>
      }
    >
      <View style={{ gap: 12 }}>
        {PHASES.map(([name, words], index) => (
          <View key={name} style={{ flexDirection: 'row', gap: 14, alignItems: 'center' }}>
            <Words size="device" tone={index < at ? 'moss' : index === at ? 'plum' : 'second'}>
              {index < at ? '✓' : String(index + 1)}
            </Words>
            <View>
              <Words size={index === at ? 'device' : 'body'} tone={index > at ? 'second' : 'ink'}>
                {words}
              </Words>
              <Words size="second" tone="second">
                {index < at
                  ? 'seen gone'
                  : name === 'waiting-back'
                    ? `it starts in about ${boot} s`
                    : ''}
              </Words>
            </View>
          </View>
        ))}
      </View>
      {latest?.kind === 'back-too-soon' ? (
        <Notice tone="ochre" title="That was not a power cut">
          {`It was ${evidenceWords(latest.kind, latest.facts)} (${timeOf(latest.at)}). Once more.`}
        </Notice>
      ) : null}
      <Notice tone="plain">
        The power, not the network cable: a device that keeps its power keeps any address. While it
        is watched Ipsonomo does not answer it, so what it comes back with is its own.
      </Notice>
    </CallPage>
  );
}
