import { Text, View } from 'react-native';
import { checkLabel, macDigits, type DigitCheck, type MacAddress } from '@ipsonomo/core/net';
import { PARTS_WORDS } from '@ipsonomo/language/screens/parts';
import { FIGURES, useColours } from '../theme';
import { Words } from './Words';

interface Props {
  readonly label: MacAddress | undefined;
  readonly heard: MacAddress;
}

/** Two MACs one above the other, letter under letter; what differs is marked by shape and colour. */
export function LabelCheck({ label, heard }: Props) {
  const checks = label === undefined ? undefined : checkLabel(label, heard);
  const plain = [...macDigits(heard)].map((digit) => ({ digit, wrong: false }));
  const row = (pick: (check: DigitCheck) => string) =>
    checks?.map((check) => ({ digit: pick(check), wrong: !check.same }));
  return (
    <View style={{ gap: 8 }}>
      <View>
        <Words size="caption" tone="second">
          {PARTS_WORDS.onTheLabel}
        </Words>
        <Digits
          digits={
            row((check) => check.label) ??
            Array.from({ length: 12 }, () => ({ digit: '·', wrong: false }))
          }
        />
      </View>
      <View>
        <Words size="caption" tone="second">
          {PARTS_WORDS.heardOnTheWire}
        </Words>
        <Digits digits={row((check) => check.heard) ?? plain} />
      </View>
    </View>
  );
}

interface DigitView {
  readonly digit: string;
  readonly wrong: boolean;
}

function Digits({ digits }: { readonly digits: readonly DigitView[] }) {
  const colours = useColours();
  return (
    <View
      style={{ flexDirection: 'row' }}
      accessibilityLabel={digits.map(({ digit }) => digit).join(' ')}
    >
      {digits.map(({ digit, wrong }, place) => (
        <View
          key={place}
          style={{
            marginRight: place % 2 === 0 ? 0 : place === 5 ? 18 : 9,
            backgroundColor: wrong ? colours.brickGround : 'transparent',
            borderBottomWidth: 3,
            borderBottomColor: wrong ? colours.brick : 'transparent',
          }}
        >
          <Text
            style={{
              fontFamily: FIGURES,
              fontSize: 26,
              lineHeight: 36,
              fontWeight: '600',
              color: wrong ? colours.brick : colours.ink,
            }}
          >
            {digit}
          </Text>
        </View>
      ))}
    </View>
  );
}
