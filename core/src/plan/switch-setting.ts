import type { Ipv4, Prefix, Result } from '../net';
import {
  nameBySwitches,
  setForAct,
  setForAddress,
  type SwitchAct,
  type SwitchFace,
  type SwitchSetting,
} from '../switches';
import type { Device } from './model';
import { dhcpNameOf, stationNameOf } from './naming';

/**
 * How the switches of a device must stand for the way it is to get its address: at the address itself,
 * at "ask", at its name, or at "what is stored counts".
 * @returns the refusals of `setForAddress`; `switches.never` where no position means what is wanted
 */
export function wantedSetting(
  face: SwitchFace,
  device: Device,
  address: Ipv4,
  network: Prefix,
): Result<SwitchSetting> {
  if (device.way === 'switches') return setForAddress(face, address, network);
  const [first, ...others] = meaningsFor(device).map(({ where, isMeant }) =>
    setForAct(face, where, isMeant),
  );
  return (
    [first, ...others].find((one) => one?.ok) ?? first ?? setForAddress(face, address, network)
  );
}

interface Meant {
  /** What is wanted of the switches, for the refusal. */
  readonly where: string;
  readonly isMeant: (act: SwitchAct, value: number) => boolean;
}

const ASKS_BOOTP: Meant = {
  where: 'asking by BootP',
  isMeant: (act) => act.kind === 'asks' && act.by === 'bootp',
};
const ASKS_DHCP: Meant = {
  where: 'asking by DHCP',
  isMeant: (act) => act.kind === 'asks' && act.by === 'dhcp',
};
const STORED: Meant = { where: 'the stored address', isMeant: (act) => act.kind === 'stored' };

const named = (name: string): Meant => ({
  where: `the name ${name}`,
  isMeant: (act, value) => act.kind === 'name' && nameBySwitches(act.pattern, value) === name,
});

/** What a way needs the switches to mean, the most fitting first. */
function meaningsFor(device: Device): readonly Meant[] {
  switch (device.way) {
    case 'bootp':
      return [ASKS_BOOTP];
    case 'dhcp-mac':
    case 'dhcp-port':
      return [ASKS_DHCP];
    case 'dhcp-name':
      return [named(dhcpNameOf(device)), ASKS_DHCP];
    case 'layer2-name':
    case 'controller':
      return [named(stationNameOf(device)), STORED];
    default:
      return [STORED];
  }
}
