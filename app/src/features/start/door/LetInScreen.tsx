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
          title="Make a key"
          loading={make.isPending}
          onPress={() => make.mutate()}
        />
      }
    >
      <View style={{ alignItems: 'flex-start' }}>
        <Button type="clear" title="‹ Jobs" onPress={() => router.navigate('/')} />
      </View>
      <Words size="title" heading={1}>
        Let somebody in
      </Words>
      <Words tone="second">
        A key lets browsers in for a day. Each then stays in until it is taken back.
      </Words>
      <Refusals issues={issuesOf(make.error ?? takeBack.error)} />
      {make.data ? <NewKey made={make.data} now={now} /> : null}
      <Card>
        <Words size="strong" heading={2}>
          Browsers that are in
        </Words>
        {keys?.browsers.map((one) => (
          <BrowserLine key={one.id} browser={one} now={now} onTakeBack={() => back(one.id)} />
        ))}
        {keys?.browsers.length === 0 ? <Words tone="second">None yet.</Words> : null}
      </Card>
      {keys && keys.invitations.length > 0 ? (
        <Card>
          <Words size="strong" heading={2}>
            Keys that let in
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
        Scan this with the phone
      </Words>
      {first ? <QrCode text={first} label={`The address ${first}`} /> : null}
      {made.addresses.map((address) => (
        <Words key={address} size="second">
          {address}
        </Words>
      ))}
      <Words>
        The key, to type: {spokenKey(made.key)} (good for {leftWords(made.endsAt, now)})
      </Words>
      {made.addresses.every((address) => address.includes('//127.')) ? (
        <Notice tone="ochre" title="This server listens on its own machine alone">
          Start it with npm start, or with HOST=0.0.0.0, to let phones in.
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
  const who = browser.person || 'no name given yet';
  return (
    <View>
      <Words size="device">
        {who}
        {browser.isOwn ? ' (this browser)' : ''}
      </Words>
      <Words size="second" tone="second">
        {deviceWords(browser.device)} · here {agoWords(browser.seenAt, now)} · let in{' '}
        {format(browser.letInAt, 'd MMM, HH:mm')}
      </Words>
      <TakeBack what={who} onPress={onTakeBack} />
    </View>
  );
}

function KeyLine({ one, now, onTakeBack }: LineProps & { readonly one: InvitationView }) {
  return (
    <View>
      <Words size="second">
        made by {one.by} {agoWords(one.madeAt, now)}, good for {leftWords(one.endsAt, now)}
      </Words>
      <TakeBack what={`the key of ${one.by}`} onPress={onTakeBack} />
    </View>
  );
}

function TakeBack({ what, onPress }: { readonly what: string; readonly onPress: () => void }) {
  return (
    <View style={{ alignItems: 'flex-start', marginLeft: -16 }}>
      <Button
        type="clear"
        title="Take back"
        accessibilityLabel={`Take back: ${what}`}
        onPress={onPress}
      />
    </View>
  );
}
