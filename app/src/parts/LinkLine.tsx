import type { ReactNode } from 'react';
import { Pressable, Text, View } from 'react-native';
import { PARTS_WORDS } from '@ipsonomo/language/screens/parts';
import { FIGURES, TOUCH, useColours, useWide } from '../theme';
import { Words } from './Words';

interface Props {
  /** The wire in use, in words. */
  readonly wire: string;
  /** Who the laptop is on this wire: "as 172.22.40.253", or nothing while it is nobody. */
  readonly who?: string | undefined;
  /** What is going on: "silent", "listening", "Answering 3 devices". */
  readonly state: string;
  /** How long it may go on: "9 min left". */
  readonly left?: string | undefined;
  readonly isSending: boolean;
  readonly trouble: boolean;
  readonly onPress: () => void;
  readonly onFallSilent: () => void;
  /** What stands at its end: which job this is. */
  readonly end?: ReactNode;
}

/** Which wire is in use and whether anything may be sent. Quiet, and plum while it may. */
export function LinkLine(props: Props) {
  const { wire, who, state, left, isSending, trouble, onPress, onFallSilent, end } = props;
  const colours = useColours();
  const wide = useWide();
  const ground = isSending ? colours.plum : colours.ground;
  const tone = isSending ? 'onPlum' : trouble ? 'brick' : 'ink';
  return (
    <View
      role="banner"
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        minHeight: TOUCH + 4,
        paddingHorizontal: 16,
        gap: 12,
        backgroundColor: ground,
        borderBottomWidth: 1,
        borderBottomColor: isSending ? colours.plum : colours.line,
      }}
    >
      <Pressable
        onPress={onPress}
        accessibilityRole="button"
        accessibilityLabel={PARTS_WORDS.wire({ wire, state })}
        style={{ flex: 1, minHeight: TOUCH, justifyContent: 'center' }}
      >
        <Words size="strong" tone={tone} lines={1}>
          {isSending ? state : trouble ? `! ${wire}` : wire}
        </Words>
        <Text
          numberOfLines={1}
          style={{
            fontFamily: FIGURES,
            fontSize: 13,
            color: isSending ? colours.onPlum : colours.second,
          }}
        >
          {[isSending ? (wide || !who) && wire : state, left, who].filter(Boolean).join(' · ')}
        </Text>
      </Pressable>
      {isSending ? (
        <Pressable
          onPress={onFallSilent}
          accessibilityRole="button"
          style={{
            minHeight: TOUCH,
            paddingHorizontal: 16,
            justifyContent: 'center',
            borderRadius: 8,
            backgroundColor: colours.onPlum,
          }}
        >
          <Words size="strong" tone="plum">
            {PARTS_WORDS.fallSilent}
          </Words>
        </Pressable>
      ) : null}
      {isSending && !wide ? null : end}
    </View>
  );
}
