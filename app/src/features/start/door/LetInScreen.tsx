import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { format } from 'date-fns/format';
import {
  spokenKey,
  type BrowserView,
  type InvitationView,
  type NewKeyView,
} from '@ipsonomo/core/api';
import { DOOR_WORDS } from '@ipsonomo/language/screens/door';
import { acts, useAct, useActOn, useKeys, useNow } from '../../../data';
import { Card, Notice, Page, Refusals, Words } from '../../../parts';
import { agoWords, issuesOf, leftWords } from '../../words';
import { QrCode } from './QrCode';
import { deviceWords } from './device-words';

/** Who was let in, and the way in for somebody else. */
export function LetInScreen() {
  const keys = useKeys();
  const make = useAct(acts.addKey, {});
  const takeBack = useActOn(acts.takeKeyBack);
  const now = useNow(0);
  const router = useRouter();
  const back = (id: string) => takeBack.mutate({ params: { key: id } });
  return (
    <Page
      action={
        <Button
          size="lg"
          title={DOOR_WORDS.makeAKey}
          loading={make.isPending}
          onPress={() => make.mutate()}
        />
      }
    >
      <View style={{ alignItems: 'flex-start' }}>
        <Button type="clear" title={DOOR_WORDS.jobs} onPress={() => router.navigate('/')} />
      </View>
      <Words size="title" heading={1}>
        {DOOR_WORDS.letSomebodyIn}
      </Words>
      <Words tone="second">{DOOR_WORDS.aKeyLetsBrowsersInFor}</Words>
      <Refusals issues={issuesOf(make.error ?? takeBack.error)} />
      {make.data ? <NewKey made={make.data} now={now} /> : null}
      <Card>
        <Words size="strong" heading={2}>
          {DOOR_WORDS.browsersThatAreIn}
        </Words>
        {keys?.browsers.map((one) => (
          <BrowserLine key={one.id} browser={one} now={now} onTakeBack={() => back(one.id)} />
        ))}
        {keys?.browsers.length === 0 ? <Words tone="second">{DOOR_WORDS.noneYet}</Words> : null}
      </Card>
      {keys && keys.invitations.length > 0 ? (
        <Card>
          <Words size="strong" heading={2}>
            {DOOR_WORDS.keysThatLetIn}
          </Words>
          {keys.invitations.map((one) => (
            <KeyLine key={one.id} one={one} now={now} onTakeBack={() => back(one.id)} />
          ))}
        </Card>
      ) : null}
    </Page>
  );
}

function NewKey({ made, now }: { readonly made: NewKeyView; readonly now: number }) {
  const [first] = made.addresses;
  return (
    <Card>
      <Words size="strong" heading={2}>
        {DOOR_WORDS.scanThisWithThePhone}
      </Words>
      {first ? <QrCode text={first} label={DOOR_WORDS.theAddress({ first })} /> : null}
      {made.addresses.map((address) => (
        <Words key={address} size="second">
          {address}
        </Words>
      ))}
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

interface LineProps {
  readonly now: number;
  readonly onTakeBack: () => void;
}

function BrowserLine({ browser, now, onTakeBack }: LineProps & { readonly browser: BrowserView }) {
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

function KeyLine({ one, now, onTakeBack }: LineProps & { readonly one: InvitationView }) {
  return (
    <View>
      <Words size="second">
        {DOOR_WORDS.madeByGoodFor({
          by: one.by,
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
