import { parseHostName } from '@ipsonomo/core/names';
import { interfacesOf, type Plan, type PlannedInterface } from '@ipsonomo/core/plan';
import { findSubnet } from '@ipsonomo/core/plan';
import type { LeftOut } from '@ipsonomo/core/api';
import { leftOut, type Material } from '../format';
import { countOf } from './reservations';

export interface NamedInterface extends PlannedInterface {
  readonly host: string;
  /** Of its subnet, without a dot at its ends; empty where it has none. */
  readonly domain: string;
}

/** The host name of an interface: the device's; further ones of it have their label, or their number, behind it. */
export function hostNameOf({ device, at }: PlannedInterface): string {
  const place = device.interfaces.indexOf(at);
  if (place <= 0) return device.name;
  const label = at.label
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');
  const isAlone = device.interfaces.every((one) => one === at || one.label !== at.label);
  return `${device.name}-${label !== '' && isAlone ? label : place + 1}`;
}

/**
 * R-HOST-NAMES-OUT: the chosen interfaces by their host names. Names compare without case (RFC 1035 §2.3.3), so two
 * that differ in capitals alone are the same: neither goes out, and both are told.
 */
export function namedInterfaces(material: Material): {
  readonly named: readonly NamedInterface[];
  readonly left: readonly LeftOut[];
} {
  const left: LeftOut[] = [];
  const all = material.chosen.flatMap((one): readonly NamedInterface[] => {
    const host = parseHostName(hostNameOf(one));
    if (host.ok) return [{ ...one, host: host.value, domain: domainOf(material.plan, one) }];
    left.push(leftOut(one, 'not-a-host-name', hostNameOf(one)));
    return [];
  });
  // Also one that is not meant may have the name already.
  const others = interfacesOf(material.plan).map((one) => ({
    host: hostNameOf(one).toLowerCase(),
    domain: domainOf(material.plan, one),
  }));
  const count = countOf(others, ({ host, domain }) => `${host}.${domain}`);
  const named = all.filter((one) => {
    if (count(one) <= 1) return true;
    left.push(leftOut(one, 'same-name', one.host));
    return false;
  });
  return { named, left };
}

const domainOf = (plan: Plan, { at }: PlannedInterface): string =>
  (findSubnet(plan, at.subnetId)?.dnsSuffix ?? '').toLowerCase().replace(/^\.+|\.+$/g, '');
