import { Button } from '@rneui/themed';
import { useState } from 'react';
import { CALL_WORDS } from '@ipsonomo/language/screens/call';
import { ApiError } from '../../../data';
import { Field, Refusals } from '../../../parts';
import { issuesOf } from '../../words';

/** What somebody who knows better may overrule. */
const OVERRULED: readonly string[] = [
  ...['device.inUse', 'device.mayBeUsed', 'device.otherKind', 'device.otherRevision'],
];

interface Props {
  readonly error: Error | null;
  /** What is done all the same, in words. */
  readonly title: string;
  readonly onEvenSo: (reason: string) => void;
}

/** A refusal; one because a controller uses the device can be overruled by who knows better. */
export function EvenSo({ error, title, onEvenSo }: Props) {
  const [reason, setReason] = useState('');
  const isInUse =
    error instanceof ApiError && error.issues.some(({ code }) => OVERRULED.includes(code));
  return (
    <>
      <Refusals issues={issuesOf(error)} />
      {isInUse ? (
        <>
          <Field
            label={CALL_WORDS.whyMayItBeDisturbedAll}
            value={reason}
            onChange={setReason}
            placeholder={CALL_WORDS.lineIsStoppedAndLocked}
          />
          <Button
            type="outline"
            title={title}
            disabled={reason.trim() === ''}
            onPress={() => onEvenSo(reason.trim())}
          />
        </>
      ) : null}
    </>
  );
}
