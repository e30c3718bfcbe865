import { findKind, type Device, type Plan, type Way } from '../plan';

/** What has to be at hand at the cabinets, and for which devices. */
export interface Carried {
  readonly what: 'cable' | 'screwdriver' | 'card' | 'tool' | 'papers';
  /** Titles of devices; of kinds for papers. */
  readonly for: readonly string[];
}

const AT_HAND: Partial<Record<Way, Carried['what']>> = {
  switches: 'screwdriver',
  'dhcp-name': 'screwdriver',
  card: 'card',
  'makers-tool': 'tool',
};

/** Ways at the device itself need no network cable. */
const WITHOUT_CABLE: readonly Way[] = ['card', 'keypad'];

/**
 * What to take along for these devices: a cable, a small screwdriver for switches, cards, makers' tools,
 * and the papers of their kinds, because there is no internet on site.
 */
export function carriedFor(plan: Plan, deviceIds: ReadonlySet<string>): readonly Carried[] {
  const devices = plan.devices.filter(({ id }) => deviceIds.has(id));
  const titled = (isMeant: (device: Device) => boolean) =>
    devices.filter(isMeant).map(({ title }) => title);
  const withPapers = new Map<string, string>();
  for (const { kindId } of devices) {
    const kind = findKind(plan, kindId);
    if (kind && kind.papers.length > 0) withPapers.set(kind.id, kind.name);
  }
  const all: readonly Carried[] = [
    { what: 'cable', for: titled(({ way }) => !WITHOUT_CABLE.includes(way)) },
    ...(['screwdriver', 'card', 'tool'] as const).map((what) => ({
      what,
      for: titled(
        (device) =>
          AT_HAND[device.way] === what &&
          (what !== 'screwdriver' || findKind(plan, device.kindId)?.switches !== undefined),
      ),
    })),
    { what: 'papers', for: [...withPapers.values()] },
  ];
  return all.filter((one) => one.for.length > 0);
}
