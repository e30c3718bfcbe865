import { Button } from '@rneui/themed';
import { useState } from 'react';
import { DOOR_WORDS } from '@ipsonomo/language/screens/door';
import { isLocked, useEnter, useSignIn } from '../../../data';
import { Card, Field, Page, Refusals, Words, useDraft } from '../../../parts';
import { HeldAtDoor } from '../../waiting';
import { issuesOf } from '../../words';

/** What a browser sees that was not let in. @param error why: no key, or one that opens nothing */
export function DoorScreen({ error }: { readonly error: unknown }) {
  return (
    <Page maxWidth={560}>
      <Words size="title" heading={1}>
        {DOOR_WORDS.comeInHead}
      </Words>
      <Words>{DOOR_WORDS.ipsonomoSendsOnTheWiresOf}</Words>
      <HeldAtDoor />
      <ByPassword />
      <ByKey error={isLocked(error) ? undefined : error} />
    </Page>
  );
}

function ByPassword() {
  const [name, setName] = useDraft('sign in');
  const [password, setPassword] = useState('');
  const enter = useSignIn();
  const come = () => enter.mutate({ name, password });
  return (
    <Card>
      <Words size="strong" heading={2}>
        {DOOR_WORDS.withNameAndPassword}
      </Words>
      <Field label={DOOR_WORDS.name} value={name} onChange={setName} />
      <Field
        label={DOOR_WORDS.password}
        value={password}
        secret="current"
        onChange={setPassword}
        onEnter={come}
      />
      <Refusals issues={issuesOf(enter.error)} />
      <Button
        size="lg"
        title={DOOR_WORDS.signIn}
        disabled={name.trim() === '' || password === ''}
        loading={enter.isPending}
        onPress={come}
      />
    </Card>
  );
}

/** @param error of a key that the address brought */
function ByKey({ error }: { readonly error: unknown }) {
  const [key, setKey] = useState('');
  const enter = useEnter();
  const come = () => enter.mutate(key);
  return (
    <Card>
      <Words size="strong" heading={2}>
        {DOOR_WORDS.withAKey}
      </Words>
      <Words size="second" tone="second">
        {DOOR_WORDS.whereAKeyIsFrom}
      </Words>
      <Field
        label={DOOR_WORDS.theKeyTwentyLettersAndDigits}
        value={key}
        onChange={setKey}
        onEnter={come}
      />
      <Refusals issues={issuesOf(enter.error ?? error)} />
      <Button
        size="lg"
        type="outline"
        title={DOOR_WORDS.comeIn}
        disabled={key.trim() === ''}
        loading={enter.isPending}
        onPress={come}
      />
    </Card>
  );
}
