import { Button } from '@rneui/themed';
import { evidenceWords, isAsking, isNamedOverLayer2, WAY_WORDS } from '@ipsonomo/core';
import { useCheck, useWire } from '../../data';
import { Notice, Refusals, timeOf } from '../../parts';
import { DeviceSwitches } from '../switches/DeviceSwitches';
import { agoWords, issuesOf } from '../words';
import { AnswerAction, useAnswering } from './Answering';
import { Bound } from './Bound';
import { CallPage, type Call } from './CallPage';
import { GiveStation } from './GiveStation';
import { GuideSteps } from './GuideSteps';

/** Bound, not given yet: its next request is answered while Ipsonomo answers. */
export function GiveStep({ call }: { readonly call: Call }) {
  if (isNamedOverLayer2(call.device.way)) return <GiveStation call={call} />;
  return isAsking(call.device.way) ? <Answer call={call} /> : <Elsewhere call={call} />;
}

/** Its address comes by another way: all Ipsonomo can do is look whether it is there. */
function Elsewhere({ call }: { readonly call: Call }) {
  const { at, job, device } = call;
  const { field } = useWire();
  const check = useCheck(job);
  const asking = field?.tasks.some((one) => one.kind === 'check' && one.interfaceId === at.id);
  return (
    <CallPage
      call={call}
      action={
        <Button
          size="lg"
          title="Look whether it has the address"
          loading={asking || check.isPending}
          onPress={() => check.mutate([at.id])}
        />
      }
    >
      <Refusals issues={issuesOf(check.error)} />
      <Notice tone="plain" title={`Give it ${at.address} by its own way: ${WAY_WORDS[device.way]}`}>
        Then look for it. It counts as given once its MAC is seen with the address.
      </Notice>
      <DeviceSwitches plan={call.plan} deviceId={device.id} interfaceId={at.id} />
      <GuideSteps kind={call.kind} way={device.way} />
      {at.check && at.check.kind !== 'found-as-planned' ? (
        <Notice tone="brick">
          {`${evidenceWords(at.check.kind, at.check.facts)} (${timeOf(at.check.at)})`}
        </Notice>
      ) : null}
      <Bound call={call} />
    </CallPage>
  );
}

function Answer({ call }: { readonly call: Call }) {
  const { at, job, offers } = call;
  const answering = useAnswering(job);
  const { isAnswering, now } = answering;
  const [offer] = offers;
  const last = offer
    ? `It last asked ${agoWords(offer.heard.lastAt, now)}.`
    : 'It was not heard in this run.';
  return (
    <CallPage call={call} action={<AnswerAction answering={answering} />}>
      <Refusals issues={issuesOf(answering.error)} />
      {at.trouble ? (
        <Notice tone="brick" title="It is not answered">
          {`Why: ${evidenceWords(at.trouble.kind, at.trouble.facts)}. ${cureOf(at.trouble.kind)}`}
        </Notice>
      ) : (
        <Notice
          tone={isAnswering ? 'plain' : 'ochre'}
          title={isAnswering ? 'Its next request is answered' : 'Nothing is answered now'}
        >
          {`${last} Power it off and on if you do not want to wait.`}
        </Notice>
      )}
      <Bound call={call} />
    </CallPage>
  );
}

function cureOf(kind: string): string {
  if (kind === 'twins') return 'Unplug one of the two and start listening anew.';
  return 'Find that device, or give this one another address in the plan.';
}
