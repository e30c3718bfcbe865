import { BROADCAST_MAC, LIMITED_BROADCAST, UNSPECIFIED, type MacAddress } from '@ipsonomo/core/net';
import {
  DHCP_PORT,
  dhcpMessage,
  encodeWith,
  ipFrame,
  udpPacket,
  type DhcpMessage,
  type Dissected,
  type UdpEnds,
} from '@ipsonomo/core/wire';
import { spoilRequest, type Quirk } from './quirks';

/** One quick probe before an address is used; BootP devices just take what they are given. */
export const DHCP_CLAIM = { probes: 1, interval: 0, wait: 250 };
export const PLAIN_CLAIM = { probes: 0, interval: 0, wait: 0 };
export const STORED_CLAIM = { probes: 2, interval: 200, wait: 200 };
/** From a client to a server. */
export const PORTS = { fromPort: DHCP_PORT.client, toPort: DHCP_PORT.server } as const;
export const AFTER_DECLINE = 10_000;
/** From "restart" on its page to the restart, so that the page still gets its answer. */
export const RESTARTS_AFTER = 300;

/** How long a lamp flashes when it is asked to (common practice, no source). */
export const FLASH = 3000;

/** What a client without an address sends to everybody. */
export function askFrame(
  mac: MacAddress,
  message: DhcpMessage,
  quirks: ReadonlySet<Quirk>,
): Uint8Array {
  const ends: UdpEnds = { from: UNSPECIFIED, to: LIMITED_BROADCAST, ...PORTS };
  const payload = spoilRequest(encodeWith(dhcpMessage, message), quirks);
  return ipFrame(mac, BROADCAST_MAC, udpPacket(ends, payload));
}

/** Whether a frame is for a device with this MAC, or for everybody. */
export const isFor = (mac: MacAddress, { ethernet: { to } }: Dissected): boolean =>
  to === BROADCAST_MAC || to === mac;
