import { useThemeMode } from '@rneui/themed';
import { useWindowDimensions } from 'react-native';
import { DAY, NIGHT, type Colours } from './colours';
import { WIDE } from './type';

export function useColours(): Colours {
  return useThemeMode().mode === 'dark' ? NIGHT : DAY;
}

/** Is there room for list and detail side by side? */
export const useWide = (): boolean => useWindowDimensions().width >= WIDE;
