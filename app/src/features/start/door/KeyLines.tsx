import { Button } from '@rneui/themed';
import { View } from 'react-native';
import { format } from 'date-fns/format';
import type { BrowserView, InvitationView } from '@ipsonomo/core/api';
import { DOOR_WORDS } from '@ipsonomo/language/screens/door';
import { Words } from '../../../parts';
import { agoWords, leftWords } from '../../words';
import { deviceWords } from './device-words';
import { ROLE_WORDS } from './role-words';

interface LineProps {
  readonly now: number;
  readonly onTakeBack: () => void;
}

export function BrowserLine({
  browser,
  now,
  onTakeBack,
}: LineProps & { readonly browser: BrowserView }) {
  const who = browser.person || DOOR_WORDS.noNameGivenYet;
  return (
    <View>
      <Words size="device">
        {who}
        {browser.isOwn ? DOOR_WORDS.thisBrowser : ''}
      </Words>
      <Words size="second" tone="second">
        {DOOR_WORDS.hereLetIn({
          device: deviceWords(browser.device),
          seenAt: agoWords(browser.seenAt, now),
          letInAt: format(browser.letInAt, 'd MMM, HH:mm'),
        })}
      </Words>
      <TakeBack what={who} onPress={onTakeBack} />
    </View>
  );
}

export function KeyLine({ one, now, onTakeBack }: LineProps & { readonly one: InvitationView }) {
  const what =
    one.person === null
      ? DOOR_WORDS.toBeNew({ role: ROLE_WORDS[one.role] })
      : DOOR_WORDS.toComeInAs({ person: one.person || DOOR_WORDS.noNameGivenYet });
  return (
    <View>
      <Words size="second">
        {DOOR_WORDS.madeByGoodFor({
          ...{ by: one.by, what },
          madeAt: agoWords(one.madeAt, now),
          endsAt: leftWords(one.endsAt, now),
        })}
      </Words>
      <TakeBack what={DOOR_WORDS.theKeyOf({ by: one.by })} onPress={onTakeBack} />
    </View>
  );
}

function TakeBack({ what, onPress }: { readonly what: string; readonly onPress: () => void }) {
  return (
    <View style={{ alignItems: 'flex-start', marginLeft: -16 }}>
      <Button
        type="clear"
        title={DOOR_WORDS.takeBack}
        accessibilityLabel={DOOR_WORDS.takeBack2({ what })}
        onPress={onPress}
      />
    </View>
  );
}
