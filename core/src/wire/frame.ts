import { BROADCAST_MAC, type MacAddress } from '../net';
import { arp, type ArpPacket } from './arp';
import { DecodeError, encodeWith, freshBytes, type Codec } from './codec';
import { dhcpMessage, DHCP_PORT, type DhcpMessage } from './dhcp/message';
import { discovery, isDiscovery, type DiscoveryMessage } from './discovery';
import { ethernet, ETHERTYPE, putEthernetHeader, type EthernetFrame } from './ethernet';
import { lldp, type LldpElement } from './lldp';
import { icmp, type IcmpMessage } from './icmp';
import {
  ipv4HeaderOf,
  ipv4Packet,
  ipv4PacketOf,
  PROTOCOL,
  putIpv4Header,
  type Ipv4Packet,
} from './ipv4-packet';
import { tcp, type TcpSegment } from './tcp';
import { putUdpHeader, udp, type UdpDatagram, type UdpEnds } from './udp';

/** A frame read as deep as Ipsonomo understands it. */
export type Dissected =
  | { readonly kind: 'arp'; readonly ethernet: EthernetFrame; readonly arp: ArpPacket }
  | {
      readonly kind: 'discovery';
      readonly ethernet: EthernetFrame;
      readonly discovery: DiscoveryMessage;
    }
  | {
      readonly kind: 'lldp';
      readonly ethernet: EthernetFrame;
      readonly lldp: readonly LldpElement[];
    }
  | (IpLayers & { readonly kind: 'icmp'; readonly icmp: IcmpMessage })
  | (IpLayers & { readonly kind: 'tcp'; readonly tcp: TcpSegment })
  | (IpLayers & { readonly kind: 'udp'; readonly udp: UdpDatagram })
  | (IpLayers & { readonly kind: 'dhcp'; readonly udp: UdpDatagram; readonly dhcp: DhcpMessage })
  | (IpLayers & { readonly kind: 'ip' })
  | { readonly kind: 'ethernet'; readonly ethernet: EthernetFrame };

interface IpLayers {
  readonly ethernet: EthernetFrame;
  readonly ip: Ipv4Packet;
}

/** Reads a whole payload where it stands in its frame, so that errors name the frame's bytes. */
function within<T>(frame: Uint8Array, codec: Codec<T>, payload: Uint8Array): T {
  const at = payload.byteOffset - frame.byteOffset;
  return codec.decode(frame, at, at + payload.length).value;
}

/**
 * Reads a whole frame.
 * @throws DecodeError of the first layer that cannot be read
 */
export function dissect(frame: Uint8Array): Dissected {
  const read = <T>(codec: Codec<T>, payload: Uint8Array) => within(frame, codec, payload);
  const outer = read(ethernet, frame);
  if (outer.etherType === ETHERTYPE.arp)
    return { kind: 'arp', ethernet: outer, arp: read(arp, outer.payload) };
  if (outer.etherType === ETHERTYPE.discovery && isDiscovery(outer.payload))
    return { kind: 'discovery', ethernet: outer, discovery: read(discovery, outer.payload) };
  if (outer.etherType === ETHERTYPE.lldp)
    return { kind: 'lldp', ethernet: outer, lldp: read(lldp, outer.payload) };
  if (outer.etherType !== ETHERTYPE.ipv4) return { kind: 'ethernet', ethernet: outer };
  const ip = read(ipv4Packet, outer.payload);
  const layers = { ethernet: outer, ip };
  // A later fragment has no header of its own; the first one's length would not fit its bytes.
  if (ip.fragmentOffset !== 0 || ip.moreFragments) return { kind: 'ip', ...layers };
  switch (ip.protocol) {
    case PROTOCOL.icmp:
      return { kind: 'icmp', ...layers, icmp: read(icmp, ip.payload) };
    case PROTOCOL.tcp:
      return { kind: 'tcp', ...layers, tcp: read(tcp(ip.from, ip.to), ip.payload) };
    case PROTOCOL.udp: {
      const datagram = read(udp(ip.from, ip.to), ip.payload);
      if (datagram.toPort !== DHCP_PORT.server && datagram.toPort !== DHCP_PORT.client)
        return { kind: 'udp', ...layers, udp: datagram };
      return { kind: 'dhcp', ...layers, udp: datagram, dhcp: read(dhcpMessage, datagram.payload) };
    }
    default:
      return { kind: 'ip', ...layers };
  }
}

/** `dissect` as a value: the error instead of the exception. */
export function tryDissect(frame: Uint8Array): Dissected | DecodeError {
  try {
    return dissect(frame);
  } catch (error) {
    if (error instanceof DecodeError) return error;
    throw error;
  }
}

export const arpFrame = (from: MacAddress, to: MacAddress, packet: ArpPacket): Uint8Array =>
  encodeWith(ethernet, { to, from, etherType: ETHERTYPE.arp, payload: encodeWith(arp, packet) });

export const ipFrame = (from: MacAddress, to: MacAddress, packet: Ipv4Packet): Uint8Array =>
  encodeWith(ethernet, {
    to,
    from,
    etherType: ETHERTYPE.ipv4,
    payload: encodeWith(ipv4Packet, packet),
  });

export const udpPacket = (ends: UdpEnds, payload: Uint8Array): Ipv4Packet => {
  const { from, fromPort, to, toPort } = ends;
  const datagram = encodeWith(udp(from, to), { fromPort, toPort, payload });
  return ipv4PacketOf({ from, to, protocol: PROTOCOL.udp, payload: datagram });
};

// Where the layers of an untagged frame without IP options begin.
const IP_AT = 14;
const UDP_AT = 34;
const DHCP_AT = 42;

/**
 * A DHCP message on its way: to everybody unless a MAC is named. Laid out from the inside in one
 * piece, since requests come by the hundred at the same instant.
 */
export function dhcpFrame(
  from: MacAddress,
  ends: UdpEnds,
  message: DhcpMessage,
  to: MacAddress = BROADCAST_MAC,
): Uint8Array {
  const length = dhcpMessage.length(message);
  const bytes = freshBytes(DHCP_AT + length);
  dhcpMessage.encode(message, bytes, DHCP_AT);
  putUdpHeader(bytes, UDP_AT, ends, length);
  putIpv4Header(bytes, IP_AT, ipv4HeaderOf(ends.from, ends.to, PROTOCOL.udp), 8 + length);
  putEthernetHeader(bytes, 0, { to, from, etherType: ETHERTYPE.ipv4 });
  return bytes;
}
