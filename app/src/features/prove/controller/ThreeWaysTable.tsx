import { View } from 'react-native';
import { ENTERED_WORDS } from '@ipsonomo/language';
import type { ThreeWays } from '@ipsonomo/core/entered';
import { CONTROLLER_WORDS } from '@ipsonomo/language/screens/controller';
import { Words } from '../../../parts';
import { useWide } from '../../../theme';

interface Props {
  readonly rows: readonly ThreeWays[];
  readonly title: string;
}

const SIDES = ['planned', 'entered', 'found'] as const;
const MARKS = { differs: '× ', same: '✓ ', alone: '' } as const;
const TONES = { differs: 'brick', same: 'moss', alone: 'second' } as const;

/** Planned, entered and found: three columns on a wide screen, else one value below the other. */
export function ThreeWaysTable({ rows, title }: Props) {
  const wide = useWide();
  return (
    <View
      role="table"
      aria-label={CONTROLLER_WORDS.plannedEnteredFound({ title })}
      style={{ gap: 6 }}
    >
      {wide ? <Heads /> : null}
      {rows.map((row) =>
        wide ? (
          <Across key={row.value} row={row} />
        ) : row.verdict === 'differs' ? (
          <Apart key={row.value} row={row} />
        ) : (
          <Once key={row.value} row={row} />
        ),
      )}
    </View>
  );
}

const flex = (at: number) => ({ flex: at === 0 ? 1 : 2 });

function Heads() {
  return (
    <View role="row" style={{ flexDirection: 'row', gap: 8 }}>
      {['', ...SIDES].map((head, at) => (
        <View role="columnheader" key={head} style={flex(at)}>
          <Words size="caption" tone="second">
            {head}
          </Words>
        </View>
      ))}
    </View>
  );
}

function Name({ row: { value, verdict } }: { readonly row: ThreeWays }) {
  return (
    <Words size="second" tone={TONES[verdict]}>
      {MARKS[verdict]}
      {ENTERED_WORDS[value]}
    </Words>
  );
}

function Across({ row }: { readonly row: ThreeWays }) {
  return (
    <View role="row" style={{ flexDirection: 'row', gap: 8 }}>
      <View role="cell" style={flex(0)}>
        <Name row={row} />
      </View>
      {SIDES.map((side, at) => (
        <View role="cell" key={side} style={flex(at + 1)}>
          <Words size="second" tone={row.verdict === 'differs' ? 'brick' : 'ink'}>
            {row[side] || '–'}
          </Words>
        </View>
      ))}
    </View>
  );
}

const LABEL = 64;

/** What differs: each side in a line of its own, so that they stand above each other. */
function Apart({ row }: { readonly row: ThreeWays }) {
  return (
    <View role="row" style={{ paddingVertical: 4 }}>
      <View role="cell">
        <Name row={row} />
      </View>
      {SIDES.map((side) => (
        <View role="cell" key={side} style={{ flexDirection: 'row', gap: 8 }}>
          <View style={{ width: LABEL }}>
            <Words size="second" tone="second">
              {side}
            </Words>
          </View>
          <View style={{ flex: 1 }}>
            <Words size="strong">{row[side] || '–'}</Words>
          </View>
        </View>
      ))}
    </View>
  );
}

/** What is the same, or said by one alone: the value once, and who says it. */
function Once({ row }: { readonly row: ThreeWays }) {
  const sides = SIDES.filter((side) => row[side] !== '');
  const [first = 'planned'] = sides;
  return (
    <View role="row" style={{ flexDirection: 'row', gap: 8 }}>
      <View role="cell" style={{ flex: 2 }}>
        <Name row={row} />
      </View>
      <View role="cell" style={{ flex: 3 }}>
        <Words size="second">{row[first]}</Words>
        <Words size="caption" tone="second">
          {sides.join(', ')}
        </Words>
      </View>
    </View>
  );
}
