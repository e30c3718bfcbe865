import { Button } from '@rneui/themed';
import { CALL_WORDS } from '@ipsonomo/language/screens/call';
import { ApiError } from '../../../data';
import { Field, Refusals, useDraft } from '../../../parts';
import { issuesOf } from '../../words';

/** What somebody who knows better may overrule. */
const OVERRULED: readonly string[] = [
  ...['device.inUse', 'device.mayBeUsed', 'device.otherKind', 'device.otherRevision'],
];

interface Props {
  /** Which interface it is about: what is half typed is kept under it. */
  readonly about: string;
  readonly error: Error | null;
  /** What is done all the same, in words. */
  readonly title: string;
  readonly onEvenSo: (reason: string) => void;
}

/** A refusal; one because a controller uses the device can be overruled by who knows better. */
export function EvenSo({ about, error, title, onEvenSo }: Props) {
  const [reason, setReason, forget] = useDraft(`even so ${about} ${title}`);
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
            onPress={() => {
              forget();
              onEvenSo(reason.trim());
            }}
          />
        </>
      ) : null}
    </>
  );
}
