import { Button } from '@rneui/themed';
import { ApiError } from '../../data';
import { Refusals } from '../../parts';
import { issuesOf } from '../words';

interface Props {
  readonly error: Error | null;
  /** What is done all the same, in words. */
  readonly title: string;
  readonly onEvenSo: () => void;
}

/** A refusal; one because a controller uses the device can be overruled by who knows better. */
export function EvenSo({ error, title, onEvenSo }: Props) {
  const isInUse =
    error instanceof ApiError && error.issues.some(({ code }) => code === 'device.inUse');
  return (
    <>
      <Refusals issues={issuesOf(error)} />
      {isInUse ? <Button type="outline" title={title} onPress={onEvenSo} /> : null}
    </>
  );
}
