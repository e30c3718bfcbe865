import { Button } from '@rneui/themed';
import { useState } from 'react';
import { evidenceWords } from '@ipsonomo/language';
import { isAsking, isNamedOverLayer2 } from '@ipsonomo/core/plan';
import { CALL_WORDS } from '@ipsonomo/language/screens/call';
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
    ? CALL_WORDS.itLastAsked({ lastAt: agoWords(offer.heard.lastAt, now) })
    : CALL_WORDS.itWasNotHeardInThis;
  return (
    <CallPage call={call} action={<AnswerAction answering={answering} />}>
      <Refusals issues={issuesOf(answering.error)} />
      {at.trouble ? (
        <Notice tone="brick" title={CALL_WORDS.itIsNotAnswered}>
          {CALL_WORDS.why({ trouble: evidenceWords(at.trouble), kind: cureOf(at.trouble.kind) })}
        </Notice>
      ) : (
        <Notice
          tone={isAnswering ? 'plain' : 'ochre'}
          title={
            isAnswering ? CALL_WORDS.itsNextRequestIsAnswered : CALL_WORDS.nothingIsAnsweredNow
          }
        >
          {CALL_WORDS.powerItOffAndOnIf({ last })}
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
      <Button
        type="outline"
        title={CALL_WORDS.iLookedItIsOneDevice}
        onPress={() => setOpen(true)}
      />
    );
  return (
    <>
      <ReasonForm
        about={`one device ${call.at.id}`}
        label={CALL_WORDS.howDoYouKnowThatOne}
        title={CALL_WORDS.itIsOneDeviceAnswerIt}
        leave={CALL_WORDS.leaveItUnanswered}
        isBusy={say.isPending}
        onSay={(reason) => say.mutateAsync({ reason }, { onSuccess: close })}
        onLeave={close}
      />
      <Refusals issues={issuesOf(say.error)} />
    </>
  );
}

function cureOf(kind: string): string {
  if (kind === 'twins') return CALL_WORDS.unplugOneOfTheTwoAnd;
  return CALL_WORDS.findThatDeviceOrGiveThis;
}
