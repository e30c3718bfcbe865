import { Button } from '@rneui/themed';
import { useState } from 'react';
import { View } from 'react-native';
import { Field } from './Field';

interface Props {
  readonly label: string;
  /** What is done with the reason. */
  readonly title: string;
  readonly leave: string;
  readonly isBusy: boolean;
  readonly onSay: (reason: string) => void;
  readonly onLeave: () => void;
}

/** Something is kept as it is, with a reason in a person's own words. */
export function ReasonForm({ label, title, leave, isBusy, onSay, onLeave }: Props) {
  const [reason, setReason] = useState('');
  return (
    <View style={{ gap: 6 }}>
      <Field label={label} value={reason} onChange={setReason} autoFocus />
      <Button
        title={title}
        disabled={reason.trim() === ''}
        loading={isBusy}
        onPress={() => onSay(reason.trim())}
      />
      <Button type="clear" title={leave} onPress={onLeave} />
    </View>
  );
}
