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
  /** @param said to be called once it is kept */
  readonly onSay: (reason: string, said: () => void) => void;
  readonly onLeave: () => void;
}

/** Something is kept as it is, with a reason in a person's own words. */
export function ReasonForm({ about, label, title, leave, isBusy, onSay, onLeave }: Props) {
  const [reason, setReason, forget] = useDraft(about);
  const leaveIt = () => {
    forget();
    onLeave();
  };
  return (
    <View style={{ gap: 6 }}>
      <Field label={label} value={reason} onChange={setReason} autoFocus />
      <Button
        title={title}
        disabled={reason.trim() === ''}
        loading={isBusy}
        onPress={() => onSay(reason.trim(), forget)}
      />
      <Button type="clear" title={leave} onPress={leaveIt} />
    </View>
  );
}
