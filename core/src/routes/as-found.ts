import { maskOf, parseIpv4, UNSPECIFIED, type Ipv4 } from '../net';
import {
  findSubnet,
  gatewayOf,
  interfacesOf,
  maskLengthOf,
  type CheckFacts,
  type Plan,
} from '../plan';

/** Mask and gateway as a device says it has them. */
export interface SettingsFound {
  readonly mask: Ipv4;
  /** Undefined where it has none. */
  readonly gateway: Ipv4 | undefined;
}

/** What the facts of a check tell of them; undefined where the device did not tell, or it was another one. */
export function settingsIn(facts: CheckFacts): SettingsFound | undefined {
  const read = (text: unknown) => {
    const parsed = parseIpv4(String(text ?? ''));
    return parsed.ok ? parsed.value : undefined;
  };
  const [mask, gateway] = [read(facts.mask), read(facts.gateway)];
  if (mask === undefined || gateway === undefined) return undefined;
  return { mask, gateway: gateway === UNSPECIFIED ? undefined : gateway };
}

/**
 * R-AS-FOUND: the plan with the masks and gateways that the devices say they have, by the ids of their interfaces: what
 * the routes are like on site, as long as nobody changes it.
 */
export const planAsFound = (plan: Plan, found: ReadonlyMap<string, SettingsFound>): Plan => ({
  ...plan,
  devices: plan.devices.map((device) =>
    device.interfaces.some(({ id }) => found.has(id))
      ? {
          ...device,
          interfaces: device.interfaces.map((at) => {
            const has = found.get(at.id);
            return has ? { ...at, mask: has.mask, gateway: has.gateway ?? ('none' as const) } : at;
          }),
        }
      : device,
  ),
});

/** The interfaces that are otherwise than planned, in the order of the plan. */
export const otherwiseSet = (
  plan: Plan,
  found: ReadonlyMap<string, SettingsFound>,
): readonly string[] =>
  interfacesOf(plan).flatMap(({ at }) => {
    const [subnet, has] = [findSubnet(plan, at.subnetId), found.get(at.id)];
    if (!subnet || !has) return [];
    const isSame =
      maskOf(maskLengthOf(at, subnet)) === has.mask && gatewayOf(at, subnet) === has.gateway;
    return isSame ? [] : [at.id];
  });
