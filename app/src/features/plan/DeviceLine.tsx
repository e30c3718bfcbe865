import { useRouter } from 'expo-router';
import type { DeviceInfo } from '@ipsonomo/core/api';
import { findSubnet, type Plan } from '@ipsonomo/core/plan';
import { DeviceRow } from '../../parts';
import { placeOf } from '../words';

interface Props {
  readonly id: string;
  readonly plan: Plan;
  readonly device: DeviceInfo;
}

/** A device with its address and how far it has come. */
export function DeviceLine({ id, plan, device }: Props) {
  const router = useRouter();
  const at = device.interfaces[0];
  if (!at) return null;
  return (
    <DeviceRow
      title={device.title}
      second={placeOf(device)}
      address={at.address}
      length={findSubnet(plan, at.subnetId)?.prefix.length ?? 24}
      notches={at.notches}
      onPress={() => router.navigate(`/job/${id}/device/${device.id}`)}
    />
  );
}
