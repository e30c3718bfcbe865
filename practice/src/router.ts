import {
  newHost,
  nextTickOf,
  stepHost,
  type HostAddress,
  type HostInput,
  type HostState,
} from '@ipsonomo/core/host';
import { containsAddress, prefixOf, type Ipv4, type MacAddress } from '@ipsonomo/core/net';
import {
  arpFrame,
  dropMessage,
  encodeWith,
  icmp,
  ipv4PacketOf,
  PROTOCOL,
  type Dissected,
  type Drop,
  type Ipv4Packet,
} from '@ipsonomo/core/wire';

export interface RouterDefinition {
  readonly id: string;
  readonly title: string;
  readonly interfaces: readonly {
    readonly segment: string;
    readonly mac: MacAddress;
    readonly at: HostAddress;
  }[];
}

/** A frame and the segment it leaves on. */
export interface SegmentFrame {
  readonly segment: string;
  readonly frame: Uint8Array;
}

/** A router between segments: one forwarding host an interface, connected subnets only. */
export class PracticeRouter {
  private readonly hosts = new Map<string, HostState>();
  /** Segments on which its cable is out. */
  readonly cutOff = new Set<string>();
  /** It answers ARP for addresses of others (RFC 1027). */
  answersForAll = false;

  constructor(readonly definition: RouterDefinition) {
    for (const { segment, mac, at } of definition.interfaces)
      this.hosts.set(
        segment,
        newHost({ mac, answersPing: true, forwards: true, tcpPorts: [] }, at),
      );
  }

  nextAt(): number {
    return Math.min(...[...this.hosts.values()].map((host) => nextTickOf(host) ?? Infinity));
  }

  run(now: number): readonly SegmentFrame[] {
    return [...this.hosts.keys()].flatMap((segment) => this.step(segment, { kind: 'tick' }, now));
  }

  receive(segment: string, frame: Dissected, now: number): readonly SegmentFrame[] {
    const own = this.definition.interfaces.find((one) => one.segment === segment);
    if (!own || this.cutOff.has(segment)) return [];
    const proxied = this.answersForAll ? proxyAnswer(own.mac, own.at.address, frame) : undefined;
    const out = this.step(segment, { kind: 'frame', frame }, now);
    return proxied ? [...out, { segment, frame: proxied }] : out;
  }

  private step(segment: string, input: HostInput, now: number): readonly SegmentFrame[] {
    const host = this.hosts.get(segment);
    if (!host) return [];
    const { state, frames, news } = stepHost(host, input, now);
    this.hosts.set(segment, state);
    const out: SegmentFrame[] = frames.map((frame) => ({ segment, frame }));
    for (const one of news) {
      if (one.kind !== 'transit') continue;
      const drop = this.dropOf(one.packet);
      if (drop) {
        out.push(...this.step(segment, { kind: 'send-packet', packet: drop(segment) }, now));
        continue;
      }
      const packet = { ...one.packet, timeToLive: one.packet.timeToLive - 1 };
      const way = this.segmentTowards(packet.to);
      if (way && way !== segment && !this.cutOff.has(way))
        out.push(...this.step(way, { kind: 'send-packet', packet }, now));
    }
    return out;
  }

  /** What is told to the sender of a packet that goes no further; undefined where it does. */
  private dropOf(packet: Ipv4Packet): ((segment: string) => Ipv4Packet) | undefined {
    const drop: Drop | undefined =
      packet.timeToLive <= 1
        ? 'exceeded'
        : this.segmentTowards(packet.to)
          ? undefined
          : 'net-unreachable';
    if (!drop) return undefined;
    const payload = encodeWith(icmp, dropMessage(drop, packet));
    return (segment) => {
      const own = this.definition.interfaces.find((each) => each.segment === segment);
      const from = own?.at.address ?? packet.to;
      return ipv4PacketOf({ from, to: packet.from, protocol: PROTOCOL.icmp, payload });
    };
  }

  private segmentTowards(to: Ipv4): string | undefined {
    return this.definition.interfaces.find(
      ({ at }) => at.address !== to && containsAddress(prefixOf(at.address, at.length), to),
    )?.segment;
  }
}

/** The answer of a router that takes every address for one it knows a way to. */
function proxyAnswer(mac: MacAddress, own: Ipv4, frame: Dissected): Uint8Array | undefined {
  if (frame.kind !== 'arp') return undefined;
  const { operation, senderMac, senderAddress, targetAddress } = frame.arp;
  // Not for itself, which it answers anyway, and not for who only says where it is.
  if (operation !== 'request' || targetAddress === own || targetAddress === senderAddress)
    return undefined;
  return arpFrame(mac, senderMac, {
    ...{ operation: 'reply', senderMac: mac, senderAddress: targetAddress },
    ...{ targetMac: senderMac, targetAddress: senderAddress },
  });
}
