import {
  LIMITED_BROADCAST,
  must,
  parseMac,
  UNSPECIFIED,
  type MacAddress,
} from '@ipsonomo/core/net';
import { dhcpFrame, dhcpMessageOf, withTag } from '@ipsonomo/core/wire';

export const mac = (text: string): MacAddress => must(parseMac(text));

/** A BootP request as bootpc sends it. */
export function bootpRequest(from: MacAddress, transaction: number): Uint8Array {
  const ends = { from: UNSPECIFIED, fromPort: 68, to: LIMITED_BROADCAST, toPort: 67 };
  const request = { operation: 'request', transaction, clientMac: from, options: [] } as const;
  return dhcpFrame(from, ends, dhcpMessageOf(request));
}

/** The same frame inside a VLAN tag of priority 6. */
export const tagged = (frame: Uint8Array, vlan: number): Uint8Array =>
  withTag(frame, 0xc000 | vlan);
