import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import type { MeView } from '@ipsonomo/core/api';
import { DOOR_WORDS } from '@ipsonomo/language/screens/door';
import { START_WORDS } from '@ipsonomo/language/screens/start';
import { changeSettings, type Settings, acts, useAct, useMe, useSettings } from '../../../data';
import { Card, Choice, Field, Notice, Refusals, Words } from '../../../parts';
import { issuesOf } from '../../words';
import { ROLE_WORDS } from './role-words';

const MODES = [
  { value: 'auto', title: START_WORDS.asThisDeviceHasIt },
  { value: 'light', title: START_WORDS.dayReadableInTheSun },
  { value: 'dark', title: START_WORDS.nightForADarkCabinet },
] as const;

/** Whoever sits here: their name, what they may do, their password, and the way out. */
export function You() {
  const settings = useSettings();
  const router = useRouter();
  const me = useMe();
  return (
    <Card>
      <OwnName me={me} />
      {me ? <Words tone="second">{DOOR_WORDS.youMay({ role: ROLE_WORDS[me.role] })}</Words> : null}
      <Choice<Settings['mode']>
        label={START_WORDS.light}
        options={MODES}
        value={settings.mode}
        onChange={(mode) => changeSettings({ mode })}
      />
      {me?.role === 'keep' ? (
        <Button
          type="outline"
          title={START_WORDS.people}
          onPress={() => router.navigate('/people')}
        />
      ) : null}
      {me && me.id !== null ? <OwnWayIn me={me} /> : null}
    </Card>
  );
}

/** Milliseconds without a letter. */
const PAUSE = 1500;

/** The account's name; one that has none yet takes it at the first decision. */
function OwnName({ me }: { readonly me: MeView | undefined }) {
  const { person } = useSettings();
  const rename = useAct(acts.changeMe, {});
  const named = me && me.id !== null ? me.name : '';
  // What this browser remembers may be of another time; the account is what counts.
  useEffect(() => {
    if (named !== '') changeSettings({ person: named });
  }, [named]);
  const keep = () => {
    const typed = person.trim();
    if (!me || me.id === null || typed === '' || typed === named) return;
    // Who has none yet keeps what they typed: it is taken, with a number, when they decide something.
    const back = () => (named === '' ? undefined : changeSettings({ person: named }));
    rename.mutate({ name: typed }, { onError: back });
  };
  // Whoever closes the page with the last letter has typed a name all the same.
  useEffect(() => {
    const timer = setTimeout(keep, PAUSE);
    return () => clearTimeout(timer);
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [person]);
  return (
    <View onBlur={keep}>
      <Field
        label={START_WORDS.yourNameWrittenBesideEverythingYou}
        value={person}
        onChange={(typed) => changeSettings({ person: typed })}
        onEnter={keep}
      />
      <Refusals issues={issuesOf(rename.error)} />
    </View>
  );
}

function OwnWayIn({ me }: { readonly me: MeView }) {
  const out = useAct(acts.signOut, {});
  const [isSetting, setSetting] = useState(false);
  // The door is shut from then on: the page asks for it anew.
  const leave = (from: 'here' | 'everywhere') =>
    out.mutate({ from }, { onSuccess: () => globalThis.location?.reload() });
  return (
    <>
      {me.hasPassword ? null : <Notice tone="plain" title={DOOR_WORDS.aPasswordLetsYouIn} />}
      {isSetting ? (
        <SetPassword me={me} onDone={() => setSetting(false)} />
      ) : (
        <Button
          type="outline"
          title={me.hasPassword ? DOOR_WORDS.anotherPassword : DOOR_WORDS.setAPassword}
          onPress={() => setSetting(true)}
        />
      )}
      <Refusals issues={issuesOf(out.error)} />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button type="clear" title={DOOR_WORDS.signOut} onPress={() => leave('here')} />
        <Button
          type="clear"
          title={DOOR_WORDS.signOutEverywhere}
          onPress={() => leave('everywhere')}
        />
      </View>
    </>
  );
}

function SetPassword({ me, onDone }: { readonly me: MeView; readonly onDone: () => void }) {
  const set = useAct(acts.setPassword, {});
  const [old, setOld] = useState('');
  const [password, setPassword] = useState('');
  const keep = () =>
    set.mutate({ password, ...(me.hasPassword ? { old } : {}) }, { onSuccess: onDone });
  return (
    <View style={{ gap: 8 }}>
      {me.hasPassword ? (
        <Field label={DOOR_WORDS.passwordUntilNow} value={old} secret="current" onChange={setOld} />
      ) : null}
      <Field
        label={DOOR_WORDS.newPassword}
        value={password}
        secret="new"
        onChange={setPassword}
        onEnter={keep}
      />
      <Refusals issues={issuesOf(set.error)} />
      <Button
        title={DOOR_WORDS.keepPassword}
        disabled={password === ''}
        loading={set.isPending}
        onPress={keep}
      />
    </View>
  );
}
