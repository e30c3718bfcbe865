import { evidenceWords, isAsking, isNamedOverLayer2 } from '@ipsonomo/core';
import { Notice, Refusals } from '../../parts';
import { agoWords, issuesOf } from '../words';
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
      <Lend call={call} />
      <Bound call={call} />
    </CallPage>
  );
}

function cureOf(kind: string): string {
  if (kind === 'twins') return 'Unplug one of the two and start listening anew.';
  return 'Find that device, or give this one another address in the plan.';
}
