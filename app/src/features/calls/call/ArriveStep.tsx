import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { evidenceWords, WAY_WORDS } from '@ipsonomo/language';
import { CALL_WORDS } from '@ipsonomo/language/screens/call';
import { acts, reading, useAct, useField } from '../../../data';
import { Notice, Refusals, timeOf, Words } from '../../../parts';
import { DeviceSwitches } from '../../switches';
import { issuesOf } from '../../words';
import { CardFileOf } from './CardFileOf';
import { CallPage, type Call } from './CallPage';
import { GuideSteps } from './GuideSteps';

/**
 * A device that gets its address at itself: from its switches, a card, its keypad. It is watched as it
 * comes up with the planned address; only then is there a MAC to bind.
 */
export function ArriveStep({ call }: { readonly call: Call }) {
  const { at, job, device } = call;
  const field = useField();
  const watch = useAct(acts.watchPower, { job, interface: at.id });
  const check = useAct(acts.check, { job });
  const task = field?.tasks.find((one) => one.kind === 'watch-power' && one.interfaceId === at.id);
  const bySwitches = device.way === 'switches';
  const act = bySwitches ? CALL_WORDS.powerOffTurnPowerOn : CALL_WORDS.powerOffAndOn;
  return (
    <CallPage
      call={call}
      action={
        task ? (
          <Words size="strong" align="center">
            {task.phase === 'waiting-gone'
              ? CALL_WORDS.lookingWhetherSomethingHasThe
              : CALL_WORDS.waitingToSeeComeUp({ address: at.address })}
          </Words>
        ) : (
          <Button
            size="lg"
            title={CALL_WORDS.watchIt({ act })}
            loading={watch.isPending}
            onPress={() => watch.mutate()}
          />
        )
      }
    >
      <Refusals issues={issuesOf(watch.error ?? check.error)} />
      {task ? <Awaiting call={call} phase={task.phase} /> : null}
      <DeviceSwitches plan={call.plan} deviceId={device.id} interfaceId={at.id} />
      <CardFileOf call={call} />
      <GuideSteps kind={call.kind} way={device.way} />
      {bySwitches || task ? null : (
        <Notice
          tone="plain"
          title={CALL_WORDS.giveItByItsOwnWay({ address: at.address, way: WAY_WORDS[device.way] })}
        >
          {CALL_WORDS.thenItIsWatchedAsIt}
        </Notice>
      )}
      {task ? null : (
        <Button
          type="outline"
          title={CALL_WORDS.itIsOnAlreadyLookFor}
          loading={check.isPending}
          onPress={() => check.mutate({ interfaceIds: [at.id] })}
        />
      )}
      {at.check && at.check.kind !== 'found-as-planned' ? (
        <Notice tone="ochre">{`${evidenceWords(at.check)} (${timeOf(at.check.at)})`}</Notice>
      ) : null}
    </CallPage>
  );
}

/** What is seen while it is awaited, and what came up instead. */
function Awaiting({ call, phase }: { readonly call: Call; readonly phase: string }) {
  const [latest] =
    useQuery(reading(acts.readEvidence, { job: call.job, interface: call.at.id })).data ?? [];
  const boot = call.kind?.bootSeconds ?? 10;
  if (latest?.kind === 'arrived-elsewhere')
    return (
      <Notice tone="brick" title={CALL_WORDS.somethingCameUpElsewhere}>
        {`${evidenceWords(latest)} (${timeOf(latest.at)}).`}
      </Notice>
    );
  if (phase === 'waiting-gone')
    return (
      <Notice tone="ochre" title={CALL_WORDS.isSomethingAtAlready({ address: call.at.address })}>
        {CALL_WORDS.ifSoItHasToBe}
      </Notice>
    );
  return (
    <Notice tone="plain" title={CALL_WORDS.nothingHasTheAddressNow}>
      {CALL_WORDS.setItAsDrawnThenPower({ boot })}
    </Notice>
  );
}
