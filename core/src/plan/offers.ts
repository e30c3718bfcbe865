import type { Ipv4, MacAddress } from '../net';
import type { Kind } from './kind';
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
export type OfferReason = 'mac' | 'name' | 'vendor-class' | 'address' | 'protocol';

export interface Offer {
  readonly mac: MacAddress;
  readonly reasons: readonly OfferReason[];
}

const WEIGHT: Readonly<Record<OfferReason, number>> = {
  mac: 100,
  name: 20,
  'vendor-class': 8,
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
