import { Button } from '@rneui/themed';
import { CALL_WORDS } from '@ipsonomo/language/screens/call';
import { acts, useAct, useWire } from '../../../data';
import { Words } from '../../../parts';
import { leftWords } from '../../words';

/** So long is answered at a touch. */
export const ANSWER_MINUTES = 10;

/** Letting Ipsonomo answer: whether it does, and how to begin. */
export function useAnswering(job: string) {
  const { field, now } = useWire();
  const arm = useAct(acts.arm, { job });
  const until = field?.answeringUntil ?? 0;
  const isLooking = field?.tasks.some((one) => one.kind === 'look-for-servers') ?? false;
  return {
    now,
    until,
    isAnswering: until > now,
    isPending: arm.isPending || isLooking,
    start: () => arm.mutate({ minutes: ANSWER_MINUTES }),
    error: arm.error,
  };
}

interface Props {
  readonly answering: ReturnType<typeof useAnswering>;
  readonly disabled?: boolean;
}

/** The one next action of a device that asks: answer, or wait for its next request. */
export function AnswerAction({ answering, disabled = false }: Props) {
  const { now, until, isAnswering, isPending, start } = answering;
  if (isAnswering)
    return (
      <Words size="strong" align="center">
        {CALL_WORDS.waitingForItsNextRequestLeft({ until: leftWords(until, now) })}
      </Words>
    );
  return (
    <Button
      size="lg"
      title={CALL_WORDS.answerForMinutes({ aNSWER_MINUTES: ANSWER_MINUTES })}
      disabled={disabled}
      loading={isPending}
      onPress={start}
    />
  );
}
