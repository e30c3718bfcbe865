import type { ReactNode } from 'react';
import { Text, type TextStyle } from 'react-native';
import { TYPE, useColours, type Colours, type TypeSize } from '../theme';

interface Props {
  readonly children: ReactNode;
  readonly size?: TypeSize;
  readonly tone?: keyof Colours;
  readonly align?: TextStyle['textAlign'];
  readonly lines?: number;
  readonly heading?: 1 | 2 | 3;
}

/** All words on a screen: one of the sizes of the type, one of the colours. */
export function Words({ children, size = 'body', tone = 'ink', align, lines, heading }: Props) {
  const colours = useColours();
  const level = heading ? { role: 'heading' as const, 'aria-level': heading } : {};
  return (
    <Text
      {...level}
      {...(lines ? { numberOfLines: lines } : {})}
      style={[TYPE[size], { color: colours[tone] }, align ? { textAlign: align } : null]}
    >
      {children}
    </Text>
  );
}
