import { View } from 'react-native';
import type { NotchView } from '@ipsonomo/core/api';
import { useWide } from '../theme';
import { AddressText } from './AddressText';
import { Row } from './Row';
import { StageNotches, stageWords } from './StageNotches';
import { Words } from './Words';

interface Props {
  readonly title: string;
  /** What else there is to say: its place, or what is next. */
  readonly second: string;
  readonly isWrong?: boolean;
  readonly address: string;
  /** Prefix length of its subnet. */
  readonly length: number | undefined;
  readonly notches: readonly NotchView[];
  readonly selected?: boolean;
  readonly onPress: () => void;
}

/** A device in a list: one line where it is wide, two on a phone. */
export function DeviceRow(props: Props) {
  const { title, second, isWrong = false, length, notches, selected = false, onPress } = props;
  const wide = useWide();
  const name = (
    <Words size="strong" lines={wide ? 1 : 2}>
      {title}
    </Words>
  );
  const more = (
    <Words size="second" tone={isWrong ? 'brick' : 'second'} {...(wide ? { lines: 1 } : {})}>
      {second}
    </Words>
  );
  const address = <AddressText address={props.address} length={length} still />;
  const stage = <StageNotches notches={notches} />;
  const label = [title, props.address, stageWords(notches), second].filter(Boolean).join(', ');
  return (
    <Row onPress={onPress} selected={selected} label={label}>
      {wide ? (
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: 12 }}>
          <View style={{ flex: 1 }}>{name}</View>
          <View style={{ flex: 1 }}>{more}</View>
          <View style={{ width: 150 }}>{address}</View>
          {stage}
        </View>
      ) : (
        <View style={{ flexDirection: 'row', gap: 8 }}>
          <View style={{ flex: 1 }}>
            {name}
            {more}
          </View>
          <View style={{ alignItems: 'flex-end', gap: 2 }}>
            {address}
            {stage}
          </View>
        </View>
      )}
    </Row>
  );
}
