import { createTheme, type ButtonProps } from '@rneui/themed';
import { type Colours, DAY, NIGHT } from './colours';
import { TOUCH, TYPE, WORDS } from './type';

const rneColours = (c: Colours) => ({
  primary: c.plum,
  secondary: c.second,
  background: c.ground,
  white: c.surface,
  black: c.ink,
  grey0: c.second,
  grey1: c.second,
  grey2: c.second,
  grey3: c.line,
  grey4: c.line,
  grey5: c.idle,
  greyOutline: c.line,
  searchBg: c.surface,
  success: c.moss,
  warning: c.ochre,
  error: c.brick,
  divider: c.line,
  disabled: c.idle,
});

/** Solid is the next action, outlined another, clear a way out. */
const buttonOf = (c: Colours) => (props: ButtonProps) => ({
  titleStyle: {
    ...TYPE.strong,
    color: props.type === 'solid' || !props.type ? c.onPlum : c.plum,
    textAlign: 'center' as const,
  },
  buttonStyle: {
    minHeight: props.size === 'lg' ? 58 : TOUCH,
    borderRadius: 8,
    paddingHorizontal: 16,
    backgroundColor: props.type === 'solid' || !props.type ? c.plum : 'transparent',
    borderColor: c.plum,
    borderWidth: props.type === 'outline' ? 1.5 : 0,
  },
  disabledStyle: {
    backgroundColor: props.type === 'clear' ? 'transparent' : c.idle,
    borderColor: c.line,
  },
  disabledTitleStyle: { color: c.onIdle },
  loadingProps: { color: props.type === 'outline' ? c.plum : c.onPlum },
});

/** React Native Elements, themed once. No screen styles them again. */
export function elementsTheme(mode: 'light' | 'dark') {
  const c = mode === 'light' ? DAY : NIGHT;
  const family = { fontFamily: WORDS };
  return createTheme({
    mode,
    lightColors: rneColours(DAY),
    darkColors: rneColours(NIGHT),
    components: {
      Text: { style: { ...family, color: c.ink } },
      Button: buttonOf(c),
      Input: {
        containerStyle: { paddingHorizontal: 0 },
        inputContainerStyle: {
          borderWidth: 1.5,
          borderBottomWidth: 1.5,
          borderColor: c.second,
          borderRadius: 8,
          backgroundColor: c.surface,
          minHeight: TOUCH,
          paddingHorizontal: 12,
        },
        inputStyle: { ...TYPE.body, color: c.ink },
        labelStyle: { ...TYPE.second, color: c.second, fontWeight: '400', marginBottom: 4 },
        errorStyle: { ...TYPE.second, color: c.brick, marginHorizontal: 0, marginTop: 4 },
        placeholderTextColor: c.second,
      },
      ButtonGroup: {
        containerStyle: {
          borderRadius: 8,
          borderColor: c.plum,
          borderWidth: 1.5,
          minHeight: TOUCH,
          marginHorizontal: 0,
          marginVertical: 0,
          backgroundColor: 'transparent',
        },
        innerBorderStyle: { color: c.plum, width: 1.5 },
        textStyle: { ...TYPE.second, color: c.plum, fontWeight: '600', textAlign: 'center' },
        selectedButtonStyle: { backgroundColor: c.plum },
        selectedTextStyle: { color: c.onPlum },
      },
      Switch: { color: c.plum },
      LinearProgress: { color: 'primary', trackColor: c.line, style: { height: 6 } },
    },
  });
}
