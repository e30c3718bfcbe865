import { useLayoutEffect, useRef, useState } from 'react';
import { Pressable, Text, TextInput, View, type ViewStyle } from 'react-native';
import type { Issue } from '@ipsonomo/core/net';
import { sentenceOf } from '@ipsonomo/language';
import { Words } from '../../parts';
import { FIGURES, TYPE, useColours, WORDS } from '../../theme';
import { LINE_HEIGHT } from './SheetLine';

interface Props {
  readonly text: string;
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly label: string;
  readonly isFigures: boolean;
  readonly choices: readonly string[];
  /** What speaks against the text as it stands. */
  readonly issue: Issue | undefined;
  readonly onChange: (text: string) => void;
  readonly onDone: (
    text: string,
    step: { readonly rows: number; readonly columns: number },
  ) => void;
  readonly onLeave: () => void;
}

const MOST_CHOICES = 8;

/** A cell while it is typed in: what would break is told, what could be meant is offered. */
export function CellEditor(props: Props) {
  const { text, left, top, width, label, isFigures, onChange, onDone, onLeave } = props;
  const colours = useColours();
  const [picked, setPicked] = useState(-1);
  const field = useRef<TextInput>(null);
  useLayoutEffect(() => field.current?.focus(), []);
  const offered = offeredFor(props.choices, text);
  const issue = offered.length > 0 ? undefined : props.issue;
  // What cannot be taken as it stands means the first that is offered.
  const first = props.issue ? offered[0] : undefined;
  const finish = (step: { rows: number; columns: number }) =>
    onDone(offered[picked] ?? first ?? text, step);
  const onKey = (event: { nativeEvent: { key: string }; preventDefault: () => void }) => {
    const native = event.nativeEvent as unknown as KeyboardEvent;
    const { key } = native;
    const step = key === 'Enter' ? { rows: native.shiftKey ? -1 : 1, columns: 0 } : TAB(native);
    if (step) finish(step);
    else if (key === 'Escape') onLeave();
    else if (key === 'ArrowDown' || key === 'ArrowUp')
      setPicked((now) =>
        Math.max(-1, Math.min(offered.length - 1, now + (key === 'ArrowDown' ? 1 : -1))),
      );
    else return;
    event.preventDefault();
  };
  const box: ViewStyle = { position: 'absolute', left, top, minWidth: width, zIndex: 2 };
  return (
    <View style={box}>
      <TextInput
        ref={field}
        accessibilityLabel={label}
        value={text}
        onChangeText={(next) => {
          setPicked(-1);
          onChange(next);
        }}
        onKeyPress={onKey}
        onBlur={() => onDone(text, { rows: 0, columns: 0 })}
        spellCheck={false}
        style={{
          width,
          height: LINE_HEIGHT,
          paddingHorizontal: 7,
          borderWidth: 2,
          borderColor: issue ? colours.brick : colours.plum,
          backgroundColor: colours.surface,
          color: colours.ink,
          fontFamily: isFigures ? FIGURES : WORDS,
          fontSize: TYPE.second.fontSize,
          outlineWidth: 0,
        }}
      />
      {issue || offered.length > 0 ? (
        <View
          style={{
            maxWidth: 360,
            minWidth: width,
            borderWidth: 1,
            borderColor: colours.second,
            backgroundColor: colours.surface,
          }}
        >
          {issue ? (
            <View style={{ padding: 8, backgroundColor: colours.brickGround }}>
              <Words size="caption">{sentenceOf(issue)}</Words>
            </View>
          ) : null}
          {offered.map((choice, index) => (
            <Pressable
              key={choice}
              // Before the field loses the focus, which would take the text as it stands.
              onPointerDown={() => onDone(choice, { rows: 1, columns: 0 })}
              style={{
                padding: 8,
                backgroundColor:
                  index === (picked < 0 && first !== undefined ? 0 : picked)
                    ? colours.idle
                    : 'transparent',
              }}
            >
              <Text style={{ ...TYPE.second, color: colours.ink }} numberOfLines={1}>
                {choice}
              </Text>
            </Pressable>
          ))}
        </View>
      ) : null}
    </View>
  );
}

const TAB = ({ key, shiftKey }: KeyboardEvent) =>
  key === 'Tab' ? { rows: 0, columns: shiftKey ? -1 : 1 } : undefined;

/** Those that begin with the text, then those that hold it; none where it is one of them. */
function offeredFor(choices: readonly string[], text: string): readonly string[] {
  const wanted = text.trim().toLowerCase();
  if (choices.some((one) => one.toLowerCase() === wanted)) return [];
  const found = choices.filter((one) => one.toLowerCase().includes(wanted));
  return found
    .sort(
      (a, b) =>
        Number(b.toLowerCase().startsWith(wanted)) - Number(a.toLowerCase().startsWith(wanted)),
    )
    .slice(0, MOST_CHOICES);
}
