import { memo } from 'react';
import { Pressable, Text, View } from 'react-native';
import { formatIpv4, formatPrefix, type Ipv4, type Prefix } from '@ipsonomo/core/net';
import { SUBNET_WORDS } from '@ipsonomo/language/screens/subnet';
import { arrowsInGrid, Row, spacePresses, Words } from '../../../parts';
import { FIGURES, useColours, type Colours } from '../../../theme';
import { partsOf, rowsOfTape, useWords, type Tape, type Use } from './tape';

interface Props {
  readonly tape: Tape;
  readonly view: Prefix;
  readonly clashes: ReadonlySet<Ipv4>;
  readonly chosen: Ipv4 | undefined;
  readonly onChoose: (address: Ipv4) => void;
}

const TENS = 10;

/** Single addresses in rows of ten: row and place are the digits of the last number. */
export function TapeView({ tape, view, clashes, chosen, onChoose }: Props) {
  const colours = useColours();
  const rows = rowsOfTape(view);
  const all = rows.flatMap(({ cells }) => cells.filter((one) => one !== undefined));
  const stop = all.includes(chosen as Ipv4) ? chosen : all[0];
  const choose = (index: number) => {
    const address = all[index];
    if (address !== undefined) onChoose(address);
  };
  return (
    <View
      role="grid"
      aria-label={SUBNET_WORDS.addressesOf({ view: formatPrefix(view) })}
      style={{ gap: 3 }}
      {...arrowsInGrid(TENS, choose)}
    >
      {rows.map(({ tens, cells }) => (
        <View key={tens} role="row" style={{ flexDirection: 'row', gap: 3, alignItems: 'center' }}>
          <Text
            style={{
              width: 30,
              textAlign: 'right',
              paddingRight: 6,
              fontFamily: FIGURES,
              fontSize: 15,
              color: colours.second,
            }}
          >
            {tens}
          </Text>
          {cells.map((address, place) =>
            address === undefined ? (
              <View key={place} style={{ flex: 1 }} />
            ) : (
              <Cell
                key={place}
                {...{ address, place, colours, onChoose }}
                use={tape.useOf(address)}
                isClash={clashes.has(address)}
                isChosen={address === chosen}
                isStop={address === stop}
              />
            ),
          )}
        </View>
      ))}
    </View>
  );
}

interface CellProps {
  readonly address: Ipv4;
  readonly place: number;
  readonly use: Use;
  readonly isClash: boolean;
  readonly isChosen: boolean;
  /** The one of them that Tab reaches. */
  readonly isStop: boolean;
  readonly colours: Colours;
  readonly onChoose: (address: Ipv4) => void;
}

const Cell = memo(function Cell(props: CellProps) {
  const { address, place, use, isClash, isChosen, isStop, colours, onChoose } = props;
  const look = lookOf(use, isClash, colours);
  return (
    <Pressable
      {...({ role: 'gridcell' } as object)}
      accessibilityLabel={SUBNET_WORDS.clash({
        address: formatIpv4(address),
        isClash,
        use: useWords(use),
      })}
      aria-selected={isChosen}
      onPress={() => onChoose(address)}
      tabIndex={isStop ? 0 : -1}
      {...spacePresses(() => onChoose(address))}
      style={{
        flex: 1,
        height: 36,
        alignItems: 'center',
        justifyContent: 'center',
        borderWidth: isChosen ? 3 : 1,
        borderColor: isChosen ? colours.plum : look.edge,
        borderStyle: look.isDashed ? 'dashed' : 'solid',
        borderRadius: 3,
        borderTopRightRadius: isClash ? 14 : 3,
        backgroundColor: look.ground,
      }}
    >
      <Text
        style={{
          fontFamily: FIGURES,
          fontSize: 15,
          fontWeight: look.isHeavy ? '700' : '400',
          color: look.ink,
        }}
      >
        {use.kind === 'edge' ? '·' : use.kind === 'gateway' ? 'g' : place}
      </Text>
    </Pressable>
  );
});

interface Look {
  readonly ground: string;
  readonly ink: string;
  readonly edge: string;
  readonly isDashed?: true;
  readonly isHeavy?: true;
}

function lookOf(use: Use, isClash: boolean, c: Colours): Look {
  if (isClash) return { ground: c.brick, ink: c.surface, edge: c.brick, isHeavy: true };
  switch (use.kind) {
    case 'given':
      return { ground: c.ink, ink: c.surface, edge: c.ink, isHeavy: true };
    case 'gateway':
      return { ground: c.surface, ink: c.plum, edge: c.plum, isHeavy: true };
    case 'edge':
      return { ground: 'transparent', ink: c.second, edge: 'transparent' };
    case 'held':
    case 'reserved':
      return { ground: c.idle, ink: c.second, edge: c.second, isDashed: true };
    case 'freed':
      return { ground: c.ochreGround, ink: c.ochre, edge: c.ochre, isDashed: true };
    case 'free':
      return { ground: use.role ? c.surface : 'transparent', ink: c.second, edge: c.line };
  }
}

interface PartsProps {
  readonly tape: Tape;
  readonly view: Prefix;
  readonly onGo: (part: Prefix) => void;
}

/** A large network in parts, each pressed to go nearer. */
export function Parts({ tape, view, onGo }: PartsProps) {
  const colours = useColours();
  return (
    <View>
      {partsOf(view).map((part) => {
        const given = tape.givenIn(part);
        const words = formatPrefix(part);
        return (
          <Row key={words} label={words} onPress={() => onGo(part)}>
            <View style={{ flexDirection: 'row', justifyContent: 'space-between' }}>
              <Text style={{ fontFamily: FIGURES, fontSize: 18, color: colours.ink }}>{words}</Text>
              <Words size="second" tone="second">
                {given === 0 ? SUBNET_WORDS.nobody : SUBNET_WORDS.address({ given })}
              </Words>
            </View>
          </Row>
        );
      })}
    </View>
  );
}
