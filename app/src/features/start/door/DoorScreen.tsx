import { Button } from '@rneui/themed';
import { useState } from 'react';
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
          title="Come in"
          disabled={key.trim() === ''}
          loading={enter.isPending}
          onPress={come}
        />
      }
    >
      <Words size="title" heading={1}>
        A key is needed
      </Words>
      <Words>
        Ipsonomo sends on the wires of a plant, so it answers only browsers that were let in. The
        key stands on the terminal where it was started, as an address and as a QR code; somebody
        who is in already can make one under Jobs, Let somebody in.
      </Words>
      <Field
        label="The key: twenty letters and digits"
        value={key}
        onChange={setKey}
        onEnter={come}
      />
      <Refusals issues={issuesOf(wrong)} />
    </Page>
  );
}
