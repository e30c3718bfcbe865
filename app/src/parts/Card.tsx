import { View } from 'react-native';
import { useColours } from '../theme';

/** A framed group; `strong` is the one that matters now. */
export function Card({
  children,
  strong = false,
}: {
  readonly children: React.ReactNode;
  readonly strong?: boolean;
}) {
  const colours = useColours();
  return (
    <View
      style={{
        padding: 16,
        gap: 10,
        borderRadius: 8,
        borderWidth: strong ? 1.5 : 1,
        borderColor: strong ? colours.plum : colours.line,
        backgroundColor: colours.surface,
      }}
    >
      {children}
    </View>
  );
}
