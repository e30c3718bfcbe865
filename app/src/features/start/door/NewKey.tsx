import { View } from 'react-native';
import { spokenKey, type NewKeyView } from '@ipsonomo/core/api';
import { DOOR_WORDS } from '@ipsonomo/language/screens/door';
import { Card, Notice, Words } from '../../../parts';
import { leftWords } from '../../words';
import { QrCode } from './QrCode';

/** A key that was just made, to scan or to read aloud. */
export function NewKey({ made, now }: { readonly made: NewKeyView; readonly now: number }) {
  const [first] = made.addresses;
  return (
    <Card>
      <Words size="strong" heading={2}>
        {DOOR_WORDS.scanThisWithThePhone}
      </Words>
      {first ? <QrCode text={first} label={DOOR_WORDS.theAddress({ first })} /> : null}
      <View>
        {made.addresses.map((address) => (
          <Words key={address} size="second">
            {address}
          </Words>
        ))}
      </View>
      <Words>
        {DOOR_WORDS.theKeyToTypeGoodFor({
          key: spokenKey(made.key),
          endsAt: leftWords(made.endsAt, now),
        })}
      </Words>
      {made.addresses.every((address) => address.includes('//127.')) ? (
        <Notice tone="ochre" title={DOOR_WORDS.thisServerListensOnItsOwn}>
          {DOOR_WORDS.startItWithNpmStartOr}
        </Notice>
      ) : null}
    </Card>
  );
}
