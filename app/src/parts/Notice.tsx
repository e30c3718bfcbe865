import { View } from 'react-native';
import { useColours } from '../theme';
import { Words } from './Words';

interface Props {
  readonly tone: 'ochre' | 'brick' | 'moss' | 'plain';
  readonly title?: string;
  readonly children?: React.ReactNode;
}

const MARKS = { ochre: '!', brick: '×', moss: '✓', plain: '' } as const;

/** A sentence that has to be seen: its kind is told by a mark as well as by colour. */
export function Notice({ tone, title, children }: Props) {
  const colours = useColours();
  const ground = tone === 'plain' ? colours.surface : colours[`${tone}Ground`];
  const edge = tone === 'plain' ? colours.line : colours[tone];
  const mark = MARKS[tone];
  return (
    <View
      role={tone === 'brick' ? 'alert' : 'status'}
      style={{
        flexDirection: 'row',
        gap: 10,
        padding: 12,
        backgroundColor: ground,
        borderLeftWidth: 4,
        borderLeftColor: edge,
        borderRadius: 4,
      }}
    >
      {mark ? (
        <Words size="strong" tone={tone === 'plain' ? 'ink' : tone}>
          {mark}
        </Words>
      ) : null}
      <View style={{ flex: 1, gap: 4 }}>
        {title ? <Words size="strong">{title}</Words> : null}
        {typeof children === 'string' ? <Words size="second">{children}</Words> : children}
      </View>
    </View>
  );
}
