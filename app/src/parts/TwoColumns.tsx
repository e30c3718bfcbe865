import { View } from 'react-native';
import { useWide } from '../theme';

interface Props {
  readonly children: React.ReactNode;
  /** What stands below it where there is no room beside it. */
  readonly second: React.ReactNode;
}

/** Two parts of a page side by side where there is room, else one below the other. */
export function TwoColumns({ children, second }: Props) {
  const wide = useWide();
  return (
    <View style={wide ? { flexDirection: 'row', alignItems: 'flex-start', gap: 32 } : { gap: 16 }}>
      <View style={{ gap: 16, ...(wide ? { flex: 1 } : {}) }}>{children}</View>
      <View style={{ gap: 16, ...(wide ? { flex: 1 } : {}) }}>{second}</View>
    </View>
  );
}
