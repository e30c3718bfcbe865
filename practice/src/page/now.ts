import type { HostAddress } from '@ipsonomo/core/host';
import { formatIpv4, formatMac, maskOf, type MacAddress } from '@ipsonomo/core/net';
import type { Kind } from '@ipsonomo/core/plan';

/** What the page of a device shows and decides by. */
export interface PageNow {
  readonly kind: Kind;
  readonly mac: MacAddress;
  readonly serial: string;
  readonly configured: HostAddress | undefined;
  /** What it has at its next start; undefined where it asks. */
  readonly stored: HostAddress | undefined;
  /** Undefined as it left its maker. */
  readonly password: string | undefined;
  /** Its controller is connected. */
  readonly isConnected: boolean;
}

/** A device that is set up at once has "apply" and "save"; others "store" and "restart". */
export const appliesAtOnce = (kind: Kind): boolean => kind.forwards;

/** Three fields of an address as they are written. */
export const written = (at: HostAddress | undefined) => ({
  address: at ? formatIpv4(at.address) : '',
  mask: at ? formatIpv4(maskOf(at.length)) : '',
  gateway: at?.gateway === undefined ? '' : formatIpv4(at.gateway),
});

export const macOnPage = (mac: MacAddress): string => formatMac(mac).toUpperCase();
