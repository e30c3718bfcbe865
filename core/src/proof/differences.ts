import type { CheckName } from './checks';

/** One value in which planned and found differ; the worst first. */
export const DIFFERENCES = [
  ...(['several', 'mac', 'unbound', 'kind', 'mask', 'gateway', 'article', 'revision'] as const),
  ...(['module', 'size', 'instance'] as const),
  ...(['serial', 'name', 'service', 'identity', 'no-ping'] as const),
] as const;
export type DifferenceKind = (typeof DIFFERENCES)[number];

export interface FoundDifference {
  readonly what: DifferenceKind;
  readonly expected: string;
  readonly found: string;
}

/** The check that a difference belongs to. */
export const CHECK_OF: Readonly<Record<DifferenceKind, CheckName>> = {
  ...({ several: 'arp', mac: 'arp', unbound: 'arp', 'no-ping': 'ping', name: 'name' } as const),
  ...({ mask: 'arp', gateway: 'arp' } as const),
  ...({ kind: 'identity', article: 'identity', revision: 'identity' } as const),
  ...({ serial: 'identity', identity: 'identity', service: 'services' } as const),
  ...({ module: 'identity', size: 'identity', instance: 'identity' } as const),
};
