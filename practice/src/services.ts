import { ENIP_PORT, sourceOf, type HostAddress, type Kind, type MacAddress } from '@ipsonomo/core';
import { identityOf, serialText } from './identity';
import { DevicePage } from './page/page';
import { answerPage, memoryAfter } from './page/service';
import type { Quirk } from './quirks';
import type { Memory } from './start';
import { answerTcpip } from './tcpip-service';

/** What the services of a device answer by. */
export interface ServedDevice {
  readonly kind: Kind;
  readonly mac: MacAddress;
  readonly configured: HostAddress | undefined;
  readonly memory: Memory;
  /** A controller is connected, and has it for its own. */
  readonly owned: boolean;
  readonly quirks: ReadonlySet<Quirk>;
}

export interface Served {
  readonly data: Uint8Array;
  /** The connection ends with it. */
  readonly ends: boolean;
  /** What the device remembers from now on. */
  readonly memory: Memory;
  /** An address it uses at once. */
  readonly apply: HostAddress | undefined;
  readonly restarts: boolean;
}

const NOTHING = new Uint8Array(0);

/** The conversations of one device over TCP: EtherNet/IP, and everything else is its web page. */
export class Services {
  private readonly inbox = new Map<string, Uint8Array>();
  /** The port each connection came in at. */
  private readonly ports = new Map<string, number>();
  private readonly page: DevicePage;

  constructor(random: () => number) {
    this.page = new DevicePage(random);
  }

  /** At power-off nobody is connected or logged in any more. */
  forget(): void {
    this.inbox.clear();
    this.ports.clear();
    this.page.forget();
  }

  accepted(id: string, port: number): void {
    this.ports.set(id, port);
  }

  closed(id: string): void {
    this.inbox.delete(id);
    this.ports.delete(id);
  }

  received(id: string, data: Uint8Array, device: ServedDevice): Served {
    const waiting = this.inbox.get(id) ?? NOTHING;
    const received = new Uint8Array(waiting.length + data.length);
    received.set(waiting);
    received.set(data, waiting.length);
    return this.ports.get(id) === ENIP_PORT
      ? this.onTcpip(id, received, device)
      : this.onPage(id, received, device);
  }

  private onTcpip(id: string, received: Uint8Array, device: ServedDevice): Served {
    const { kind, mac, configured, owned, memory, quirks } = device;
    const { control: before } = memory;
    const object = { control: before, configured, owned, identity: identityOf(kind, mac, quirks) };
    const { bytes, ends, rest, control } = answerTcpip(object, received);
    this.inbox.set(id, rest);
    const stored = sourceOf(control ?? before) === 'stored' ? configured : memory.stored;
    const after = control === undefined ? memory : { ...memory, control, stored };
    return { data: bytes, ends, memory: after, apply: undefined, restarts: false };
  }

  private onPage(id: string, received: Uint8Array, device: ServedDevice): Served {
    const { kind, mac, configured, owned, memory } = device;
    const { stored, password } = memory;
    const known = { kind, mac, configured, stored, password };
    const serial = serialText(mac);
    this.inbox.set(id, received);
    const said = answerPage(this.page, { ...known, serial, isConnected: owned }, received);
    if (!said) return { data: NOTHING, ends: false, memory, apply: undefined, restarts: false };
    const applied = said.deeds.find((deed) => deed.kind === 'apply');
    return {
      ...{ data: said.data, ends: true, apply: applied?.address },
      memory: said.deeds.reduce((all, deed) => memoryAfter(all, deed, configured), memory),
      restarts: said.deeds.some((deed) => deed.kind === 'restart'),
    };
  }
}
