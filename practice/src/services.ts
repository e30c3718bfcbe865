import type { HostAddress } from '@ipsonomo/core/host';
import type { MacAddress } from '@ipsonomo/core/net';
import { pagePortOf, type Kind } from '@ipsonomo/core/plan';
import {
  ENIP_PORT,
  MODBUS_PORT,
  sourceOf,
  type CipReply,
  type UnconnectedSend,
} from '@ipsonomo/core/wire';
import type { Assembly } from './definition';
import { identityOf, serialText } from './identity';
import { answerModbus, type RegisterServer } from './modbus-service';
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
  /** What is on the serial lines behind it. */
  readonly line: readonly RegisterServer[];
  /** Where its connection has its data. */
  readonly assemblies: readonly Assembly[];
  /** Passes a request on along a route path; undefined where it is in no rack. */
  readonly forward: ((send: UnconnectedSend) => CipReply) | undefined;
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
/** What a device counts in its own registers: invented. */
const REGISTERS = Array.from({ length: 64 }, (_, at) => (at * 37) % 1000);

/** An answer that changes nothing else. */
const said = (data: Uint8Array, ends: boolean, memory: Memory): Served => ({
  ...{ data, ends, memory, apply: undefined, restarts: false },
});

/** The conversations of one device over TCP: EtherNet/IP, Modbus/TCP and its web page; what else is open stays silent. */
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
    const port = this.ports.get(id);
    if (port === ENIP_PORT) return this.onTcpip(id, received, device);
    if (port === MODBUS_PORT) return this.onModbus(id, received, device);
    if (port === pagePortOf(device.kind)) return this.onPage(id, received, device);
    return said(NOTHING, false, device.memory);
  }

  private onModbus(id: string, received: Uint8Array, { kind, memory, line }: ServedDevice): Served {
    const { bytes, ends, rest } = answerModbus({ kind, line, registers: REGISTERS }, received);
    this.inbox.set(id, rest);
    return said(bytes, ends, memory);
  }

  private onTcpip(id: string, received: Uint8Array, device: ServedDevice): Served {
    const { kind, mac, configured, owned, memory, quirks } = device;
    const { control: before } = memory;
    const identity = identityOf(kind, mac, quirks);
    const { forward, assemblies } = device;
    const object = {
      control: before,
      configured,
      owned,
      identity,
      assemblies,
      ...(forward ? { forward } : {}),
    };
    const { bytes, ends, rest, control } = answerTcpip(object, received);
    this.inbox.set(id, rest);
    const stored = sourceOf(control ?? before) === 'stored' ? configured : memory.stored;
    const after = control === undefined ? memory : { ...memory, control, stored };
    return said(bytes, ends, after);
  }

  private onPage(id: string, received: Uint8Array, device: ServedDevice): Served {
    const { kind, mac, configured, owned, memory } = device;
    const { stored, password } = memory;
    const known = { kind, mac, configured, stored, password };
    const serial = serialText(mac);
    this.inbox.set(id, received);
    const answer = answerPage(this.page, { ...known, serial, isConnected: owned }, received);
    if (!answer) return said(NOTHING, false, memory);
    const applied = answer.deeds.find((deed) => deed.kind === 'apply');
    return {
      ...{ data: answer.data, ends: true, apply: applied?.address },
      memory: answer.deeds.reduce((all, deed) => memoryAfter(all, deed, configured), memory),
      restarts: answer.deeds.some((deed) => deed.kind === 'restart'),
    };
  }
}
