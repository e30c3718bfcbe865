import { Button } from '@rneui/themed';
import { acts, useAct, useWire } from '../../data';
import { Words } from '../../parts';
import { leftWords } from '../words';

/** So long is answered at a touch. */
export const ANSWER_MINUTES = 10;

/** Letting Ipsonomo answer: whether it does, and how to begin. */
export function useAnswering(job: string) {
  const { field, now } = useWire();
  const arm = useAct(acts.arm, {});
  const listen = useAct(acts.listen, {});
  const until = field?.answeringUntil ?? 0;
  const isLooking = field?.tasks.some((one) => one.kind === 'look-for-servers') ?? false;
  return {
    now,
    until,
    isAnswering: until > now,
    isPending: arm.isPending || listen.isPending || isLooking,
    start: () =>
      // Both, also where the news of the first takes this away from the page; what is refused is shown from each.
      void listen
        .mutateAsync({ jobId: job })
        .then(() => arm.mutateAsync({ minutes: ANSWER_MINUTES }))
        .catch(() => undefined),
    error: listen.error ?? arm.error,
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
        Waiting for its next request · {leftWords(until, now)} left
      </Words>
    );
  return (
    <Button
      size="lg"
      title={`Answer for ${ANSWER_MINUTES} minutes`}
      disabled={disabled}
      loading={isPending}
      onPress={start}
    />
  );
}
