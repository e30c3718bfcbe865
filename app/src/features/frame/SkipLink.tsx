import { useState, type RefObject } from 'react';
import { Pressable } from 'react-native';
import { FRAME_WORDS } from '@ipsonomo/language/screens/frame';
import { Words } from '../../parts';
import { TOUCH, useColours } from '../../theme';

/** Past what stands around every page: the first that Tab reaches, seen while it is reached. */
export function SkipLink({ page }: { readonly page: RefObject<HTMLElement | null> }) {
  const colours = useColours();
  const [isReached, setReached] = useState(false);
  return (
    <Pressable
      role="button"
      onFocus={() => setReached(true)}
      onBlur={() => setReached(false)}
      onPress={() => page.current?.focus()}
      style={{
        position: 'absolute',
        zIndex: 10,
        // Far above: something else may stand above the page.
        top: isReached ? 4 : -4000,
        left: 4,
        minHeight: TOUCH,
        justifyContent: 'center',
        paddingHorizontal: 16,
        borderRadius: 8,
        borderWidth: 2,
        borderColor: colours.plum,
        backgroundColor: colours.surface,
      }}
    >
      <Words size="strong" tone="plum">
        {FRAME_WORDS.toThePageItself}
      </Words>
    </Pressable>
  );
}
