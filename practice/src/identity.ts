import { formatMac, type MacAddress } from '@ipsonomo/core/net';
import type { Kind } from '@ipsonomo/core/plan';
import type { Identity } from '@ipsonomo/core/wire';
import type { Quirk } from './quirks';

/** A serial number of 32 bits, made from the MAC, so that no two devices have the same. */
export const serialOf = (mac: MacAddress): number => mac % 2 ** 32;

/** As it stands on the page of a device. */
export const serialText = (mac: MacAddress): string =>
  `S${formatMac(mac).replaceAll(':', '').slice(6).toUpperCase()}`;

/** Its revision, major and minor. */
export function numbersOf(
  kind: Kind,
  quirks: ReadonlySet<Quirk>,
): readonly [major: number, minor: number] {
  const [first = 1, minor = 0] = kind.revision.split('.').map(Number);
  return [quirks.has('other-revision') ? first + 1 : first, minor];
}

/** What a device of this kind says of itself over EtherNet/IP. */
export function identityOf(
  kind: Kind,
  mac: MacAddress,
  quirks: ReadonlySet<Quirk> = new Set(),
): Omit<Identity, 'address' | 'status' | 'state'> {
  const { vendor, type, product } = kind.identity ?? { vendor: 0, type: 0, product: 0 };
  return {
    vendor,
    type,
    product,
    revision: numbersOf(kind, quirks),
    serial: serialOf(mac),
    name: kind.name,
  };
}
