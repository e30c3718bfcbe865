import { Button } from '@rneui/themed';
import { useState } from 'react';
import { evidenceWords } from '@ipsonomo/language';
import { isAsking, isNamedOverLayer2 } from '@ipsonomo/core/plan';
import { acts, useAct } from '../../../data';
import { Notice, ReasonForm, Refusals } from '../../../parts';
import { agoWords, issuesOf } from '../../words';
import { AnswerAction, useAnswering } from './Answering';
import { Bound } from './Bound';
import { CallPage, type Call } from './CallPage';
import { GiveStation } from './GiveStation';
import { HandStep } from './HandStep';
import { Lend } from './Lend';

/** Bound, not given yet: its next request is answered while Ipsonomo answers. */
export function GiveStep({ call }: { readonly call: Call }) {
  if (isNamedOverLayer2(call.device.way)) return <GiveStation call={call} />;
  return isAsking(call.device.way) ? <Answer call={call} /> : <HandStep call={call} />;
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
          {`Why: ${evidenceWords(at.trouble)}. ${cureOf(at.trouble.kind)}`}
        </Notice>
      ) : (
        <Notice
          tone={isAnswering ? 'plain' : 'ochre'}
          title={isAnswering ? 'Its next request is answered' : 'Nothing is answered now'}
        >
          {`${last} Power it off and on if you do not want to wait.`}
        </Notice>
      )}
      {at.trouble?.kind === 'twins' ? <OneDevice call={call} /> : null}
      <Lend call={call} />
      <Bound call={call} />
    </CallPage>
  );
}

/** Whoever has looked knows better: one device alone, which asks in two ways. */
function OneDevice({ call }: { readonly call: Call }) {
  const [isOpen, setOpen] = useState(false);
  const say = useAct(acts.sayOneDevice, { job: call.job, interface: call.at.id });
  const close = () => setOpen(false);
  if (!isOpen)
    return (
      <Button type="outline" title="I looked: it is one device" onPress={() => setOpen(true)} />
    );
  return (
    <>
      <ReasonForm
        about={`one device ${call.at.id}`}
        label="How do you know that one device alone has it?"
        title="It is one device: answer it"
        leave="Leave it unanswered"
        isBusy={say.isPending}
        onSay={(reason) => say.mutateAsync({ reason }, { onSuccess: close })}
        onLeave={close}
      />
      <Refusals issues={issuesOf(say.error)} />
    </>
  );
}

function cureOf(kind: string): string {
  if (kind === 'twins') return 'Unplug one of the two and start listening anew.';
  return 'Find that device, or give this one another address in the plan.';
}
