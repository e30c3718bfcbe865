import { formatMac, formatIpv4, must, parseIpv4, parseMac } from '@ipsonomo/core/net';
import { readEvidence, type Evidence } from '@ipsonomo/core/plan';
import type { EvidenceRow } from './models';

// Rows become core values here and nowhere else. The database holds only what core accepted.

const ip = (text: string) => must(parseIpv4(text));
const mac = (text: string) => must(parseMac(text));

export const toEvidence = (row: EvidenceRow): Evidence => ({
  id: row.id,
  at: row.at.getTime(),
  mac: row.mac === null ? undefined : mac(row.mac),
  address: row.address === null ? undefined : ip(row.address),
  source: row.source,
  person: row.person,
  ...readEvidence(row.kind, row.facts),
});

export const macText = (value: Parameters<typeof formatMac>[0] | undefined): string | null =>
  value === undefined ? null : formatMac(value);

export const ipText = (value: Parameters<typeof formatIpv4>[0] | undefined): string | null =>
  value === undefined ? null : formatIpv4(value);
