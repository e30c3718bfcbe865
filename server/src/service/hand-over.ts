import { stringify } from 'csv-stringify/sync';
import { findKind, findSubnet, interfacesOf, progressOf, WAY_WORDS } from '@ipsonomo/core/plan';
import { dnsmasqConfig } from '@ipsonomo/core/formats';
import { formatIpv4, formatMac, formatPrefix, maskOf } from '@ipsonomo/core/net';
import { evidenceWords } from '@ipsonomo/language';
import type { Store } from '../store/store';
import type { Actor } from './actor';

const COLUMNS = [
  'device',
  'host name',
  'area',
  'cabinet',
  'position',
  'maker',
  'kind',
  'subnet',
  'network',
  'address',
  'mask',
  'gateway',
  'mac',
  'way',
  'stage',
  'last evidence',
  'seen at',
] as const;

/** As people here write it, and spreadsheets read it; the time of the place where the server stands. */
const localTime = (at: number): string =>
  new Date(at).toLocaleString('sv-SE', { dateStyle: 'short', timeStyle: 'short' });

/** A cell that a spreadsheet would run as a formula is kept as the text it is. */
const asText = (cell: string): string => (/^[=+\-@\t\r]/.test(cell) ? `'${cell}` : cell);

/** R-CSV: the address list as RFC 4180 has it: CRLF, quotes where needed, one header line, UTF-8. */
export async function addressList(
  store: Store,
  jobId: string,
): Promise<{ readonly name: string; readonly text: string }> {
  const job = await store.job(jobId);
  const [plan, { byInterface: evidence }, revisions] = await Promise.all([
    store.plan(jobId),
    store.evidence.latest(jobId),
    store.revisions(jobId),
  ]);
  const rows = interfacesOf(plan).map(({ device, at }) => {
    const subnet = findSubnet(plan, at.subnetId);
    const kind = findKind(plan, device.kindId);
    const seen = evidence.get(at.id) ?? [];
    const last = seen.at(-1);
    return [
      device.title,
      device.name,
      device.area,
      device.cabinet,
      device.position,
      kind?.maker ?? '',
      kind?.name ?? '',
      subnet?.name ?? '',
      subnet ? formatPrefix(subnet.prefix) : '',
      formatIpv4(at.address),
      subnet ? formatIpv4(maskOf(subnet.prefix.length)) : '',
      subnet?.gateway === undefined ? '' : formatIpv4(subnet.gateway),
      at.mac === undefined ? '' : formatMac(at.mac),
      WAY_WORDS[device.way],
      progressOf(device.way, at, seen).stage,
      last ? evidenceWords(last) : '',
      last ? localTime(last.at) : '',
    ].map(asText);
  });
  const text = stringify([[...COLUMNS], ...rows], { record_delimiter: 'windows' });
  return { name: `${job.name} addresses revision ${revisions.last}.csv`, text };
}

/** The reservations for whoever answers DHCP in the plant. */
export async function dhcpReservations(
  store: Store,
  jobId: string,
): Promise<{ readonly name: string; readonly text: string }> {
  const job = await store.job(jobId);
  const [plan, { last }] = await Promise.all([store.plan(jobId), store.revisions(jobId)]);
  return { name: `${job.name} DHCP revision ${last}.conf`, text: dnsmasqConfig(plan) };
}

/** Notes that the lists of the current revision left the house. */
export async function noteHandOver(store: Store, jobId: string, actor: Actor): Promise<void> {
  const { last } = await store.revisions(jobId);
  await store.addHandOver(jobId, actor.name, 'address list', last);
}
