import { format } from 'date-fns/format';
import { WAITING_WORDS } from '@ipsonomo/language/screens/waiting';
import { useHeld } from '../../data';
import { Notice, Words } from '../../parts';
import { actWords } from './act-words';

/** What was done at a device and waits to be sent. */
export function HeldHere({ id }: { readonly id: string }) {
  const here = useHeld().filter(({ params }) => params['interface'] === id);
  if (here.length === 0) return null;
  return (
    <Notice tone="ochre" title={WAITING_WORDS.heldHere}>
      {here.map((one) => (
        <Words key={one.place} size="second">
          {`${format(one.doneAt, 'HH:mm')} ${actWords(one)}`}
        </Words>
      ))}
    </Notice>
  );
}
