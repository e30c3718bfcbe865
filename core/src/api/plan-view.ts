import {
  formatIpv4,
  formatMac,
  formatPrefix,
  must,
  parseIpv4,
  parseMac,
  parsePrefix,
} from '../net';
import type { Band, Device, Interface, Plan, Subnet } from '../plan';
import type { BandView, DeviceInfo, InterfaceView, JobView, SubnetView } from './views';

// The plan as it travels and as it is reasoned about: text on one side, numbers on the other. What
// comes from the server was checked there, so a text that cannot be read is a programmer's error.

const ip = (text: string) => must(parseIpv4(text));

export const bandToView = (band: Band): BandView => ({
  role: band.role,
  first: formatIpv4(band.first),
  last: formatIpv4(band.last),
});

export const bandFromView = (view: BandView): Band => ({
  role: view.role,
  first: ip(view.first),
  last: ip(view.last),
});

export const subnetToView = (subnet: Subnet): SubnetView => ({
  id: subnet.id,
  name: subnet.name,
  network: formatPrefix(subnet.prefix),
  gateway: subnet.gateway === undefined ? null : formatIpv4(subnet.gateway),
  vlan: subnet.vlan ?? null,
  purpose: subnet.purpose,
  bands: subnet.bands.map(bandToView),
});

export const subnetFromView = (view: SubnetView): Subnet => ({
  id: view.id,
  name: view.name,
  prefix: must(parsePrefix(view.network)),
  gateway: view.gateway === null ? undefined : ip(view.gateway),
  vlan: view.vlan ?? undefined,
  purpose: view.purpose,
  bands: view.bands.map(bandFromView),
});

const interfaceFromView = (view: InterfaceView): Interface => ({
  id: view.id,
  subnetId: view.subnetId,
  address: ip(view.address),
  mac: view.mac === null ? undefined : must(parseMac(view.mac)),
});

export const deviceFromView = (view: DeviceInfo): Device => ({
  ...view,
  interfaces: view.interfaces.map(interfaceFromView),
});

export const planFromView = (job: JobView): Plan => ({
  subnets: job.subnets.map(subnetFromView),
  devices: job.devices.map(deviceFromView),
});

export const macOrNull = (mac: Parameters<typeof formatMac>[0] | undefined): string | null =>
  mac === undefined ? null : formatMac(mac);
