import { createContext, useContext, useEffect, useRef, type ReactNode } from 'react';
import { Text, type TextStyle } from 'react-native';
import { PARTS_WORDS } from '@ipsonomo/language/screens/parts';
import { TYPE, useColours, type Colours, type TypeSize } from '../theme';

interface Props {
  readonly children: ReactNode;
  readonly size?: TypeSize;
  readonly tone?: keyof Colours;
  readonly align?: TextStyle['textAlign'];
  readonly lines?: number;
  readonly heading?: 1 | 2 | 3;
}

/** How much lower headings stand than they say: those of a page that another one is beside. */
export const HeadingsBelow = createContext(0);

/** All words on a screen: one of the sizes of the type, one of the colours. */
export function Words({ heading, ...rest }: Props) {
  return heading ? <Heading {...rest} heading={heading} /> : <PlainWords {...rest} />;
}

/** The first heading names its page, in the browser's tabs and history too, and is where keys begin. */
function Heading({ heading, ...rest }: Props & { readonly heading: number }) {
  const level = heading + useContext(HeadingsBelow);
  const text = useRef<HTMLElement>(null);
  useEffect(() => {
    const words = text.current?.textContent;
    if (level === 1 && words) document.title = PARTS_WORDS.ipsonomo({ words });
  });
  const being = { ref: text, role: 'heading', 'aria-level': level, tabIndex: -1 };
  return <PlainWords {...rest} being={being} />;
}

function PlainWords({
  children,
  size = 'body',
  tone = 'ink',
  align,
  lines,
  being,
}: Omit<Props, 'heading'> & { readonly being?: object }) {
  const colours = useColours();
  return (
    <Text
      {...being}
      {...(lines ? { numberOfLines: lines } : {})}
      style={[TYPE[size], { color: colours[tone] }, align ? { textAlign: align } : null]}
    >
      {children}
    </Text>
  );
}
