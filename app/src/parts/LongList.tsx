import { useVirtualizer } from '@tanstack/react-virtual';
import { memo, useLayoutEffect, useRef, useState } from 'react';
import { View, type ViewStyle } from 'react-native';
import { usePageScroll } from './Page';

interface Props<T> {
  readonly items: readonly T[];
  readonly keyOf: (item: T) => string;
  readonly render: (item: T, index: number) => React.ReactNode;
  /** So many are drawn whole. */
  readonly few?: number;
  /** About how high one is, in pixels; a line of two, where nothing is said. */
  readonly height?: number;
}

/** So many are drawn whole: they can be found in the page, and printed. */
const FEW = 100;
const LINE = 64;
/** What is drawn beyond what is seen, at both ends: about so many pixels. */
const BESIDE = 400;

/** A list in a page. Of a long one only what is seen is drawn, wherever in the page it stands. */
export function LongList<T>(props: Props<T>) {
  const { items, keyOf, render, few = FEW } = props;
  const page = usePageScroll();
  if (items.length > few && page !== undefined) return <Seen {...props} page={page} />;
  return (
    <View>
      {items.map((item, index) => (
        <View key={keyOf(item)}>{render(item, index)}</View>
      ))}
    </View>
  );
}

function Seen<T>({
  items,
  keyOf,
  render,
  height = LINE,
  page,
}: Props<T> & { readonly page: HTMLElement | null }) {
  const list = useRef<HTMLElement>(null);
  const [above, setAbove] = useState(0);
  // It tells by itself when to draw again, which no memo of ours can know.
  // eslint-disable-next-line react-hooks/incompatible-library
  const virtual = useVirtualizer({
    count: items.length,
    getScrollElement: () => page,
    estimateSize: () => height,
    getItemKey: (index) => keyOf(items[index] as T),
    scrollMargin: above,
    overscan: Math.ceil(BESIDE / height),
  });
  // Whatever stands above it may have grown, which nothing tells; it settles at once.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  useLayoutEffect(() => {
    if (!page || !list.current) return;
    const top = list.current.getBoundingClientRect().top - page.getBoundingClientRect().top;
    const next = Math.round(top + page.scrollTop);
    if (next !== above) setAbove(next);
  });
  return (
    <View ref={list as never} style={styleOf(virtual.getTotalSize())} role="list">
      {virtual.getVirtualItems().map(({ index, key, start }) => (
        <View
          key={key}
          ref={virtual.measureElement as never}
          role="listitem"
          aria-posinset={index + 1}
          aria-setsize={items.length}
          {...({ dataSet: { index } } as object)}
          style={
            { position: 'absolute', top: start - above, left: 0, right: 0 } as unknown as ViewStyle
          }
        >
          <One item={items[index] as T} index={index} render={render as never} />
        </View>
      ))}
    </View>
  );
}

interface OneProps {
  readonly item: unknown;
  readonly index: number;
  readonly render: (item: unknown, index: number) => React.ReactNode;
}

/** Scrolling draws the lines that come in, and none of those that stay. */
const One = memo(function One({ item, index, render }: OneProps) {
  return render(item, index);
});

/** The browser keeps still what is seen where something above it grows; here that is done already. */
const styleOf = (height: number): ViewStyle =>
  ({ height, overflowAnchor: 'none' }) as unknown as ViewStyle;
