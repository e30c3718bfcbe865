import { Button } from '@rneui/themed';
import { View } from 'react-native';
import { ASSIGN_WORDS } from '@ipsonomo/language/screens/assign';
import { changeSettings, useSettings } from '../../../data';
import { Notice } from '../../../parts';
import { Command } from '../call/Command';

/** The laptop left in a factory subnet is one of the classics: it is said until it is back. */
export function LaptopReminder() {
  const { laptop } = useSettings();
  if (!laptop) return null;
  return (
    <View style={{ gap: 6 }}>
      <Notice tone="ochre" title={ASSIGN_WORDS.yourLaptopStillHas({ address: laptop.address })}>
        {ASSIGN_WORDS.setItBackWhenYouAre}
      </Notice>
      {laptop.back.map((line) => (
        <Command key={line} line={line} />
      ))}
      <Button
        type="outline"
        title={ASSIGN_WORDS.itIsBack}
        onPress={() => changeSettings({ laptop: null })}
      />
    </View>
  );
}
