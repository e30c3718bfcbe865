import { View } from 'react-native';
import type { StationView } from '@ipsonomo/core/api';
import { AddressText, MacText, Words } from '../../../parts';
import { agoWords } from '../../words';

interface Props {
  readonly station: StationView;
  readonly now: number;
  readonly note?: string;
  /** Without the MAC, where that stands beside it already. */
  readonly bare?: boolean;
}

/** One station found over layer 2: what it says it is, and what is in it. */
export function StationLine({ station, now, note, bare = false }: Props) {
  const { mac, name, type, address, isInConflict, lastAt } = station;
  return (
    <View style={{ gap: 2 }}>
      {bare ? null : <MacText mac={mac} />}
      <Words size="second">
        {type ?? 'It does not say what it is'}
        {' · '}
        {name ? `named ${name}` : 'no name yet'}
      </Words>
      <View style={{ flexDirection: 'row', gap: 8, alignItems: 'baseline' }}>
        {address === null ? (
          <Words size="second" tone="second">
            no address
          </Words>
        ) : (
          <AddressText address={address} still />
        )}
        <Words size="second" tone={isInConflict ? 'brick' : 'second'}>
          {isInConflict ? 'another device has that too' : `told ${agoWords(lastAt, now)}`}
        </Words>
      </View>
      {note ? (
        <Words size="second" tone="second">
          {note}
        </Words>
      ) : null}
    </View>
  );
}
