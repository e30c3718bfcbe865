import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import type { JobView } from '@ipsonomo/core/api';
import { Notice, Words } from '../../parts';
import { plural } from '../words';

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
  const more = left.length > SHOWN ? ` and ${left.length - SHOWN} more` : '';
  return (
    <Notice
      tone="ochre"
      title={`${plural(left.length, 'address', 'addresses')} gone at the next power-off`}
    >
      <Words size="second">
        {`${titles.join(', ')}${more}: given, and not yet seen to stay through a power cut.`}
      </Words>
      <Button
        type="outline"
        title={`Make it stay: ${first.device.title}`}
        onPress={() => router.navigate(`/job/${job}/call/${first.at.id}`)}
      />
    </Notice>
  );
}
