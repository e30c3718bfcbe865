import { findDevice, findKind, wantedSetting, type Plan } from '@ipsonomo/core/plan';
import { SwitchCard } from './SwitchCard';

interface Props {
  readonly plan: Plan;
  readonly deviceId: string;
  readonly interfaceId: string;
}

/** The switches of a planned device; nothing where its kind has none. */
export function DeviceSwitches({ plan, deviceId, interfaceId }: Props) {
  const device = findDevice(plan, deviceId);
  const at = device?.interfaces.find((one) => one.id === interfaceId);
  const network = plan.subnets.find((one) => one.id === at?.subnetId)?.prefix;
  const face = device && findKind(plan, device.kindId)?.switches;
  if (!device || !at || !network || !face) return null;
  return (
    <SwitchCard {...{ face, network }} wanted={wantedSetting(face, device, at.address, network)} />
  );
}
