import type { Kind } from './kind';
import type { Device } from './model';

/** What is known while a device is awaited and has not asked. */
export interface Silence {
  readonly link: 'up' | 'down' | 'gone';
  /** Was anything at all heard on this wire? */
  readonly isWireAlive: boolean;
  /** The planned subnets whose addresses were heard, most devices first. */
  readonly heardSubnets: readonly string[];
  /** Of the interface that is awaited. */
  readonly subnetId: string;
}

/** Why a device was not heard, each with its own thing to look at. */
export type NotHeardCause =
  /** No cable, or a dead socket: nothing can be heard. */
  | { readonly code: 'no-link' }
  /** A link, and not one frame: another network, or a socket that is switched off. */
  | { readonly code: 'dead-wire' }
  /** What is heard is of another planned subnet: the cable is in another socket. */
  | { readonly code: 'other-subnet'; readonly subnetId: string }
  /** Its own network cable or plug. */
  | { readonly code: 'its-cable' }
  /** Its switches do not say "ask", or were turned and not read yet. */
  | { readonly code: 'switches' }
  /** It asks once it has started, and pauses longer and longer: only power off and on begins anew. */
  | { readonly code: 'not-restarted'; readonly seconds: number }
  /** It keeps an address from before and so does not ask. */
  | { readonly code: 'keeps-address' };

/** From power on to the second full pause: whoever asks at all was heard by then (RFC 951 §7.2; from memory). */
export const patienceFor = (kind: Pick<Kind, 'bootSeconds' | 'longestPauseSeconds'>): number =>
  kind.bootSeconds + 2 * kind.longestPauseSeconds;

/**
 * R-NOT-HEARD: the likely causes in the order in which they are worth a look: what would silence everybody first, then
 * what silences this device alone.
 */
export function notHeardCauses(
  { link, isWireAlive, heardSubnets, subnetId }: Silence,
  device: Pick<Device, 'way'>,
  kind: Kind | undefined,
): readonly NotHeardCause[] {
  if (link !== 'up') return [{ code: 'no-link' }];
  if (!isWireAlive) return [{ code: 'dead-wire' }, { code: 'its-cable' }];
  const causes: NotHeardCause[] = [];
  const [here] = heardSubnets;
  if (here !== undefined && !heardSubnets.includes(subnetId))
    causes.push({ code: 'other-subnet', subnetId: here });
  causes.push({ code: 'its-cable' });
  if (kind?.switches) causes.push({ code: 'switches' });
  causes.push({ code: 'not-restarted', seconds: kind ? patienceFor(kind) : 60 });
  const isFactoryAsking = kind?.factory.kind === 'asks' || kind?.factory.kind === 'switches';
  if (device.way !== 'dhcp-name' || isFactoryAsking) causes.push({ code: 'keeps-address' });
  return causes;
}
