import { Row, Words } from '../../parts';

interface Props {
  readonly words: string;
  readonly isClear: boolean;
  readonly onPress: () => void;
}

/** How many snags there are, seen at once and pressed to see them; none is said as well. */
export function SnagLine({ words, isClear, onPress }: Props) {
  return (
    <Row onPress={onPress} label={words}>
      <Words size="strong" tone={isClear ? 'moss' : 'brick'}>
        {isClear ? '✓' : '×'} {words}
      </Words>
    </Row>
  );
}
