import type { Ipv4, MacAddress } from '../net';

/** How a network is set in a station, as somebody said it who knows: its DHCP server, or the station itself. */
export interface SaidNetwork {
  readonly mask: Ipv4;
  readonly gateway: Ipv4 | undefined;
}

/** Who it says it is. */
export interface SaidIdentity {
  /** By what numbers its kind is known. */
  readonly by: 'EtherNet/IP' | 'PROFINET';
  readonly vendor: number;
  /** Product code of the one, device number of the other. */
  readonly product: number;
  /** EtherNet/IP: the device type. */
  readonly type: number | undefined;
  /** In its maker's words; empty where it said none. */
  readonly name: string;
  /** As it stands on a label: hex digits; empty where it said none. */
  readonly serial: string;
}

/** What is known of one MAC from nothing but its frames, or of one line that somebody else wrote. */
export interface HeardStation {
  /** Undefined where only its address was told. */
  readonly mac: MacAddress | undefined;
  /** Its own, in the order in which they were heard; what it only passes on is left out. */
  readonly addresses: readonly Ipv4[];
  /** By which name it asked or was given one; empty where there was none. */
  readonly hostName: string;
  /** Over layer 2; empty where it has none, undefined where it is no such station. */
  readonly stationName: string | undefined;
  /** As it tells its neighbours (LLDP). */
  readonly systemName: string;
  readonly vendorClass: string;
  readonly asks: 'BootP' | 'DHCP' | undefined;
  /** By the address of which it is said. */
  readonly networks: ReadonlyMap<Ipv4, SaidNetwork>;
  readonly identity: SaidIdentity | undefined;
  /** The tag of its frames; undefined where they have none. */
  readonly vlan: number | undefined;
  /** It gave addresses to others. */
  readonly servesDhcp: boolean;
  /** It passed on what others sent: packets from elsewhere came with its MAC. */
  readonly forwards: boolean;
  /** That it sent itself. */
  readonly frames: number;
  /** Microseconds since 1970; 0 where nobody said when. */
  readonly firstAt: number;
  readonly lastAt: number;
}

export const emptyStation = (mac: MacAddress | undefined, at = 0): HeardStation => ({
  ...{ mac, addresses: [], hostName: '', stationName: undefined, systemName: '' },
  ...{ vendorClass: '', asks: undefined, networks: new Map(), identity: undefined },
  ...{ vlan: undefined, servesDhcp: false, forwards: false, frames: 0, firstAt: at, lastAt: at },
});

/** What it is called, the surest first; a name that it does not have is none. */
export const namesOf = ({
  stationName,
  hostName,
  systemName,
}: Pick<HeardStation, 'stationName' | 'hostName' | 'systemName'>): readonly string[] =>
  [stationName ?? '', hostName, systemName].filter((name) => name.trim() !== '');
