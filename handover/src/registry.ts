import type { FormatId } from '@ipsonomo/core/api';
import type { Format } from './format';
import { addressesCsv, addressesXlsx } from './formats/address-list/write';
import { cabinetSheets } from './formats/cabinet-sheets/write';
import { connectionsCsv, connectionsPdf, connectionsXlsx } from './formats/connections/write';
import { corrections } from './formats/corrections/write';
import { dhcpd } from './formats/dhcpd/write';
import { dnsmasq } from './formats/dnsmasq/write';
import { firewall } from './formats/firewall/write';
import { hosts } from './formats/hosts/write';
import { kea } from './formats/kea/write';
import { labelsPdf, labelsPng, labelsSvg } from './formats/labels/write';
import { names } from './formats/names/write';
import { nftables } from './formats/nftables/write';
import { pictureSvg } from './formats/picture/write';
import { planJson } from './formats/plan/write';
import { proofJson, proofPdf } from './formats/proof/write';
import { swapCards } from './formats/swap-cards/write';
import { targets } from './formats/targets/write';
import { writtenPlacesCsv } from './formats/written-places/write';
import { zones } from './formats/zone/write';

/** Every format, by its id: a new one is its folder and a line here. */
const ALL: readonly Format[] = [
  ...[addressesCsv, addressesXlsx, dnsmasq, dhcpd, kea, hosts, zones, firewall, nftables, targets],
  ...[connectionsCsv, connectionsXlsx, connectionsPdf, names, corrections, writtenPlacesCsv],
  ...[labelsPdf, labelsSvg, labelsPng, swapCards, cabinetSheets],
  ...[proofPdf, proofJson, pictureSvg, planJson],
];

const BY_ID: ReadonlyMap<FormatId, Format> = new Map(ALL.map((one) => [one.id, one]));

export const FORMATS_WRITTEN: readonly Format[] = ALL;

export const formatOf = (id: FormatId): Format | undefined => BY_ID.get(id);
