import type { HostAddress } from '@ipsonomo/core/host';
import type { MacAddress, Prefix } from '@ipsonomo/core/net';
import { guideOf, type Kind } from '@ipsonomo/core/plan';
import type { Pool } from './lending';
import type { Quirk } from './quirks';
import type { RegisterServer } from './modbus-service';
import type { RackModule } from './rack';
import type { ProjectStation } from './station-controller';

/** The data of a connection. */
export interface Assembly {
  readonly instance: number;
  readonly bytes: number;
  /** It has no attribute for its size; whoever wants it has to read the data. */
  readonly isUnmeasured?: boolean;
}

/** One device of a practice site as it is delivered. */
export interface DeviceDefinition {
  readonly id: string;
  readonly title: string;
  readonly kind: Kind;
  readonly place: string;
  readonly segment: string;
  readonly mac: MacAddress;
  /** What is printed on it; not always the truth. */
  readonly label: string;
  readonly hostName?: string;
  readonly vendorClass?: string;
  /** An address it keeps from before. */
  readonly stored?: HostAddress;
  readonly unplugged?: boolean;
  /** A controller owns it, so it refuses to be changed. */
  readonly owned?: boolean;
  /** A name over layer 2 that it keeps from before. */
  readonly stationName?: string;
  /** The network its switches choose the last number in. */
  readonly network?: Prefix;
  /** It starts these stations, by their names. */
  readonly project?: readonly ProjectStation[];
  /** The controller that runs it once it has given it its address. */
  readonly runBy?: MacAddress;
  /** What is on the serial lines behind it. */
  readonly line?: readonly RegisterServer[];
  /** The modules beside it in its rack. */
  readonly rack?: readonly RackModule[];
  /** Where its connection has its data (EtherNet/IP assemblies). */
  readonly assemblies?: readonly Assembly[];
  /** How it is other than it should be, from the beginning. */
  readonly quirks?: readonly Quirk[];
  /** It stands nowhere while its cable is out: somebody brings it, or it is at another switch. */
  readonly isBrought?: boolean;
  /** It lends addresses to whoever asks. */
  readonly lends?: Pool;
}

/** Devices that take an address by hand: on a keypad, from a tool, from a card. */
export const isTypedInto = (kind: Kind): boolean =>
  (['keypad', 'makers-tool', 'card'] as const).some((way) => guideOf(kind, way) !== undefined);
