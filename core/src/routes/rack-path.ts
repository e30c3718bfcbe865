import { formatIpv4 } from '../net';
import { findDevice, type Device, type Interface, type Plan } from '../plan';

/** One step of a route path, with what it leads to. */
interface RackStep {
  /** 1 is the backplane; a network port of a module is 2 (common practice, no source). */
  readonly port: number;
  /** A slot, or an address as text. */
  readonly link: number | string;
  /** The device it leads to. */
  readonly device: string;
  /** Its interface, where it leads to one. */
  readonly interface: string;
}

/** Where a route path begins: at a network module that one is connected to, or in a controller. */
export type RackStart =
  | { readonly kind: 'module'; readonly interface: string }
  | { readonly kind: 'controller'; readonly device: string };

const BACKPLANE = 1;
const NETWORK = 2;

interface Module {
  readonly device: Device;
  readonly at: Interface;
}

/**
 * R-RACK-PATH: the shortest route path to an interface, through racks: over the backplane to another module of the same
 * rack whose slot is known, and from a module to any address in its subnet. It begins after the module one is
 * connected to, so that one is not in it; from a controller it begins in the backplane.
 * @returns undefined where there is no way; empty where one is connected to it already
 */
export function rackPath(
  plan: Plan,
  start: RackStart,
  target: string,
): readonly RackStep[] | undefined {
  const modules: readonly Module[] = plan.devices.flatMap((device) =>
    device.interfaces.map((at) => ({ device, at })),
  );
  const queue: { readonly module: Module; readonly steps: readonly RackStep[] }[] = begin(
    modules,
    start,
  );
  const seen = new Set(queue.map(({ module }) => module.at.id));
  for (let next = queue.shift(); next; next = queue.shift()) {
    const { module, steps } = next;
    if (module.at.id === target) return steps;
    for (const { to, step } of onward(modules, module)) {
      if (seen.has(to.at.id)) continue;
      seen.add(to.at.id);
      queue.push({ module: to, steps: [...steps, step] });
    }
  }
  return undefined;
}

function begin(modules: readonly Module[], start: RackStart) {
  if (start.kind === 'module')
    return modules
      .filter(({ at }) => at.id === start.interface)
      .map((module) => ({ module, steps: [] as readonly RackStep[] }));
  return modules
    .filter(({ device, at }) => device.id === start.device && at.slot !== undefined)
    .map((module) => ({ module, steps: [slotStep(module)] }));
}

const slotStep = ({ device, at }: Module): RackStep => ({
  ...{ port: BACKPLANE, link: at.slot ?? 0, device: device.id, interface: at.id },
});

function onward(
  modules: readonly Module[],
  { device, at }: Module,
): readonly { readonly to: Module; readonly step: RackStep }[] {
  const isRack = at.slot !== undefined;
  return modules.flatMap((to) => {
    if (to.at === at || !isRack) return [];
    if (to.device === device) return to.at.slot === undefined ? [] : [{ to, step: slotStep(to) }];
    if (to.at.subnetId !== at.subnetId) return [];
    const link = formatIpv4(to.at.address);
    const step = { port: NETWORK, link, device: to.device.id, interface: to.at.id };
    return [{ to, step }];
  });
}

/** A route path as it is asked along: the module one connects to, and the way from there. */
interface AskedPath {
  readonly entry: Interface;
  readonly steps: readonly RackStep[];
}

/**
 * The shortest route path to an interface from any module of a rack one can connect to.
 * @param from a controller in a rack: then only its own modules; else one whose subnets a module should be in, if one is
 */
export function askedPath(plan: Plan, from: string, target: string): AskedPath | undefined {
  const asker = findDevice(plan, from);
  const inRack = asker?.interfaces.filter(({ slot }) => slot !== undefined) ?? [];
  const subnets = new Set(asker?.interfaces.map(({ subnetId }) => subnetId));
  const all = plan.devices.flatMap(({ interfaces }) =>
    interfaces.filter(({ slot }) => slot !== undefined),
  );
  const paths = (inRack.length > 0 ? inRack : all).flatMap((entry) => {
    const steps = rackPath(plan, { kind: 'module', interface: entry.id }, target);
    return steps && steps.length > 0 ? [{ entry, steps }] : [];
  });
  // A module of the network that leads there is reached only through the rack itself.
  const isNear = ({ entry }: AskedPath) => (subnets.has(entry.subnetId) ? 0 : 1);
  const crosses = ({ steps }: AskedPath) => (steps[0]?.port === BACKPLANE ? 0 : 1);
  return paths.toSorted(
    (a, b) => crosses(a) - crosses(b) || isNear(a) - isNear(b) || a.steps.length - b.steps.length,
  )[0];
}
