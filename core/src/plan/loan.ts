import type { Ipv4 } from '../net';
import { avoidedFor, nextFree } from './allocate';
import { findSubnet, type Device, type Interface, type Plan } from './model';
import { findKind } from './shelf';

/**
 * R-LOAN: the address an interface is given now: one that was lent to it until its time is over, and then
 * the planned one again.
 * @param now milliseconds since 1970
 */
export const addressNow = (
  { address, loan }: Pick<Interface, 'address' | 'loan'>,
  now: number,
): Ipv4 => (loan && now < loan.until ? loan.address : address);

/** When the next loan of a plan ends; Infinity where there is none that goes on. */
export function nextLoanEnd(plan: Plan, now: number): number {
  let next = Infinity;
  for (const { interfaces } of plan.devices)
    for (const { loan } of interfaces)
      if (loan && loan.until > now && loan.until < next) next = loan.until;
  return next;
}

/** A free address to lend to a device, as one for its kind; undefined where its subnet is full. */
export function proposeLoan(
  plan: Plan,
  device: Device,
  at: Interface,
  now: number,
): Ipv4 | undefined {
  const subnet = findSubnet(plan, at.subnetId);
  const kind = findKind(plan, device.kindId);
  if (!subnet || !kind) return undefined;
  return nextFree(subnet, kind.role, avoidedFor(plan, subnet, { kind, way: device.way, now }));
}
