import { createContext, useCallback, useContext, useState } from 'react';
import { ScrollView, View } from 'react-native';
import { SPACE, useColours, useWide } from '../theme';

interface Props {
  readonly children: React.ReactNode;
  /** The one next action, at the thumb. */
  readonly action?: React.ReactNode;
  readonly maxWidth?: number;
}

/** Under a mouse a button as wide as the page is no help. */
const ACTION_WIDE = 440;

const PageScroll = createContext<HTMLElement | null | undefined>(undefined);

/** What scrolls the page that one is in; null until it is there, undefined outside of any. */
export const usePageScroll = (): HTMLElement | null | undefined => useContext(PageScroll);

/** A screen's content above its one next action. */
export function Page({ children, action, maxWidth = 720 }: Props) {
  const colours = useColours();
  const wide = useWide();
  // Known only after what is in it was drawn for the first time, which then has to be told.
  const [scroll, setScroll] = useState<HTMLElement | null>(null);
  const known = useCallback(
    (view: ScrollView | null) =>
      setScroll((view?.getScrollableNode() as HTMLElement | undefined) ?? null),
    [],
  );
  return (
    <View style={{ flex: 1, backgroundColor: colours.ground }}>
      <ScrollView
        ref={known}
        style={{ flex: 1 }}
        contentContainerStyle={{ padding: SPACE.page, gap: 16 }}
      >
        <PageScroll.Provider value={scroll}>
          <View style={{ width: '100%', maxWidth, gap: 16 }}>{children}</View>
        </PageScroll.Provider>
      </ScrollView>
      {action ? (
        <View
          style={{
            padding: 12,
            paddingHorizontal: SPACE.page,
            borderTopWidth: 1,
            borderTopColor: colours.line,
            backgroundColor: colours.surface,
          }}
        >
          <View style={{ width: '100%', maxWidth: wide ? ACTION_WIDE : maxWidth, gap: 6 }}>
            {action}
          </View>
        </View>
      ) : null}
    </View>
  );
}
