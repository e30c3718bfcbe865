import { formatIpv4, type Ipv4 } from './ipv4';
import { ok, refuse, type Result } from './result';

/** Addresses from `first` to `last`, both included; never empty. */
export interface AddressRange {
  readonly first: Ipv4;
  readonly last: Ipv4;
}

/** @returns refusal `range.order` where `first` is above `last`. */
export function toRange(first: Ipv4, last: Ipv4): Result<AddressRange> {
  if (first > last)
    return refuse('range.order', `${formatIpv4(first)}–${formatIpv4(last)}`, {
      first: formatIpv4(first),
      last: formatIpv4(last),
    });
  return ok({ first, last });
}

export const rangeHas = (range: AddressRange, address: Ipv4): boolean =>
  address >= range.first && address <= range.last;
