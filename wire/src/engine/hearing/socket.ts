import { containsAddress } from '@ipsonomo/core/net';
import { neighbourOf, treeBridgeOf, type Dissected } from '@ipsonomo/core/wire';
import type { FieldSubnet, Sighting, SocketStatus } from '../../protocol';
import type { Unit } from '../unit';

type Heard = Extract<Dissected, { kind: 'lldp' | 'ethernet' }>;

/**
 * R-SOCKET: which socket the cable is in, by nothing but listening: what the switch says of its port, what the spanning
 * tree says of its sender, the tags of other VLANs, and whose addresses are heard.
 */
export class Socket implements Unit {
  private neighbour: SocketStatus['neighbour'];
  private bridge: SocketStatus['bridge'];
  private readonly tags = new Map<number, number>();
  private heardAt: number | undefined;

  constructor(private readonly changed: () => void) {}

  frame(frame: Dissected, _bytes: Uint8Array, now: number): void {
    this.heardAt = now;
    if ((frame.kind === 'lldp' || frame.kind === 'ethernet') && this.learns(frame, now))
      this.changed();
  }

  /** A frame of another VLAN came in with its tag. Returns whether that was news. */
  tagged(vlan: number, now: number): boolean {
    const isNews = !this.tags.has(vlan);
    this.tags.set(vlan, now);
    return isNews;
  }

  /** @returns whether that was news */
  private learns(frame: Heard, now: number): boolean {
    if (frame.kind === 'lldp') {
      const said = neighbourOf(frame.ethernet.from, frame.lldp);
      if (!said) return false;
      this.neighbour = { ...said, at: now };
      return true;
    }
    const said = treeBridgeOf(frame.ethernet);
    if (!said) return false;
    const isNews = this.bridge?.mac !== said.mac || this.bridge.port !== said.port;
    this.bridge = { ...said, at: now };
    return isNews;
  }

  /** The cable was pulled, or another run begins: what was heard is of another socket perhaps. */
  forget(): void {
    this.neighbour = undefined;
    this.bridge = undefined;
    this.tags.clear();
    this.heardAt = undefined;
  }

  status(subnets: readonly FieldSubnet[], present: readonly Sighting[], now: number): SocketStatus {
    const counts = new Map<string, number>();
    let outside = 0;
    for (const { address } of present) {
      const subnet = subnets.find(({ network, length }) =>
        containsAddress({ network, length }, address),
      );
      if (subnet) counts.set(subnet.id, (counts.get(subnet.id) ?? 0) + 1);
      else outside += 1;
    }
    const { neighbour } = this;
    // What a switch said holds for as long as it said (IEEE 802.1AB §9.2.7.7).
    const holds = neighbour && now < neighbour.at + neighbour.seconds * 1000;
    return {
      neighbour: holds ? neighbour : undefined,
      bridge: this.bridge,
      tags: [...this.tags.keys()].sort((a, b) => a - b),
      subnets: [...counts].map(([subnetId, count]) => ({ subnetId, count })),
      outside,
      heardAt: this.heardAt,
    };
  }
}
