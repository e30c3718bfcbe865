import { TextInput, View } from 'react-native';
import { TYPE, useColours } from '../theme';
import { Words } from './Words';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly onChange: (text: string) => void;
}

const HEIGHT = 132;

/** Several lines, as they are pasted: tabs and line ends stay. */
export function LongField({ label, value, onChange }: Props) {
  const colours = useColours();
  return (
    <View style={{ gap: 4 }}>
      <Words size="second" tone="second">
        {label}
      </Words>
      <TextInput
        multiline
        accessibilityLabel={label}
        value={value}
        onChangeText={onChange}
        autoCapitalize="none"
        autoCorrect={false}
        spellCheck={false}
        style={[
          TYPE.body,
          {
            minHeight: HEIGHT,
            padding: 12,
            borderWidth: 1.5,
            borderRadius: 8,
            borderColor: colours.second,
            backgroundColor: colours.surface,
            color: colours.ink,
          },
        ]}
      />
    </View>
  );
}
