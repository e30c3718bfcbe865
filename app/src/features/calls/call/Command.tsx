import { Pressable, Text } from 'react-native';
import { CALL_WORDS } from '@ipsonomo/language/screens/call';
import { FIGURES, TOUCH, useColours } from '../../../theme';
import { useCopied } from '../../../parts/use-copied';

/** A command line, copied by a tap. */
export function Command({ line }: { readonly line: string }) {
  const colours = useColours();
  const { said, copy } = useCopied(line);
  return (
    <Pressable
      onPress={copy}
      accessibilityRole="button"
      accessibilityHint={CALL_WORDS.copiesTheCommand}
      style={{ minHeight: TOUCH, justifyContent: 'center' }}
    >
      <Text style={{ fontFamily: FIGURES, fontSize: 15, lineHeight: 21, color: colours.ink }}>
        {said ?? line}
      </Text>
    </Pressable>
  );
}
