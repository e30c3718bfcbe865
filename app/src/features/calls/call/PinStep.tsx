import { Button } from '@rneui/themed';
import { View } from 'react-native';
import { evidenceWords } from '@ipsonomo/language';
import { isByHand, isKeyed, isNamedOverLayer2 } from '@ipsonomo/core/plan';
import { CALL_WORDS } from '@ipsonomo/language/screens/call';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { acts, useAct, useField, type Acting } from '../../../data';
import { Notice, timeOf, Words } from '../../../parts';
import { Bound } from './Bound';
import { CallPage, type Call } from './CallPage';
import { EvenSo } from './EvenSo';
import { GiveButton } from './GiveStation';
import { Watching } from './Watching';

/** It has the address for now: make it stay, then see it come back by itself. */
export function PinStep({ call }: { readonly call: Call }) {
  const { at, job } = call;
  const field = useField();
  const pin = useAct(acts.pin, { job, interface: at.id });
  const said = useAct(acts.sayKept, { job, interface: at.id });
  const watch = useAct(acts.watchPower, { job, interface: at.id });
  const task = field?.tasks.find((one) => one.kind === 'watch-power' && one.interfaceId === at.id);
  const told = at.keep !== null && at.keep.kind !== 'keep-refused';
  if (task) return <Watching call={call} phase={task.phase} />;
  const byController = call.device.way === 'controller';
  const asksAlways = isKeyed(call.device.way) || byController;
  const isStored =
    asksAlways || (call.kind?.pinning.by === 'stays' && !isNamedOverLayer2(call.device.way));
  // What was typed at the device is kept there by what was done with it; only the power cut shows it.
  const byHand = isByHand(call.device.way);
  const ready = told || isStored || byHand;
  const watchButton = (type: 'solid' | 'outline') => (
    <Button
      size="lg"
      type={type}
      title={ready ? CALL_WORDS.nowCutItsPowerAndWatch : CALL_WORDS.cutItsPowerWithoutItAnd}
      loading={watch.isPending}
      onPress={() => watch.mutate()}
    />
  );
  return (
    <CallPage
      call={call}
      action={ready ? watchButton('solid') : <MakeItStay call={call} pin={pin} said={said} />}
    >
      {told && at.keep ? (
        <Notice tone="moss" title={evidenceWords(at.keep)}>
          {CALL_WORDS.whetherItStaysIsSeenOnly({ at: timeOf(at.keep.at) })}
        </Notice>
      ) : isStored ? (
        <Notice
          tone="plain"
          title={
            byController
              ? CALL_WORDS.itsControllerGivesItAtEvery
              : asksAlways
                ? CALL_WORDS.itAsksAtEveryStart
                : CALL_WORDS.suchADeviceKeepsItsAddress
          }
        >
          {byController
            ? CALL_WORDS.itsControllerGivesItTheAddressOn
            : asksAlways
              ? CALL_WORDS.itsAddressStaysWhenTheDhcp
              : CALL_WORDS.whetherItStaysIsSeenOnlyOn}
        </Notice>
      ) : byHand ? (
        <Notice tone="ochre" title={CALL_WORDS.whetherItStaysIsNotSeen}>
          {CALL_WORDS.itHasTheAddressNowLook}
        </Notice>
      ) : (
        <Notice tone="ochre" title={CALL_WORDS.theAddressIsTemporary}>
          {CALL_WORDS.itIsGoneAtTheNext}
        </Notice>
      )}
      {at.keep?.kind === 'keep-refused' ? (
        <Notice tone="brick" title={CALL_WORDS.itWasNotTold}>
          {`${evidenceWords(at.keep)} (${timeOf(at.keep.at)})`}
        </Notice>
      ) : null}
      <EvenSo
        about={at.id}
        error={pin.error}
        title={CALL_WORDS.theMachineMayStopTellIt}
        onEvenSo={(evenSo) => pin.mutate({ evenSo })}
      />
      <EvenSo
        about={at.id}
        error={said.error ?? watch.error}
        title={CALL_WORDS.theMachineMayStopCutIts}
        onEvenSo={(evenSo) => watch.mutate({ evenSo })}
      />
      <Steps call={call} />
      {ready ? null : watchButton('outline')}
      <Bound call={call} />
    </CallPage>
  );
}

function MakeItStay({
  call,
  pin,
  said,
}: {
  readonly call: Call;
  readonly pin: Acting<typeof acts.pin>;
  readonly said: Acting<typeof acts.sayKept>;
}) {
  if (isNamedOverLayer2(call.device.way))
    return <GiveButton call={call} give="stored" title={CALL_WORDS.storeNameAndAddressInIt} />;
  if (call.kind?.pinning.by === 'tcpip-object')
    return (
      <Button
        size="lg"
        title={CALL_WORDS.tellItToKeepTheAddress}
        loading={pin.isPending}
        onPress={() => pin.mutate()}
      />
    );
  return (
    <Button
      size="lg"
      title={CALL_WORDS.doneAtTheDevice}
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
        {COMMON_WORDS.atTheDevice}
      </Words>
      {pinning.steps.map((step, index) => (
        <Words key={step}>{`${index + 1}. ${step}`}</Words>
      ))}
    </View>
  );
}
