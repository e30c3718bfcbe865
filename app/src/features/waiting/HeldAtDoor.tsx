import { Button } from '@rneui/themed';
import { useEffect } from 'react';
import { WAITING_WORDS } from '@ipsonomo/language/screens/waiting';
import { outbox, useHeld } from '../../data';
import { Notice, Words } from '../../parts';
import { saveHeld } from './save-held';

/** What waits in a browser that is let in no longer: it stays, and can be taken along as a file. */
export function HeldAtDoor() {
  const held = useHeld();
  useEffect(() => void outbox.load().catch(() => undefined), []);
  if (held.length === 0) return null;
  const people = [...new Set(held.map(({ person }) => person || WAITING_WORDS.nobody))].join(', ');
  return (
    <Notice tone="ochre">
      <Words size="second">{WAITING_WORDS.atTheDoor({ count: held.length, people })}</Words>
      <Button type="outline" title={WAITING_WORDS.saveAsFile} onPress={() => saveHeld(held)} />
    </Notice>
  );
}
