import { Pressable, View } from 'react-native';
import { TOUCH, useColours } from '../theme';

interface Props {
  readonly children: React.ReactNode;
  readonly onPress?: (() => void) | undefined;
  readonly selected?: boolean;
  readonly label?: string;
}

/** One line of a list: pressed as a whole where it leads somewhere. */
export function Row({ children, onPress, selected = false, label }: Props) {
  const colours = useColours();
  const style = {
    minHeight: TOUCH,
    paddingVertical: 10,
    paddingHorizontal: 10,
    marginHorizontal: -14,
    borderBottomWidth: 1,
    borderBottomColor: colours.line,
    borderLeftWidth: 4,
    borderLeftColor: selected ? colours.plum : 'transparent',
    borderRightWidth: 4,
    borderRightColor: 'transparent',
    backgroundColor: selected ? colours.surface : 'transparent',
    justifyContent: 'center',
  } as const;
  if (!onPress) return <View style={style}>{children}</View>;
  return (
    <Pressable
      onPress={onPress}
      style={style}
      accessibilityRole="button"
      {...(label ? { accessibilityLabel: label } : {})}
      aria-selected={selected}
    >
      {children}
    </Pressable>
  );
}
