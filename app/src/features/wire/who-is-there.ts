import type {
  DeviceInfo,
  FieldView,
  InterfaceView,
  JobView,
  PresentView,
} from '@ipsonomo/core/api';
import { WIRE_WORDS } from '@ipsonomo/language/screens/wire';

/** A device of the plan that was seen with another address than planned. */
export interface Elsewhere {
  readonly device: DeviceInfo;
  readonly at: InterfaceView;
  readonly seen: PresentView;
}

export interface Stranger {
  readonly mac: string;
  /** One that answers for many is a router that answers for others. */
  readonly addresses: readonly string[];
  /** Who has its address in the plan: a device of which no MAC is bound, or the gateway of a subnet. */
  readonly mayBe: string | undefined;
}

export interface WhoIsThere {
  readonly asPlanned: number;
  readonly elsewhere: readonly Elsewhere[];
  readonly strangers: readonly Stranger[];
}

/** Everybody seen with an address, held against the plan. Our own addresses are nobody. */
export function whoIsThere(
  view: JobView,
  present: readonly PresentView[],
  field: Pick<FieldView, 'voices'> | undefined,
): WhoIsThere {
  const planned = view.devices.flatMap((device) =>
    device.interfaces.map((at) => ({ device, at, mac: at.mac ?? at.askedBy })),
  );
  const ofMac = new Map(planned.flatMap((one) => (one.mac ? [[one.mac, one] as const] : [])));
  const unbound = new Map([
    ...view.subnets.flatMap(({ gateway, name }) =>
      gateway === null ? [] : [[gateway, WIRE_WORDS.theGatewayOf({ name })] as const],
    ),
    ...planned.flatMap((one) => (one.mac ? [] : [[one.at.address, one.device.title] as const])),
  ]);
  const ours = new Set(field?.voices.map(({ address }) => address));
  const addresses = new Map<string, string[]>();
  for (const { mac, address } of present)
    if (!ours.has(address)) addresses.set(mac, [...(addresses.get(mac) ?? []), address]);
  const elsewhere: Elsewhere[] = [];
  const strangers: Stranger[] = [];
  let asPlanned = 0;
  for (const [mac, all] of addresses) {
    const one = ofMac.get(mac);
    const last = present.findLast((seen) => seen.mac === mac);
    if (!one) {
      const mayBe = all.map((address) => unbound.get(address)).find(Boolean);
      strangers.push({ mac, addresses: all, mayBe });
    } else if (last && last.address !== one.at.address)
      elsewhere.push({ device: one.device, at: one.at, seen: last });
    else asPlanned += 1;
  }
  return { asPlanned, elsewhere, strangers };
}
