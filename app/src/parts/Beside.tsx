import { View } from 'react-native';
import { useWide } from '../theme';
import { HeadingsBelow } from './Words';

interface Props {
  readonly list: React.ReactNode;
  /** One of the list, which alone is shown where there is no room for both. */
  readonly children: React.ReactNode;
  /** Which of them the page is about. */
  readonly main: 'list' | 'one';
}

/** A list and one of it beside it. The one stays what it is when the width changes: what is open or typed there stays. */
export function Beside({ list, children, main }: Props) {
  const wide = useWide();
  return (
    <View style={{ flex: 1, flexDirection: 'row' }}>
      {wide ? (
        <View style={{ flex: 7 }}>
          <HeadingsBelow.Provider value={main === 'list' ? 0 : 1}>{list}</HeadingsBelow.Provider>
        </View>
      ) : null}
      <View style={{ flex: 5 }}>
        <HeadingsBelow.Provider value={main === 'one' ? 0 : 1}>{children}</HeadingsBelow.Provider>
      </View>
    </View>
  );
}
