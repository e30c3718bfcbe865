import { Button } from '@rneui/themed';
import { View } from 'react-native';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { FRAME_WORDS } from '@ipsonomo/language/screens/frame';
import { giveName, leaveUnnamed, useNameAsked } from '../../data';
import { Card, Field, Words, useDraft } from '../../parts';
import { useColours } from '../../theme';

/** Asked at the first decision: from then on it stands beside everything that this person decides. */
export function NameAsk() {
  const colours = useColours();
  const [typed, setTyped] = useDraft('name');
  if (!useNameAsked()) return null;
  const give = () => (typed.trim() === '' ? undefined : giveName(typed));
  return (
    <View
      role="dialog"
      aria-label={FRAME_WORDS.whoDoesThis}
      style={{ padding: 12, backgroundColor: colours.ground }}
    >
      <Card strong>
        <Words size="strong">{FRAME_WORDS.whoDoesThis}</Words>
        <Words size="second">{FRAME_WORDS.yourNameStandsBeside}</Words>
        <Field
          label={FRAME_WORDS.yourName}
          value={typed}
          onChange={setTyped}
          onEnter={give}
          autoFocus
        />
        <Button title={FRAME_WORDS.goOn} disabled={typed.trim() === ''} onPress={give} />
        <Button type="clear" title={COMMON_WORDS.leaveIt} onPress={leaveUnnamed} />
      </Card>
    </View>
  );
}
