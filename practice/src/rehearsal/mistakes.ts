import {
  must,
  parseIpv4,
  toIpv4,
  toMac,
  toPrefixLength,
  type MacAddress,
} from '@ipsonomo/core/net';
import { findInterface, findSubnet, type Kind, type Plan, type Way } from '@ipsonomo/core/plan';
import {
  MISTAKE_KINDS,
  type Mistake,
  type MistakeKind,
  type MistakeWish,
} from '@ipsonomo/core/api';
import type { DeviceDefinition } from '../definition';
import type { PracticeDevice } from '../device';
import type { Fault } from '../faults';
import type { Quirk } from '../quirks';
import { seeded } from '../seeded';
import type { SiteDefinition } from '../site';
import type { PlannedSite } from './site-of-plan';

// R-MISTAKES: what goes wrong on sites, put into a rehearsal to be found (common practice, no source).

/** A mistake as it is put into a site. */
interface Made {
  readonly interfaceId: string;
  readonly set: Fault['set'];
  /** Devices that are on the site because of it. */
  readonly brought?: readonly DeviceDefinition[];
}

interface Ground {
  readonly plan: Plan;
  readonly site: PlannedSite;
  readonly random: () => number;
}

type Maker = (ground: Ground) => Made | undefined;

const OLD = { address: must(parseIpv4('10.20.0.33')), length: toPrefixLength(24) };

const wayOf = (plan: Plan, id: string): Way | undefined => findInterface(plan, id)?.device.way;
const isBound = (plan: Plan, { id }: DeviceDefinition): boolean => {
  const way = wayOf(plan, id);
  return way === 'bootp' || way === 'dhcp-mac';
};

function oneOf<T>(random: () => number, all: readonly T[]): T | undefined {
  return all[Math.floor(random() * all.length)];
}

/** A mistake at one device of those that it can be made at. */
const at =
  (
    can: (device: DeviceDefinition, ground: Ground) => boolean,
    make: (device: DeviceDefinition, ground: Ground) => Omit<Made, 'interfaceId'> | undefined,
  ): Maker =>
  (ground) => {
    const device = oneOf(
      ground.random,
      ground.site.devices.filter((one) => can(one, ground)),
    );
    const made = device && make(device, ground);
    return device && made && { interfaceId: device.id, ...made };
  };

const quirk =
  (id: string, name: Quirk): Fault['set'] =>
  (site, on) => {
    const quirks = site.device(id)?.quirks;
    if (on) quirks?.add(name);
    else quirks?.delete(name);
  };

/** Somebody sets it back, and it starts again. */
function setBack(device: PracticeDevice | undefined, now: number): void {
  device?.setBack();
  device?.setPower(false, now);
  device?.setPower(true, now);
}

/** A sticker with one digit read wrongly: an 8 for a B, a 0 for a D. */
function misprinted(label: string): string {
  const looks: Readonly<Record<string, string>> = { '0': 'D', B: '8', '8': 'B', D: '0', '1': '7' };
  const place = [...label].findLastIndex((sign) => sign in looks);
  const sign = place < 0 ? 'F' : (looks[label[place] ?? ''] ?? 'F');
  const where = place < 0 ? label.length - 1 : place;
  return label.slice(0, where) + sign + label.slice(where + 1);
}

const broughtMac = (random: () => number): MacAddress =>
  toMac(0x02_7e_f0_00_00_00 + Math.floor(random() * 2 ** 24));

const stranger = (kind: Kind, segment: string, random: () => number): DeviceDefinition => {
  const mac = broughtMac(random);
  const id = `stranger-${mac.toString(16)}`;
  return {
    ...{ id, title: kind.name, kind, place: '', segment, mac, label: '' },
    ...{ unplugged: true, isBrought: true },
  };
};

const plugged =
  (id: string): Fault['set'] =>
  (site, on) =>
    site.plug(id, on);

const MAKERS: Readonly<Record<MistakeKind, Maker>> = {
  'wrong-label': at(
    (device, { plan }) => isBound(plan, device),
    ({ id, label }) => ({
      set: (site, on) => {
        const device = site.device(id);
        if (device) device.label = on ? misprinted(label) : label;
      },
    }),
  ),
  'kept-address': at(
    (device, { plan }) => isBound(plan, device) && device.kind.setBack.length > 0,
    ({ id }) => ({
      set: (site, on, now) => {
        if (on) site.device(id)?.keepFromBefore(OLD, now);
        else setBack(site.device(id), now);
      },
    }),
  ),
  'cable-out': at(
    () => true,
    ({ id }) => ({ set: (site, on) => site.plug(id, !on) }),
  ),
  'wrong-socket': at(
    (_, { site }) => site.segments.length > 1,
    (device, { site, random }) => {
      const others = site.segments.filter(({ id }) => id !== device.segment);
      const segment = oneOf(random, others)?.id ?? device.segment;
      const there = { ...device, id: `${device.id} elsewhere`, segment, isBrought: true };
      return {
        brought: [{ ...there, unplugged: true }],
        set: (one, on) => {
          one.plug(device.id, !on);
          one.plug(there.id, on);
        },
      };
    },
  ),
  'address-taken': at(
    ({ kind }) => kind.answersPing,
    (device, { plan, random }) => {
      const planned = findInterface(plan, device.id)?.at;
      if (!planned) return undefined;
      const left = stranger(device.kind, device.segment, random);
      const length = findSubnet(plan, planned.subnetId)?.prefix.length ?? toPrefixLength(24);
      const stored = { address: planned.address, length };
      return { brought: [{ ...left, stored }], set: plugged(left.id) };
    },
  ),
  'in-use': at(
    ({ kind }) => kind.station !== undefined || kind.pinning.by === 'tcpip-object',
    ({ id }) => ({ set: quirk(id, 'owned') }),
  ),
  'other-revision': at(
    ({ kind }) => kind.identity !== undefined || kind.station !== undefined,
    ({ id }) => ({ set: quirk(id, 'other-revision') }),
  ),
  'drops-out': at(
    () => true,
    ({ id }) => ({ set: quirk(id, 'drops-out') }),
  ),
  'lending-router': ({ plan, site, random }) => {
    const device = oneOf(
      random,
      site.devices.filter((one) => isBound(plan, one)),
    );
    const subnet = plan.subnets.find(({ id }) => id === device?.segment);
    if (!device || !subnet) return undefined;
    const lender = stranger(device.kind, device.segment, random);
    const { network, length } = subnet.prefix;
    const size = 2 ** (32 - length);
    // Far from the addresses that are planned first, and in the smallest network still inside.
    const count = Math.min(8, Math.ceil(size / 4));
    const first = network + size - 1 - count;
    const lends = { first: toIpv4(first), count };
    const stored = { address: toIpv4(first - 1), length };
    return { interfaceId: '', brought: [{ ...lender, stored, lends }], set: plugged(lender.id) };
  },
  'router-leg-out': ({ site, random }) => {
    const legs = site.routers
      .filter(({ interfaces }) => interfaces.length > 1)
      .flatMap(({ id, interfaces }) => interfaces.map(({ segment }) => ({ id, segment })));
    const leg = oneOf(random, legs);
    if (!leg) return undefined;
    return {
      interfaceId: '',
      set: (one, on) => {
        const router = one.routers.find(({ definition }) => definition.id === leg.id);
        if (on) router?.cutOff.add(leg.segment);
        else router?.cutOff.delete(leg.segment);
      },
    };
  },
};

/**
 * The site of a plan with mistakes in it; no device has two.
 * @param seed the same one makes the same mistakes
 */
export function withMistakes(
  plan: Plan,
  planned: PlannedSite,
  wish: MistakeWish,
  seed: number,
): { readonly site: SiteDefinition; readonly mistakes: readonly Mistake[] } {
  const random = seeded(seed);
  const kinds = wish.kind === 'chosen' ? wish.which : shuffled(MISTAKE_KINDS, random);
  const most = wish.kind === 'chosen' ? wish.which.length : wish.count;
  const faults: Fault[] = [];
  const mistakes: Mistake[] = [];
  const brought: DeviceDefinition[] = [];
  const taken = new Set<string>();
  // Once each; where more are wished for than there are kinds, a second time at other devices.
  for (let turn = 0; turn < kinds.length * 4 && mistakes.length < most; turn += 1) {
    const kind = kinds[turn % kinds.length] ?? 'cable-out';
    const devices = planned.devices.filter(({ id }) => !taken.has(id));
    const made = MAKERS[kind]({ plan, site: { ...planned, devices }, random });
    if (!made) continue;
    const id = `${kind} ${made.interfaceId}`;
    if (mistakes.some((one) => one.id === id)) continue;
    taken.add(made.interfaceId);
    faults.push({ id, title: kind, set: made.set });
    mistakes.push({ id, kind, interfaceId: made.interfaceId });
    brought.push(...(made.brought ?? []));
  }
  const { segments, routers } = planned;
  return {
    site: {
      ...{ segments, routers, faults },
      devices: [...planned.devices, ...brought],
      surprises: faults.map(({ id }) => id),
    },
    mistakes,
  };
}

function shuffled<T>(all: readonly T[], random: () => number): readonly T[] {
  const order = [...all];
  for (let at = order.length - 1; at > 0; at -= 1) {
    const other = Math.floor(random() * (at + 1));
    [order[at], order[other]] = [order[other] as T, order[at] as T];
  }
  return order;
}
