import { useThemeMode } from '@rneui/themed';
import { useWindowDimensions } from 'react-native';
import { DAY, NIGHT, type Colours } from './colours';
import { WIDE } from './type';

export function useColours(): Colours {
  return useThemeMode().mode === 'dark' ? NIGHT : DAY;
}

/** A window lower than this, as a phone's is at four times the size, has no room for what stands around a page. */
const LOW = 420;

/** How high the window is where it is that low. */
export function useLowWindow(): number | undefined {
  const { height } = useWindowDimensions();
  return height < LOW ? height : undefined;
}

/** Is there room for list and detail side by side? */
export const useWide = (): boolean => useWindowDimensions().width >= WIDE;
