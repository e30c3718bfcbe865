import { useRef } from 'react';
import { View, type GestureResponderEvent, type ViewStyle } from 'react-native';
import { Words } from '../../../parts';

interface Props {
  readonly label: string;
  /** How far it was dragged so far, in points. */
  readonly onMove: (by: number) => void;
  readonly onDrop: (by: number) => void;
}

/** On the web a finger on the handle drags, and does not scroll the page. */
const GRIP = {
  minWidth: 44,
  minHeight: 48,
  alignItems: 'center',
  justifyContent: 'center',
  cursor: 'grab',
  touchAction: 'none',
  userSelect: 'none',
} as unknown as ViewStyle;

/** Where a row is taken hold of to be dragged to another place; the buttons beside it do the same. */
export function DragHandle({ label, onMove, onDrop }: Props) {
  const grippedAt = useRef(0);
  const by = ({ nativeEvent }: GestureResponderEvent) => nativeEvent.pageY - grippedAt.current;
  return (
    <View
      style={GRIP}
      aria-label={label}
      role="img"
      onStartShouldSetResponder={() => true}
      onMoveShouldSetResponder={() => true}
      onResponderTerminationRequest={() => false}
      onResponderGrant={({ nativeEvent }) => {
        grippedAt.current = nativeEvent.pageY;
      }}
      onResponderMove={(event) => onMove(by(event))}
      onResponderRelease={(event) => onDrop(by(event))}
      onResponderTerminate={() => onDrop(0)}
    >
      <Words size="strong" tone="second">
        ⋮⋮
      </Words>
    </View>
  );
}
