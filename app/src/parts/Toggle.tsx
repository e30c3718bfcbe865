import { Pressable } from 'react-native';
import { TOUCH, useColours } from '../theme';
import { spacePresses } from './keys';
import { Words } from './Words';

interface Props {
  readonly title: string;
  readonly isOn: boolean;
  readonly onPress: () => void;
}

/** Something that is said or not: filled and ticked where it is. */
export function Toggle({ title, isOn, onPress }: Props) {
  const colours = useColours();
  return (
    <Pressable
      role="checkbox"
      aria-checked={isOn}
      accessibilityLabel={title}
      onPress={onPress}
      {...spacePresses(onPress)}
      style={{
        minHeight: TOUCH,
        justifyContent: 'center',
        paddingHorizontal: 14,
        borderRadius: 8,
        borderWidth: 1.5,
        borderColor: colours.plum,
        backgroundColor: isOn ? colours.plum : 'transparent',
      }}
    >
      <Words size="second" tone={isOn ? 'surface' : 'plum'}>
        {isOn ? '✓ ' : ''}
        {title}
      </Words>
    </Pressable>
  );
}
