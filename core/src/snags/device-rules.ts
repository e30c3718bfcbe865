import {
  containsAddress,
  formatIpv4,
  formatPrefix,
  type Ipv4,
  type Issue,
  type Result,
} from '../net';
import { parseDhcpName, parseHostName, parseStationName, parseVariable } from '../names';
import {
  dhcpNameOf,
  guideOf,
  stationNameOf,
  variableOf,
  type Device,
  type Interface,
  type Kind,
} from '../plan';
import { nameBySwitches } from '../switches';
import { connectionSnags } from './connection-rules';
import { interfaceSnags } from './interface-rules';
import type { DeviceScope } from './scope';
import { joined, NO_SNAGS, snag, type Snag, type SnagFacts, type SnagRule } from './snag';

/** Everything that can be said of one device from itself, its kind, its subnets and its controller. */
export function deviceSnags(scope: DeviceScope): readonly Snag[] {
  let snags = NO_SNAGS;
  for (const at of scope.device.interfaces) snags = joined(snags, interfaceSnags(scope, at));
  for (const rule of RULES) snags = joined(snags, rule(scope));
  return snags;
}

const at = <Rule extends SnagRule>(
  device: Device,
  rule: Rule,
  field: string,
  facts: Omit<SnagFacts[Rule], 'device'>,
): Snag =>
  snag(rule, { type: 'device', id: device.id, field }, {
    device: device.title,
    ...facts,
  } as unknown as SnagFacts[Rule]);

/** The default gateway an interface goes by, undefined for none. */
function gatewayOf({ subnet }: DeviceScope, one: Interface): Ipv4 | undefined {
  if (one.gateway === 'none') return undefined;
  return one.gateway === 'subnet' ? subnet(one.subnetId)?.gateway : one.gateway;
}

function betweenInterfaces(scope: DeviceScope): readonly Snag[] {
  const { device, kind } = scope;
  if (device.interfaces.length < 2) return [];
  const snags: Snag[] = [];
  const seen = new Map<string, Interface>();
  const addresses = new Map<string, Interface>();
  for (const one of device.interfaces) {
    const before = seen.get(one.subnetId);
    if (before && !kind?.forwards)
      snags.push(
        snag(
          'S-INTERFACES-ONE-SUBNET',
          {
            ...{ type: 'interface', id: one.id, field: 'subnetId', also: [before.id] },
            severity: kind?.hasIndependentHosts ? 'hint' : 'doubtful',
          },
          { device: device.title, subnet: scope.subnet(one.subnetId)?.name ?? '' },
        ),
      );
    seen.set(one.subnetId, one);
    // Modules that are hosts of their own may each be in a realm where the address is free.
    const realm = kind?.hasIndependentHosts ? (scope.subnet(one.subnetId)?.realmId ?? '') : '';
    const twin = addresses.get(`${realm}|${one.address}`);
    const place = { type: 'interface', id: one.id, field: 'address' } as const;
    if (twin)
      snags.push(
        snag(
          'S-ADDRESS-ON-BOTH',
          { ...place, also: [twin.id] },
          { device: device.title, address: formatIpv4(one.address) },
        ),
      );
    addresses.set(`${realm}|${one.address}`, one);
  }
  const gateways = new Set(
    device.interfaces.map((one) => gatewayOf(scope, one)).filter((one) => one !== undefined),
  );
  if (gateways.size > 1 && !kind?.forwards && !kind?.hasIndependentHosts)
    snags.push(
      at(device, 'S-GATEWAYS-TWO', 'interfaces', {
        gateways: [...gateways].map(formatIpv4).join(', '),
      }),
    );
  return snags;
}

function kindSnags({ device, kind }: DeviceScope): readonly Snag[] {
  if (!kind) return [at(device, 'S-KIND-GONE', 'kindId', { kind: device.kindId })];
  const snags: Snag[] = [];
  if (!guideOf(kind, device.way))
    snags.push(at(device, 'S-WAY-MISSING', 'way', { kind: kind.name, way: device.way }));
  if (device.protocol && !kind.roles.some((one) => one.protocol === device.protocol))
    snags.push(
      at(device, 'S-PROTOCOL-KIND', 'protocol', { kind: kind.name, protocol: device.protocol }),
    );
  return snags;
}

/** Does anything go by the device's station name? */
const usesStationName = ({ device, kind }: DeviceScope): boolean =>
  device.way === 'layer2-name' ||
  device.way === 'controller' ||
  device.protocol === 'PROFINET' ||
  (device.stationName !== undefined &&
    kind?.roles.some((one) => one.protocol === 'PROFINET') === true);

function nameSnags(scope: DeviceScope): readonly Snag[] {
  const { device, kind, controllerKind } = scope;
  const snags: Snag[] = [];
  const check = (rule: SnagRule, field: string, name: string, read: Result<string, Issue>) => {
    if (!read.ok)
      snags.push(
        at(device, rule, field, {
          ...read.error.facts,
          ...{ name, code: read.error.code, part: read.error.where },
        }),
      );
  };
  check('S-HOST-NAME', 'name', device.name, parseHostName(device.name));
  if (usesStationName(scope)) {
    const name = stationNameOf(device);
    check('S-STATION-NAME', 'stationName', name, parseStationName(name));
  }
  if (device.way === 'dhcp-name') {
    const name = dhcpNameOf(device);
    check('S-DHCP-NAME', 'dhcpName', name, parseDhcpName(name));
    snags.push(...switchNameSnags(device, kind, name));
  }
  if (device.controllerId !== undefined || device.variable !== undefined) {
    const name = variableOf(device);
    const most = controllerKind?.longestVariable;
    check('S-VARIABLE', 'variable', name, parseVariable(name, most));
  }
  for (const [field, name] of [
    ['stationName', device.stationName],
    ['dhcpName', device.dhcpName],
  ] as const)
    if (name !== undefined && isOneOff(name, device.name))
      snags.push(at(device, 'S-NAME-NEAR', field, { name, host: device.name }));
  return snags;
}

/** A name that a kind makes from its switches must be one that they can make. */
function switchNameSnags(device: Device, kind: Kind | undefined, name: string): readonly Snag[] {
  const patterns = (kind?.switches?.meanings ?? []).flatMap(({ act, from, to }) =>
    act.kind === 'name' ? [{ pattern: act.pattern, from, to }] : [],
  );
  const [first] = patterns;
  if (!first) return [];
  for (const { pattern, from, to } of patterns)
    for (let value = from; value <= to; value += 1)
      if (nameBySwitches(pattern, value) === name) return [];
  return [at(device, 'S-SWITCH-NAME', 'dhcpName', { name, pattern: first.pattern })];
}

/** Do two names differ by exactly one letter: another, one more or one less? */
function isOneOff(a: string, b: string): boolean {
  if (a === b || Math.abs(a.length - b.length) > 1) return false;
  let start = 0;
  while (start < a.length && a[start] === b[start]) start += 1;
  const [restA, restB] = [a.slice(start), b.slice(start)];
  if (restA.length === restB.length) return restA.slice(1) === restB.slice(1);
  return restA.length > restB.length ? restA.slice(1) === restB : restB.slice(1) === restA;
}

function controllerSnags(scope: DeviceScope): readonly Snag[] {
  const { device, kind, controller, controllerKind } = scope;
  if (device.controllerId === undefined)
    return device.way === 'controller' ? [at(device, 'S-WAY-CONTROLLER', 'controllerId', {})] : [];
  if (device.controllerId === device.id)
    return [at(device, 'S-CONTROLLER-SELF', 'controllerId', {})];
  if (!controller)
    return [at(device, 'S-CONTROLLER-GONE', 'controllerId', { controller: device.controllerId })];
  const snags: Snag[] = [];
  if (kind && controllerKind && !haveCommonRole(kind, controllerKind, device.protocol))
    snags.push(
      at(device, 'S-ROLE-NONE', 'controllerId', {
        controller: controller.title,
        kind: kind.name,
        controllerKind: controllerKind.name,
      }),
    );
  const apart = realmSnag(scope, controller) ?? gatewaySnag(scope, controller);
  if (apart) snags.push(apart);
  return snags;
}

function haveCommonRole(kind: Kind, controllerKind: Kind, protocol: Device['protocol']): boolean {
  // A panel opens the connection to its controller itself.
  return opensTo(controllerKind, kind, protocol) || opensTo(kind, controllerKind, protocol);
}

const opensTo = (client: Kind, server: Kind, protocol: Device['protocol']): boolean =>
  client.roles.some(
    (opens) =>
      opens.side !== 'serves' &&
      (protocol === undefined || opens.protocol === protocol) &&
      server.roles.some((serves) => serves.side !== 'opens' && serves.protocol === opens.protocol),
  );

/** Controller and device are in no realm together: between realms only what is translated is found. */
function realmSnag({ device, subnet, isTranslated }: DeviceScope, controller: Device) {
  const realmsOf = ({ interfaces }: Device) =>
    interfaces.flatMap((one) => subnet(one.subnetId)?.realmId ?? []);
  const [own, others] = [realmsOf(device), realmsOf(controller)];
  if (own.length === 0 || others.length === 0) return undefined;
  const meets = own.some((a) => others.some((b) => a === b || isTranslated(a, b)));
  return meets
    ? undefined
    : at(device, 'S-REALM-APART', 'controllerId', { controller: controller.title });
}

/** Controller and device share no subnet: both need a way out of their own. */
function gatewaySnag(scope: DeviceScope, controller: Device): Snag | undefined {
  const { device } = scope;
  if (device.interfaces.length === 0 || controller.interfaces.length === 0) return undefined;
  const own = new Set(controller.interfaces.map((one) => one.subnetId));
  if (device.interfaces.some((one) => own.has(one.subnetId))) return undefined;
  const facts = { controller: controller.title };
  if (device.interfaces.every((one) => gatewayOf(scope, one) === undefined))
    return at(device, 'S-GATEWAY-MISSING', 'interfaces', { ...facts, side: 'device' });
  if (controller.interfaces.every((one) => gatewayOf(scope, one) === undefined))
    return at(device, 'S-GATEWAY-MISSING', 'interfaces', { ...facts, side: 'controller' });
  return undefined;
}

function moduleSnags({ device, kind }: DeviceScope): readonly Snag[] {
  if (device.modules.length === 0) return NO_SNAGS;
  const snags: Snag[] = [];
  const taken = new Set<number>();
  for (const { slot, title } of device.modules) {
    if (taken.has(slot)) snags.push(at(device, 'S-SLOT-TWICE', 'modules', { slot }));
    taken.add(slot);
    if (!kind || kind.modules.length === 0) continue;
    const offers = kind.modules.filter((one) => one.title === title);
    if (!offers.some((one) => slot >= one.firstSlot && slot <= one.lastSlot))
      snags.push(at(device, 'S-SLOT-OFFER', 'modules', { slot, module: title, kind: kind.name }));
  }
  return snags;
}

function lineSnags({ device }: DeviceScope): readonly Snag[] {
  if (device.lines.length === 0) return NO_SNAGS;
  const snags: Snag[] = [];
  const ports = new Map<number, string>();
  for (const { title, tcpPort, units } of device.lines) {
    const before = tcpPort === undefined ? undefined : ports.get(tcpPort);
    if (before !== undefined && tcpPort !== undefined)
      snags.push(at(device, 'S-LINE-PORT', 'lines', { port: tcpPort, line: title, other: before }));
    if (tcpPort !== undefined) ports.set(tcpPort, title);
    const seen = new Map<number, string>();
    for (const { unit, title: sub } of units) {
      const other = seen.get(unit);
      const facts = { line: title, unit, sub };
      if (other !== undefined) snags.push(at(device, 'S-UNIT-TWICE', 'lines', { ...facts, other }));
      seen.set(unit, sub);
      if (unit < 1 || unit > 247) snags.push(at(device, 'S-UNIT-RANGE', 'lines', facts));
    }
  }
  return snags;
}

function referenceSnags({ device, other }: DeviceScope): readonly Snag[] {
  if (device.references.length === 0) return NO_SNAGS;
  return device.references.flatMap(({ what, deviceId, address }) => {
    const named = deviceId === undefined ? undefined : other(deviceId);
    if (deviceId !== undefined && !named)
      return [at(device, 'S-REFERENCE-GONE', 'references', { what })];
    if (!named || address === undefined) return [];
    if (named.interfaces.some((one) => one.address === address)) return [];
    const now = named.interfaces.map((one) => formatIpv4(one.address)).join(', ');
    return [
      at(device, 'S-REFERENCE-OLD', 'references', {
        ...{ what, named: named.title, address: formatIpv4(address), now },
      }),
    ];
  });
}

function routerSnags(scope: DeviceScope): readonly Snag[] {
  const { device, kind, subnet } = scope;
  if (device.routes.length === 0 && device.translations.length === 0) return [];
  const snags: Snag[] = [];
  if (kind && !kind.forwards)
    snags.push(at(device, 'S-ROUTE-NOBODY', 'routes', { kind: kind.name }));
  const own = device.interfaces.flatMap((one) => subnet(one.subnetId)?.prefix ?? []);
  for (const { to, via } of device.routes) {
    const reachable = own.some((one) => containsAddress(one, via));
    const self = device.interfaces.some((one) => one.address === via);
    if (!reachable || self)
      snags.push(
        at(device, 'S-ROUTE-VIA', 'routes', {
          ...{ to: formatPrefix(to), via: formatIpv4(via) },
        }),
      );
  }
  for (const one of device.translations)
    if (one.kind === 'one-to-one' && one.inside.length !== one.outside.length)
      snags.push(
        at(device, 'S-TRANSLATION-SIZE', 'translations', {
          inside: formatPrefix(one.inside),
          outside: formatPrefix(one.outside),
        }),
      );
  return snags;
}

const RULES: readonly ((scope: DeviceScope) => readonly Snag[])[] = [
  betweenInterfaces,
  kindSnags,
  nameSnags,
  controllerSnags,
  connectionSnags,
  moduleSnags,
  lineSnags,
  referenceSnags,
  routerSnags,
  foundSnags,
];

/** S-FOUND. */
function foundSnags({ device }: DeviceScope): readonly Snag[] {
  const { id, title: what, found: how } = device;
  return how === ''
    ? NO_SNAGS
    : [snag('S-FOUND', { type: 'device', id, field: 'found' }, { what, how })];
}
