import { isGroupMac, type MacAddress } from '@ipsonomo/core/net';

/** A learning switch: which of its ports a frame leaves by. Ports are named, `laptop` among them. */
export class PracticeSwitch {
  private readonly learned = new Map<MacAddress, string>();

  /** Ports to send to; `undefined` stands for every port but the one it came in by. */
  towards(from: MacAddress, to: MacAddress, port: string): string | undefined {
    this.learned.set(from, port);
    return isGroupMac(to) ? undefined : this.learned.get(to);
  }

  /** A cable was pulled or moved: what was learned behind that port no longer holds. */
  forget(port: string): void {
    for (const [mac, known] of this.learned) if (known === port) this.learned.delete(mac);
  }
}
