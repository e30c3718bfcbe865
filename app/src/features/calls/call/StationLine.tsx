import { View } from 'react-native';
import type { StationView } from '@ipsonomo/core/api';
import { CALL_WORDS } from '@ipsonomo/language/screens/call';
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
        {type ?? CALL_WORDS.itDoesNotSayWhatIt}
        {' · '}
        {name ? CALL_WORDS.named({ name }) : CALL_WORDS.noNameYet}
      </Words>
      <View style={{ flexDirection: 'row', gap: 8, alignItems: 'baseline' }}>
        {address === null ? (
          <Words size="second" tone="second">
            {CALL_WORDS.noAddress}
          </Words>
        ) : (
          <AddressText address={address} still />
        )}
        <Words size="second" tone={isInConflict ? 'brick' : 'second'}>
          {isInConflict
            ? CALL_WORDS.anotherDeviceHasThatToo
            : CALL_WORDS.told({ lastAt: agoWords(lastAt, now) })}
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
