import { create } from 'qrcode';
import { View } from 'react-native';
import Svg, { Path, Rect } from 'react-native-svg';

/** Light modules around it, as ISO/IEC 18004 asks for. */
const QUIET = 4;

/** A text as a QR code: dark on light in the night's colours too, since some readers take no other. */
export function QrCode({ text, label }: { readonly text: string; readonly label: string }) {
  const { modules } = create(text, { errorCorrectionLevel: 'M' });
  const whole = modules.size + 2 * QUIET;
  const dark = Array.from({ length: modules.size ** 2 }, (_, i) => i)
    .filter((i) => modules.data[i])
    .map((i) => `M${QUIET + (i % modules.size)} ${QUIET + Math.floor(i / modules.size)}h1v1h-1z`);
  return (
    <View role="img" aria-label={label} style={{ width: '100%', maxWidth: 300, aspectRatio: 1 }}>
      <Svg width="100%" height="100%" viewBox={`0 0 ${whole} ${whole}`}>
        <Rect width={whole} height={whole} fill="#ffffff" />
        <Path d={dark.join('')} fill="#000000" />
      </Svg>
    </View>
  );
}
