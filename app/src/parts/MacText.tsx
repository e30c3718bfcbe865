import { Text } from 'react-native';
import { FIGURES, useColours } from '../theme';

/** A MAC in figures of equal width. */
export function MacText({ mac, size = 17 }: { readonly mac: string; readonly size?: number }) {
  const colours = useColours();
  const style = { fontFamily: FIGURES, fontSize: size, lineHeight: size * 1.4, color: colours.ink };
  return <Text style={style}>{mac}</Text>;
}
