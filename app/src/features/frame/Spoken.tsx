import { useEffect, useRef, useState } from 'react';
import { Text } from 'react-native';
import { FRAME_WORDS } from '@ipsonomo/language/screens/frame';
import { useField, useHeard, type FieldNow } from '../../data';

/** Whoever listens to the page hears how it stands at most so often: a plant that wakes up says a hundred things. */
const PAUSE = 4000;

/** What happens on the wire, in a sentence for whoever does not look: said by a screen reader, seen by nobody. */
export function Spoken() {
  const field = useField();
  const heard = useHeard();
  const isHeard = field !== undefined && field.runId !== null;
  const said = useSlow(isHeard ? sentenceOf(field, heard.length) : '');
  return (
    <Text role="status" aria-live="polite" style={UNSEEN}>
      {said}
    </Text>
  );
}

function sentenceOf(field: FieldNow, heard: number): string {
  const { proof, answeringUntil } = field;
  const done = proof ? proof.total - proof.left : 0;
  const parts = [
    answeringUntil === null ? FRAME_WORDS.listening : FRAME_WORDS.answering,
    FRAME_WORDS.deviceAsked({ heard }),
    proof &&
      (proof.phase === 'ended'
        ? FRAME_WORDS.theProofHasEnded
        : FRAME_WORDS.ofProvenOrNot({ done, total: proof.total })),
  ];
  return parts.filter(Boolean).join(', ');
}

/** The first at once, then the last of each pause. */
function useSlow(text: string): string {
  const [said, setSaid] = useState(text);
  const lastAt = useRef(-Infinity);
  useEffect(() => {
    const wait = Math.max(0, lastAt.current + PAUSE - performance.now());
    const timer = setTimeout(() => {
      lastAt.current = performance.now();
      setSaid(text);
    }, wait);
    return () => clearTimeout(timer);
  }, [text]);
  return said;
}

/** There, but in nobody's way; what is not displayed is not read either. */
const UNSEEN = {
  position: 'absolute',
  width: 1,
  height: 1,
  overflow: 'hidden',
  opacity: 0,
} as const;
