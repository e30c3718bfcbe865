import {
  instancesOf,
  measureEnd,
  moduleBytes,
  offeredBytes,
  offeredSize,
  type ConnectionEnd,
  type Device,
  type Kind,
  type Measured,
} from '../plan';
import type { DeviceScope } from './scope';
import { snag, type Snag, type SnagFacts, type SnagRule } from './snag';

// The same connection stands twice: in the device (or its description file) and in the controller's
// project. The two are brought to one measure and held against each other.

const differ = <T>(a: T | undefined, b: T | undefined): boolean =>
  a !== undefined && b !== undefined && a !== b;

/** What speaks against the connection of one device, by itself. */
export function connectionSnags({
  device,
  kind,
}: Pick<DeviceScope, 'device' | 'kind'>): readonly Snag[] {
  const { connection } = device;
  if (!connection) return [];
  const { device: own, controller } = connection;
  const stated = measureEnd(own);
  return [
    ...sizeSnags(device, ownSizes(device, kind, stated), measureEnd(controller), own, controller),
    ...offerSnags(device, kind, stated),
    ...numberSnags(device, own, controller),
    ...intervalSnags(device, own, controller, kind),
    ...(connection.protocol === 'Modbus/TCP' ? registerSnags(device, own, controller) : []),
  ];
}

const at = <Rule extends SnagRule>(
  device: Device,
  rule: Rule,
  facts: Omit<SnagFacts[Rule], 'device'>,
): Snag =>
  snag(rule, { type: 'device', id: device.id, field: 'connection' }, {
    device: device.title,
    ...facts,
  } as unknown as SnagFacts[Rule]);

/** A station that states no size has the one that its modules come to. */
function ownSizes(device: Device, kind: Kind | undefined, stated: Measured): Measured {
  if (!kind || device.modules.length === 0 || kind.modules.length === 0) return stated;
  const computed = offeredBytes(device, kind);
  return {
    inBytes: stated.inBytes ?? computed.inBytes,
    outBytes: stated.outBytes ?? computed.outBytes,
  };
}

/** The one reason that explains a difference of sizes best. */
function sizeSnags(
  device: Device,
  own: Measured,
  controller: Measured,
  ownEnd: ConnectionEnd,
  controllerEnd: ConnectionEnd,
): readonly Snag[] {
  const pairs = [
    ['in', own.inBytes, controller.inBytes],
    ['out', own.outBytes, controller.outBytes],
  ] as const;
  const wrong = pairs.filter(([, a, b]) => differ(a, b));
  if (wrong.length === 0) return [];
  const swapped =
    own.inBytes === controller.outBytes &&
    own.outBytes === controller.inBytes &&
    own.inBytes !== undefined;
  const sizes = {
    ...{ inDevice: own.inBytes ?? '–', inController: controller.inBytes ?? '–' },
    ...{ outDevice: own.outBytes ?? '–', outController: controller.outBytes ?? '–' },
  };
  if (swapped) return [at(device, 'S-VIEWPOINT', sizes)];
  return wrong.map(([way, a = 0, b = 0]) => {
    const facts = { way, device: device.title, own: a, other: b };
    const [least, most] = [Math.min(a, b), Math.max(a, b)];
    if (most - least === 2 || most - least === 4)
      return at(device, 'S-SIZE-HEADER', { ...facts, header: most - least });
    const isUnits = least > 0 && (most === least * 2 || most === least * 4);
    if (isUnits)
      return at(device, 'S-SIZE-UNITS', {
        ...facts,
        factor: most / least,
      });
    return at(device, 'S-SIZE', facts);
  });
}

/** A size that the kind does not offer, and modules that need more than the size. */
function offerSnags(device: Device, kind: Kind | undefined, own: Measured): readonly Snag[] {
  if (!kind) return [];
  const needed = moduleBytes(device, kind);
  return (
    [
      ['in', own.inBytes, needed.inBytes],
      ['out', own.outBytes, needed.outBytes],
    ] as const
  ).flatMap(([way, stated, need]) => {
    if (stated === undefined) return [];
    const offered = offeredSize(kind, Math.max(stated, need));
    return offered === stated ? [] : [at(device, 'S-SIZE-OFFERED', { way, stated, need, offered })];
  });
}

function numberSnags(device: Device, own: ConnectionEnd, other: ConnectionEnd): readonly Snag[] {
  const snags: Snag[] = [];
  const [mine, theirs] = [instancesOf(own), instancesOf(other)];
  for (const [what, a, b] of [
    ['in', mine.inInstance, theirs.inInstance],
    ['out', mine.outInstance, theirs.outInstance],
    ['configuration', mine.configInstance, theirs.configInstance],
  ] as const)
    if (differ(a, b)) snags.push(at(device, 'S-INSTANCE', { what, own: a ?? 0, other: b ?? 0 }));
  if (differ(own.configBytes, other.configBytes))
    snags.push(
      at(device, 'S-CONFIG-SIZE', { own: own.configBytes ?? 0, other: other.configBytes ?? 0 }),
    );
  if (own.revision !== '' && other.revision !== '' && own.revision !== other.revision)
    snags.push(at(device, 'S-REVISION', { own: own.revision, other: other.revision }));
  return snags;
}

function intervalSnags(
  device: Device,
  own: ConnectionEnd,
  other: ConnectionEnd,
  kind: Kind | undefined,
): readonly Snag[] {
  const snags: Snag[] = [];
  const [a, b] = [own.intervalMillis, other.intervalMillis];
  if (differ(a, b)) snags.push(at(device, 'S-INTERVAL', { own: a ?? 0, other: b ?? 0 }));
  const least = kind?.leastIntervalMillis;
  const shortest = Math.min(a ?? Infinity, b ?? Infinity);
  if (kind && least !== undefined && shortest < least)
    snags.push(at(device, 'S-INTERVAL-SHORT', { interval: shortest, least, kind: kind.name }));
  return snags;
}

/** A register number counted from 0, whichever way it is written: 40001, 1 and 0 are one register. */
export function registerFrom0(register: number, counting: ConnectionEnd['counting']): number {
  if (counting === 'from-0') return register;
  if (counting === 'from-1') return register - 1;
  return (register >= 100_000 ? register % 100_000 : register % 10_000) - 1;
}

/**
 * The area digit of a register, undefined where it is written without one: 0 coils, 1 discrete inputs, 3 input
 * registers, 4 holding registers. They are tables apart (Modbus Application Protocol V1.1b3 §4.3).
 */
function areaOf({ register, counting }: ConnectionEnd): number | undefined {
  if (register === undefined || counting !== 'area-digit') return undefined;
  return Math.floor(register / (register >= 100_000 ? 100_000 : 10_000));
}

function registerSnags(device: Device, own: ConnectionEnd, other: ConnectionEnd): readonly Snag[] {
  if (own.register === undefined || other.register === undefined) return [];
  const a = registerFrom0(own.register, own.counting);
  const b = registerFrom0(other.register, other.counting);
  const facts = {
    ...{ own: own.register, other: other.register },
    ...{ ownCounting: own.counting, otherCounting: other.counting },
  };
  const [ownArea, otherArea] = [areaOf(own), areaOf(other)];
  if (differ(ownArea, otherArea))
    return [
      at(device, 'S-REGISTER-AREA', { ...facts, ownArea: ownArea ?? 0, otherArea: otherArea ?? 0 }),
    ];
  if (a === b) return [];
  return [at(device, Math.abs(a - b) === 1 ? 'S-REGISTER-ONE' : 'S-REGISTER', facts)];
}
