import type { Ipv4, MacAddress } from '../net';
import type { Kind } from './kind';
import { stationNameOf } from './naming';
import type { Device, Interface } from './model';
import type { Way } from './words';

/** What was heard of a client, as far as it can tell which device it is. */
export interface OfferClient {
  readonly mac: MacAddress;
  readonly protocol: 'BootP' | 'DHCP';
  readonly hostName: string | undefined;
  readonly vendorClass: string | undefined;
  readonly address: Ipv4 | undefined;
}

/** Why a client may be a device, strongest first. */
export type OfferReason = 'mac' | 'name' | 'vendor-class' | 'kind' | 'address' | 'protocol';

interface Offer {
  readonly mac: MacAddress;
  readonly reasons: readonly OfferReason[];
}

const WEIGHT: Readonly<Record<OfferReason, number>> = {
  mac: 100,
  name: 20,
  'vendor-class': 8,
  kind: 8,
  address: 4,
  protocol: 1,
};

const PROTOCOL_OF: Partial<Record<Way, OfferClient['protocol']>> = {
  bootp: 'BootP',
  'dhcp-mac': 'DHCP',
  'dhcp-name': 'DHCP',
  'dhcp-port': 'DHCP',
};

/**
 * Which of the heard clients a planned interface may be, best first. A hint and no more: only the
 * label check decides. A client whose name or vendor class says it is something else is left out.
 */
export function offersFor(
  device: Device,
  at: Interface,
  kind: Kind | undefined,
  clients: readonly OfferClient[],
): readonly Offer[] {
  return clients
    .flatMap((client) => {
      const reasons = reasonsFor(device, at, kind, client);
      return reasons.length > 0 ? [{ mac: client.mac, reasons }] : [];
    })
    .sort((a, b) => weightOf(b) - weightOf(a) || a.mac - b.mac);
}

/** What a station told of itself over layer 2. */
export interface OfferStation {
  readonly mac: MacAddress;
  readonly name: string | undefined;
  /** PROFINET vendor and device number. */
  readonly vendor: number | undefined;
  readonly device: number | undefined;
  readonly address: Ipv4 | undefined;
}

/**
 * Which of the found stations a planned interface may be, best first. One of another kind is left out;
 * several alike stay several: only label or lamp tells them apart.
 */
export function stationsFor(
  device: Device,
  at: Interface,
  kind: Kind | undefined,
  stations: readonly OfferStation[],
): readonly Offer[] {
  return stations
    .flatMap((station) => {
      const reasons = stationReasons(device, at, kind, station);
      return reasons.length > 0 ? [{ mac: station.mac, reasons }] : [];
    })
    .sort((a, b) => weightOf(b) - weightOf(a) || a.mac - b.mac);
}

function stationReasons(
  device: Device,
  at: Interface,
  kind: Kind | undefined,
  { mac, name, vendor, device: number, address }: OfferStation,
): readonly OfferReason[] {
  if (at.mac !== undefined) return at.mac === mac ? ['mac'] : [];
  const own = kind?.station;
  const isKind = own?.vendor === vendor && own?.device === number;
  if (own && vendor !== undefined && !isKind) return [];
  const reasons: OfferReason[] = [];
  if (name === stationNameOf(device)) reasons.push('name');
  if (own && isKind) reasons.push('kind');
  if (address === at.address) reasons.push('address');
  if (reasons.length === 0 && !own) reasons.push('protocol');
  return reasons;
}

const weightOf = (offer: Offer): number =>
  offer.reasons.reduce((sum, reason) => sum + WEIGHT[reason], 0);

function reasonsFor(
  device: Device,
  at: Interface,
  kind: Kind | undefined,
  client: OfferClient,
): readonly OfferReason[] {
  if (at.mac !== undefined) return at.mac === client.mac ? ['mac'] : [];
  const { vendorClass } = client;
  if (vendorClass && kind?.vendorClass && vendorClass !== kind.vendorClass) return [];
  const reasons: OfferReason[] = [];
  if (client.hostName?.toLowerCase() === device.name.toLowerCase()) reasons.push('name');
  if (vendorClass && vendorClass === kind?.vendorClass) reasons.push('vendor-class');
  if (client.address === at.address) reasons.push('address');
  if (PROTOCOL_OF[device.way] === client.protocol) reasons.push('protocol');
  return reasons;
}
