import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { ApiError } from '../data';
import type { Issue } from '@ipsonomo/core/net';
import type { Plan } from '@ipsonomo/core/plan';

/** The issues of a failed mutation; an unknown failure is the server's. */
export function issuesOf(error: unknown): readonly Issue[] | undefined {
  if (!error) return undefined;
  return error instanceof ApiError ? error.issues : [{ code: 'server.failed', where: '' }];
}

/** "2 s ago", "4 min ago": how old a thing is. */
export function agoWords(at: number, now: number): string {
  const seconds = Math.max(0, Math.round((now - at) / 1000));
  if (seconds < 60) return COMMON_WORDS.sAgo({ seconds });
  if (seconds < 3600) return COMMON_WORDS.minAgo({ seconds: Math.round(seconds / 60) });
  return COMMON_WORDS.hAgo({ seconds: Math.round(seconds / 3600) });
}

/** "23 h", "9 min" or "40 s": how much of it is left. */
export function leftWords(until: number, now: number): string {
  const seconds = Math.max(0, Math.round((until - now) / 1000));
  if (seconds > 2 * 3600) return `${Math.round(seconds / 3600)} h`;
  return seconds > 60 ? COMMON_WORDS.min({ seconds: Math.ceil(seconds / 60) }) : `${seconds} s`;
}

export const placeOf = (device: { cabinet: string; position: string; area: string }): string =>
  [
    device.cabinet && COMMON_WORDS.cabinet({ cabinet: device.cabinet }),
    device.position && COMMON_WORDS.row({ position: device.position }),
  ]
    .filter(Boolean)
    .join(', ') || device.area;

/** The prefix length in the text of a network; undefined where no network is known. */
export function lengthOf(network: string): number;
export function lengthOf(network: string | undefined): number | undefined;
export function lengthOf(network: string | undefined): number | undefined {
  return network === undefined ? undefined : Number(network.split('/')[1]);
}

/** "340 KB", "4.2 MB", "10.7 GB": how large something is, in units of a thousand. */
export function sizeWords(bytes: number): string {
  if (bytes < 1_000_000) return COMMON_WORDS.kb({ bytes: Math.ceil(bytes / 1000) });
  return bytes < 1_000_000_000
    ? COMMON_WORDS.mb({ value: (bytes / 1_000_000).toFixed(1) })
    : COMMON_WORDS.gb({ value: (bytes / 1_000_000_000).toFixed(1) });
}

/** Every interface of a plan, to choose one of. */
export const interfaceOptions = (plan: Plan) =>
  plan.devices.flatMap(({ title, interfaces }) =>
    interfaces.map(({ id, label }) => ({
      ...{ value: id, title: label === '' ? title : `${title}, ${label}` },
    })),
  );
