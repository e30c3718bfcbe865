import {
  bandFromView,
  formatMac,
  formatIpv4,
  must,
  parseIpv4,
  parseMac,
  parsePrefix,
  type BandView,
  type Device,
  type Evidence,
  type EvidenceKind,
  type Subnet,
  type Way,
} from '@ipsonomo/core';
import type { DeviceRow, EvidenceRow, SubnetRow } from './models';

// Rows become core values here and nowhere else. The database holds only what core accepted.

const ip = (text: string) => must(parseIpv4(text));
const mac = (text: string) => must(parseMac(text));

export const toSubnet = (row: SubnetRow): Subnet => ({
  id: row.id,
  name: row.name,
  prefix: must(parsePrefix(row.network)),
  gateway: row.gateway === null ? undefined : ip(row.gateway),
  vlan: row.vlan ?? undefined,
  purpose: row.purpose,
  bands: (row.bands as BandView[]).map(bandFromView),
});

export const toDevice = (row: DeviceRow): Device => ({
  id: row.id,
  title: row.title,
  name: row.name,
  kindId: row.kind_id,
  way: row.way as Way,
  area: row.area,
  cabinet: row.cabinet,
  position: row.position,
  interfaces: (row.interfaces ?? []).map((one) => ({
    id: one.id,
    subnetId: one.subnet_id,
    address: ip(one.address),
    mac: one.mac === null ? undefined : mac(one.mac),
  })),
});

export const toEvidence = (row: EvidenceRow): Evidence => ({
  id: row.id,
  kind: row.kind as EvidenceKind,
  at: row.at.getTime(),
  mac: row.mac === null ? undefined : mac(row.mac),
  address: row.address === null ? undefined : ip(row.address),
  source: row.source,
  person: row.person,
  facts: row.facts,
});

export const macText = (value: Parameters<typeof formatMac>[0] | undefined): string | null =>
  value === undefined ? null : formatMac(value);

export const ipText = (value: Parameters<typeof formatIpv4>[0] | undefined): string | null =>
  value === undefined ? null : formatIpv4(value);
