import { Button } from '@rneui/themed';
import { useState } from 'react';
import { DOOR_WORDS } from '@ipsonomo/language/screens/door';
import { isLocked, useEnter } from '../../../data';
import { Field, Page, Refusals, Words } from '../../../parts';
import { issuesOf } from '../../words';

/** What a browser sees that was not let in. @param error why: no key, or one that opens nothing */
export function DoorScreen({ error }: { readonly error: unknown }) {
  const [key, setKey] = useState('');
  const enter = useEnter();
  const wrong = enter.error ?? (isLocked(error) ? undefined : error);
  const come = () => enter.mutate(key);
  return (
    <Page
      action={
        <Button
          size="lg"
          title={DOOR_WORDS.comeIn}
          disabled={key.trim() === ''}
          loading={enter.isPending}
          onPress={come}
        />
      }
    >
      <Words size="title" heading={1}>
        {DOOR_WORDS.aKeyIsNeeded}
      </Words>
      <Words>{DOOR_WORDS.ipsonomoSendsOnTheWiresOf}</Words>
      <Field
        label={DOOR_WORDS.theKeyTwentyLettersAndDigits}
        value={key}
        onChange={setKey}
        onEnter={come}
      />
      <Refusals issues={issuesOf(wrong)} />
    </Page>
  );
}
