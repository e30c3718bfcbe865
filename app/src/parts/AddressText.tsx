import { Pressable, Text } from 'react-native';
import { PARTS_WORDS } from '@ipsonomo/language/screens/parts';
import { FIGURES, TOUCH, useColours } from '../theme';
import { useCopied } from './use-copied';

interface Props {
  readonly address: string;
  /** The subnet's prefix length: what it fixes is light. Undefined where no subnet is known. */
  readonly length?: number | undefined;
  readonly size?: 'row' | 'call' | 'small';
  /** In a row that is pressed as a whole, the address is not pressed by itself. */
  readonly still?: boolean;
  readonly suffix?: string;
}

const SIZES = { small: 15, row: 18, call: 25 } as const;

/** How many octets the subnet fixes whole: the rest is this device's. */
const fixedOctets = (length: number | undefined): number =>
  Math.min(3, Math.floor((length ?? 0) / 8));

/** @example partsOfAddress('172.22.40.86', 24) // ['172.22.40.', '86'] */
export function partsOfAddress(
  address: string,
  length: number | undefined,
): readonly [light: string, heavy: string] {
  const octets = address.split('.');
  const fixed = fixedOctets(length);
  const light = octets.slice(0, fixed).map((octet) => `${octet}.`);
  return [light.join(''), octets.slice(fixed).join('.')];
}

/** An address: what the subnet fixes light, what is this device's heavy. Copied by a tap. */
export function AddressText({ address, length, size = 'row', still = false, suffix = '' }: Props) {
  const colours = useColours();
  const { said, copy } = useCopied(address);
  const [light, heavy] = partsOfAddress(address, length);
  const base = { fontFamily: FIGURES, fontSize: SIZES[size], lineHeight: SIZES[size] * 1.3 };
  const text = (
    <Text style={base} accessibilityLabel={address + suffix}>
      <Text style={{ color: colours.second, fontWeight: '400' }}>{light}</Text>
      <Text style={{ color: colours.ink, fontWeight: '700' }}>{heavy}</Text>
      <Text style={{ color: colours.second, fontWeight: '400' }}>{said ? ` ${said}` : suffix}</Text>
    </Text>
  );
  if (still) return text;
  return (
    <Pressable
      onPress={copy}
      accessibilityRole="button"
      accessibilityHint={PARTS_WORDS.copiesTheAddress}
      style={{
        minHeight: TOUCH,
        justifyContent: 'center',
        // As high as a thumb needs, and in nobody's way.
        marginVertical: Math.min(0, (base.lineHeight - TOUCH) / 2),
      }}
    >
      {text}
    </Pressable>
  );
}
