import { parseIpv4, parseMac, type Ipv4, type MacAddress } from '../net';
import type { DrillRow, Expected, Plan } from '../plan';
import type { DrillView, JobView } from './views';

// A cold start as it comes to a page, as core reasons about it.

export const addressOrNone = (text: string): Ipv4 | undefined => {
  const read = parseIpv4(text);
  return read.ok ? read.value : undefined;
};

function macOrNone(text: string | null): MacAddress | undefined {
  const read = text === null ? undefined : parseMac(text);
  return read?.ok ? read.value : undefined;
}

export const drillRowsOf = (view: Pick<DrillView, 'rows'>): readonly DrillRow[] =>
  view.rows.flatMap(({ mac: text, firstAt, asked, answered, address }): readonly DrillRow[] => {
    const mac = macOrNone(text);
    const by = answered ? addressOrNone(answered.by) : undefined;
    const gave = answered ? addressOrNone(answered.gave) : undefined;
    const value = address ? addressOrNone(address.value) : undefined;
    if (mac === undefined) return [];
    return [
      {
        ...{ mac, firstAt, asked: asked ?? undefined },
        answered:
          answered && by !== undefined && gave !== undefined
            ? { at: answered.at, by, gave }
            : undefined,
        address: address && value !== undefined ? { value, at: address.at } : undefined,
      },
    ];
  });

/** Every interface of a job, with the MAC that counts for it. */
export function expectedOf(plan: Plan, view: JobView): readonly Expected[] {
  const macs = new Map(
    view.devices.flatMap(({ interfaces }) =>
      interfaces.map((at) => [at.id, macOrNone(at.mac ?? at.askedBy)] as const),
    ),
  );
  return plan.devices.flatMap(({ way, interfaces }) =>
    interfaces.map(({ id, subnetId, address }) => ({
      ...{ interfaceId: id, subnetId, way, address, mac: macs.get(id) },
    })),
  );
}
