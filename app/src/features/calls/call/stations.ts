import type { StationView } from '@ipsonomo/core/api';
import { formatMac, parseIpv4, parseMac } from '@ipsonomo/core/net';
import {
  findDevice,
  findKind,
  stationsFor,
  type OfferReason,
  type OfferStation,
} from '@ipsonomo/core/plan';
import type { Call } from './CallPage';

export interface StationOffer {
  readonly station: StationView;
  readonly reasons: readonly OfferReason[];
}

const stationOf = (told: StationView): OfferStation | undefined => {
  const mac = parseMac(told.mac);
  const address = told.address === null ? undefined : parseIpv4(told.address);
  if (!mac.ok) return undefined;
  return {
    mac: mac.value,
    name: told.name ?? undefined,
    vendor: told.vendor ?? undefined,
    device: told.device ?? undefined,
    address: address?.ok ? address.value : undefined,
  };
};

/** The found stations that the interface of a call may be, best first; what is bound elsewhere is left out. */
export function stationOffers(
  { plan, device, at }: Pick<Call, 'plan' | 'device' | 'at'>,
  stations: readonly StationView[],
): readonly StationOffer[] {
  const planned = findDevice(plan, device.id);
  const own = planned?.interfaces.find((one) => one.id === at.id);
  if (!planned || !own) return [];
  const bound = new Set(
    plan.devices.flatMap((one) =>
      one.interfaces.flatMap(({ id, mac }) => (mac === undefined || id === at.id ? [] : [mac])),
    ),
  );
  const open = stations
    .flatMap((told) => stationOf(told) ?? [])
    .filter(({ mac }) => !bound.has(mac));
  return stationsFor(planned, own, findKind(plan, device.kindId), open).flatMap(
    ({ mac, reasons }) => {
      const station = stations.find((one) => one.mac === formatMac(mac));
      return station ? [{ station, reasons }] : [];
    },
  );
}
