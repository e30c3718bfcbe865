import { formatIpv4, type Prefix } from '@ipsonomo/core/net';
import {
  addressBySwitches,
  nameBySwitches,
  type SwitchFace,
  type SwitchReading,
} from '@ipsonomo/core/switches';

/** What a device with this setting does at power-up, as a sentence. */
export function switchWords(face: SwitchFace, reading: SwitchReading, network?: Prefix): string {
  const { act, value } = reading;
  switch (act?.kind) {
    case undefined:
      return `${value} means nothing to this device. It may not start.`;
    case 'last-number':
    case 'host-part':
    case 'fixed':
      return addressWords(face, reading, network);
    case 'asks':
      return `It asks for its address by ${act.by === 'bootp' ? 'BootP' : 'DHCP'}.`;
    case 'name':
      return `It goes by the name ${nameBySwitches(act.pattern, value)}.`;
    case 'stored':
      return 'It uses the address that is stored in it.';
    case 'factory':
      return 'It goes back to how it left its maker. What is stored in it is lost.';
    case 'locked':
      return 'It uses the address that is stored in it, and refuses to have it changed.';
  }
}

function addressWords(face: SwitchFace, reading: SwitchReading, network?: Prefix): string {
  const base = face.base ?? network;
  if (reading.act?.kind === 'fixed') return `Its address is ${formatIpv4(reading.act.address)}.`;
  if (!base) return `The last number of its address is ${reading.value}.`;
  const address = addressBySwitches(face, reading, base);
  if (address !== undefined) return `Its address is ${formatIpv4(address)}.`;
  return `${reading.value} is no address of its subnet.`;
}
