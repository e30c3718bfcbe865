import { Button } from '@rneui/themed';
import { View } from 'react-native';
import { Field } from './Field';
import { useDraft } from './use-draft';

interface Props {
  /** What the reason is for, and of which thing: what is half typed is kept under it. */
  readonly about: string;
  readonly label: string;
  /** What is done with the reason. */
  readonly title: string;
  readonly leave: string;
  readonly isBusy: boolean;
  /** Resolves once it is kept, rejects where it was refused; told elsewhere. */
  readonly onSay: (reason: string) => Promise<unknown>;
  readonly onLeave: () => void;
}

/** Something is kept as it is, with a reason in a person's own words. */
export function ReasonForm({ about, label, title, leave, isBusy, onSay, onLeave }: Props) {
  const [reason, setReason, forget] = useDraft(about);
  // Also where this form is gone by then: what it was about may be settled before the answer comes.
  const say = () => void onSay(reason.trim()).then(forget, () => undefined);
  const leaveIt = () => {
    forget();
    onLeave();
  };
  return (
    <View style={{ gap: 6 }}>
      <Field label={label} value={reason} onChange={setReason} autoFocus />
      <Button title={title} disabled={reason.trim() === ''} loading={isBusy} onPress={say} />
      <Button type="clear" title={leave} onPress={leaveIt} />
    </View>
  );
}
