import { Pressable, Text, View } from 'react-native';
import { TOUCH, useColours } from '../theme';
import { arrowsChoose, spacePresses } from './keys';
import { Words } from './Words';

interface Option<T extends string> {
  readonly value: T;
  readonly title: string;
  readonly detail?: string;
}

interface Props<T extends string> {
  readonly label: string;
  readonly options: readonly Option<T>[];
  readonly value: T | undefined;
  readonly onChange: (value: T) => void;
}

/** One of a few, each a line that can be hit with a glove. */
export function Choice<T extends string>({ label, options, value, onChange }: Props<T>) {
  const colours = useColours();
  const at = options.findIndex((option) => option.value === value);
  const choose = (index: number) => {
    const option = options[index];
    if (option) onChange(option.value);
  };
  return (
    <View
      role="radiogroup"
      aria-label={label}
      style={{ gap: 4 }}
      {...arrowsChoose('radio', choose)}
    >
      <Words size="second" tone="second">
        {label}
      </Words>
      <View
        style={{ borderWidth: 1, borderColor: colours.line, borderRadius: 8, overflow: 'hidden' }}
      >
        {options.map((option, index) => {
          const chosen = option.value === value;
          return (
            <Pressable
              key={option.value}
              role="radio"
              aria-checked={chosen}
              accessibilityLabel={option.title}
              onPress={() => onChange(option.value)}
              tabIndex={index === Math.max(0, at) ? 0 : -1}
              {...spacePresses(() => onChange(option.value))}
              style={{
                minHeight: TOUCH,
                flexDirection: 'row',
                alignItems: 'center',
                gap: 12,
                paddingHorizontal: 12,
                paddingVertical: 6,
                backgroundColor: colours.surface,
                borderTopWidth: index === 0 ? 0 : 1,
                borderTopColor: colours.line,
              }}
            >
              <View
                style={{
                  width: 18,
                  height: 18,
                  borderRadius: 9,
                  borderWidth: 2,
                  borderColor: chosen ? colours.plum : colours.second,
                  backgroundColor: chosen ? colours.plum : 'transparent',
                  alignItems: 'center',
                  justifyContent: 'center',
                }}
              >
                {chosen ? <Tick /> : null}
              </View>
              <View style={{ flex: 1 }}>
                <Words size={chosen ? 'strong' : 'body'}>{option.title}</Words>
                {option.detail ? (
                  <Words size="caption" tone="second">
                    {option.detail}
                  </Words>
                ) : null}
              </View>
            </Pressable>
          );
        })}
      </View>
    </View>
  );
}

/** Said by a sign too: where a browser puts its own colours in place of ours, a ground is none. */
function Tick() {
  const colours = useColours();
  return (
    <Text style={{ color: colours.onPlum, fontSize: 12, lineHeight: 14, fontWeight: '700' }}>
      ✓
    </Text>
  );
}
