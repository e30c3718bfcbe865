import { View } from 'react-native';
import { placesOf, type SwitchElement, type SwitchFace as Face } from '@ipsonomo/core/switches';
import { DipRow } from './switches/DipRow';
import type { ElementProps } from './switches/element';
import { Turn } from './switches/Turn';

interface Props {
  readonly face: Face;
  /** Left to right; a row of DIP switches has one for each switch. */
  readonly positions: readonly number[];
  /** Given where it can be set by touch. */
  readonly onTurn?: ((positions: readonly number[]) => void) | undefined;
  /** How they should stand; what stands otherwise is marked. */
  readonly wanted?: readonly number[] | undefined;
}

/** The switches of a device as they sit on it. */
export function SwitchFace({ face, positions, onTurn, wanted }: Props) {
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', justifyContent: 'center', gap: 12 }}>
      {slicesOf(face).map(({ element, from, to }) => {
        const shared = {
          positions: positions.slice(from, to),
          wanted: wanted?.slice(from, to),
          onTurn:
            onTurn &&
            ((at: number, position: number) =>
              onTurn(positions.map((old, one) => (one === from + at ? position : old)))),
        };
        return <Drawn key={from} element={element} {...shared} />;
      })}
    </View>
  );
}

/** Each element with its share of the positions. */
function slicesOf(face: Face) {
  let from = 0;
  return face.elements.map((element) => {
    const to = from + placesOf({ ...face, elements: [element] });
    const slice = { element, from, to };
    from = to;
    return slice;
  });
}

function Drawn({
  element,
  ...shared
}: Omit<ElementProps<'dial'>, 'element'> & { readonly element: SwitchElement }) {
  if (element.kind === 'dip') return <DipRow element={element} {...shared} />;
  return <Turn element={element} {...shared} />;
}
