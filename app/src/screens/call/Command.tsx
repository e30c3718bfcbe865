import { useState } from 'react';
import { Pressable, Text } from 'react-native';
import { FIGURES, TOUCH, useColours } from '../../theme';

/** A command line, copied by a tap. */
export function Command({ line }: { readonly line: string }) {
  const colours = useColours();
  const [copied, setCopied] = useState(false);
  const copy = () => {
    void globalThis.navigator?.clipboard?.writeText(line).then(() => {
      setCopied(true);
      setTimeout(() => setCopied(false), 1200);
    });
  };
  return (
    <Pressable
      onPress={copy}
      accessibilityRole="button"
      accessibilityHint="copies the command"
      style={{ minHeight: TOUCH, justifyContent: 'center' }}
    >
      <Text style={{ fontFamily: FIGURES, fontSize: 15, lineHeight: 21, color: colours.ink }}>
        {copied ? 'copied' : line}
      </Text>
    </Pressable>
  );
}
