import { Pressable, View } from 'react-native';
import { TOUCH, useColours } from '../theme';

interface Props {
  readonly children: React.ReactNode;
  readonly onPress?: (() => void) | undefined;
  readonly selected?: boolean;
  readonly label?: string;
  /** One of a list, as a screen reader counts them. */
  readonly isItem?: boolean;
}

/** One line of a list: pressed as a whole where it leads somewhere. */
export function Row({ children, onPress, selected = false, label, isItem = false }: Props) {
  const colours = useColours();
  const style = {
    minHeight: TOUCH,
    paddingVertical: 10,
    paddingLeft: selected ? 10 : 14,
    paddingRight: 14,
    marginHorizontal: -14,
    borderBottomWidth: 1,
    borderBottomColor: colours.line,
    borderLeftWidth: selected ? 4 : 0,
    borderLeftColor: colours.plum,
    backgroundColor: selected ? colours.surface : 'transparent',
    justifyContent: 'center',
  } as const;
  const item = isItem ? { role: 'listitem' as const } : {};
  if (!onPress)
    return (
      <View style={style} {...item}>
        {children}
      </View>
    );
  return (
    <Pressable
      onPress={onPress}
      style={style}
      accessibilityRole="button"
      {...(label ? { accessibilityLabel: label } : {})}
      aria-current={selected ? 'true' : undefined}
    >
      {children}
    </Pressable>
  );
}
