import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import type { JobView } from '@ipsonomo/core/api';
import { PROVE_WORDS } from '@ipsonomo/language/screens/prove';
import { Notice, Words } from '../../parts';

const SHOWN = 3;

/** Devices that have their address only until the next power-off: nobody may go home over them unaware. */
export function Temporary({ job, view }: { readonly job: string; readonly view: JobView }) {
  const router = useRouter();
  const left = view.devices.flatMap((device) =>
    device.interfaces.filter((at) => at.stage === 'given').map((at) => ({ device, at })),
  );
  const [first] = left;
  if (!first) return null;
  const titles = left.slice(0, SHOWN).map(({ device }) => device.title);
  const more = left.length > SHOWN ? PROVE_WORDS.andMore({ left: left.length - SHOWN }) : '';
  return (
    <Notice tone="ochre" title={PROVE_WORDS.addressGoneAtTheNextPower({ left: left.length })}>
      <Words size="second">
        {PROVE_WORDS.givenAndNotYetSeenTo({ value: titles.join(', '), more })}
      </Words>
      <Button
        type="outline"
        title={PROVE_WORDS.makeItStay({ title: first.device.title })}
        onPress={() => router.navigate(`/job/${job}/call/${first.at.id}`)}
      />
    </Notice>
  );
}
