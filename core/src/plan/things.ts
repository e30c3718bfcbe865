import { kindShape, MOST_SLOT } from './kind';
import {
  absentAs,
  choice,
  flag,
  id,
  ipv4,
  list,
  mac,
  maybe,
  note,
  object,
  prefix,
  text,
  variant,
  whole,
  wordOr,
  type ObjectShape,
  type ValueOf,
} from './shape';
import { ROLES, WAYS } from './words';

// Everything a plan consists of, each thing with an id of its own. A person's change is a change of
// fields of things, so two people who change different fields never meet.

export const realmShape = object({ id, name: text(80), note: note() });

/** Where it was found before anybody planned it, as a person reads it; empty once it is planned. */
const MOST_FOUND = 300;

const range = { first: ipv4, last: ipv4 };
export const bandShape = object({ role: choice(...ROLES), ...range });

export const subnetShape = object({
  id,
  name: text(80),
  realmId: id,
  prefix,
  gateway: maybe(ipv4),
  vlan: maybe(whole(1, 4094)),
  purpose: note(200),
  dnsSuffix: note(253),
  /** DHCP servers that are meant to be here; any other is a stranger. */
  dhcpServers: list(ipv4, 20),
  bands: list(bandShape, 200),
  /** Addresses that others hold. */
  held: list(object({ ...range, note: text(200) }), 1000),
  found: note(MOST_FOUND),
  note: note(),
});

/** How many devices a part of the site has; split from its block into a subnet. */
export const needShape = object({
  name: text(80),
  devices: whole(0, 16_000_000),
  growthPercent: absentAs(whole(0, 1000), () => 20),
  /** Addresses that others hold in it. */
  held: absentAs(whole(0, 65_535), () => 0),
  /** At least a whole /24, because people read it more easily. */
  isWhole24: flag(false),
  /** Where it stands and stays. */
  fixed: maybe(prefix),
});

export const blockShape = object({
  id,
  name: text(80),
  realmId: id,
  prefix,
  needs: list(needShape, 10_000),
  note: note(),
});

/** One end's idea of a connection, as its project or its kind has it. */
const endShape = object({
  /** Sizes as they stand there, in `unitBits`. */
  inSize: maybe(whole(0, 65_535)),
  outSize: maybe(whole(0, 65_535)),
  unitBits: absentAs(choice('8', '16', '32'), () => '8' as const),
  /** Whose inputs are called in: the controller's or the device's. */
  viewpoint: absentAs(choice('controller', 'device'), () => 'controller' as const),
  /** A header of so many bytes is counted in the sizes. */
  headerBytes: absentAs(whole(0, 64), () => 0),
  inInstance: maybe(whole(0, 65_535)),
  outInstance: maybe(whole(0, 65_535)),
  configInstance: maybe(whole(0, 65_535)),
  /** Of the configuration that is sent when a connection opens, in bytes. */
  configBytes: absentAs(maybe(whole(0, 65_535)), () => undefined),
  intervalMillis: maybe(whole(1, 600_000)),
  revision: note(40),
  /** The first register as it is written there, with how it is counted. */
  register: maybe(whole(0, 499_999)),
  counting: absentAs(choice('from-0', 'from-1', 'area-digit'), () => 'from-0' as const),
});

const connectionShape = object({
  protocol: choice('EtherNet/IP', 'PROFINET', 'Modbus/TCP', 'OPC UA'),
  device: endShape,
  controller: endShape,
});

const moduleShape = object({ slot: whole(0, MOST_SLOT), title: text(120) });

const lineShape = object({
  title: text(80),
  /** Baud, data bits, parity, stop bits. */
  settings: note(40),
  tcpPort: maybe(whole(1, 65_535)),
  units: list(object({ unit: whole(0, 255), title: text(120) }), 300),
});

const RESTORES = ['controller', 'card', 'stored-set', 'by-hand'] as const;

export const deviceShape = object({
  id,
  /** What people call it: "Drum filter drive 2". */
  title: text(120),
  /** Its host name: "fh2-drive-2". */
  name: text(253),
  /** The name was typed freely and follows no pattern. */
  isNameTyped: flag(false),
  /** Other names, where they are not made from the host name. */
  stationName: maybe(text(253)),
  dhcpName: maybe(text(255)),
  variable: maybe(text(255)),
  kindId: id,
  way: choice(...WAYS),
  protocol: maybe(choice('EtherNet/IP', 'PROFINET', 'Modbus/TCP', 'OPC UA')),
  area: note(80),
  cabinet: note(40),
  position: note(40),
  controllerId: maybe(id),
  modules: list(moduleShape, 2000),
  connection: maybe(connectionShape),
  /** What stands of it in its controller, as somebody typed, pasted or copied it from there. */
  entered: absentAs(
    maybe(
      object({
        ...{ name: note(240), address: maybe(ipv4), revision: note(40) },
        mask: absentAs(maybe(ipv4), () => undefined),
        gateway: absentAs(maybe(ipv4), () => undefined),
      }),
    ),
    () => undefined,
  ),
  lines: list(lineShape, 64),
  /** What brings its parameters back after a swap. */
  restores: absentAs(maybe(choice(...RESTORES)), () => undefined),
  /** Where the password that somebody set in it is kept; never the password. */
  passwordAt: note(200),
  /** Its serial number, where somebody noted it: another one is another device. */
  serial: note(60),
  /** Values in it that name another device: who may command it, time server, alarm receiver. */
  references: list(object({ what: text(80), deviceId: maybe(id), address: maybe(ipv4) }), 100),
  routes: list(object({ to: prefix, via: ipv4 }), 1000),
  translations: list(
    variant({
      /** One to one: a whole block, host for host. */
      'one-to-one': object({ inside: prefix, outside: prefix }),
      /** Many to one: everything inside goes out as one address. */
      'many-to-one': object({ inside: prefix, outside: ipv4 }),
    }),
    1000,
  ),
  found: note(MOST_FOUND),
  note: note(),
});

export const interfaceShape = object({
  id,
  deviceId: id,
  /** "service", "module in slot 3"; empty where there is only one. */
  label: note(60),
  subnetId: id,
  address: ipv4,
  /** Undefined: the subnet's. A mask of the old site may stand here, with a snag. */
  mask: maybe(ipv4),
  gateway: absentAs(wordOr(['subnet', 'none'], ipv4), () => 'subnet' as const),
  /** Known once a heard MAC was bound to it. */
  mac: maybe(mac),
  /**
   * The switch port it is plugged into, as relay information tells it (option 82, RFC 3046): hex bytes
   * of circuit and remote id, the latter empty for any switch.
   */
  port: absentAs(maybe(object({ circuit: text(510), remote: note(510) })), () => undefined),
  /** Another address until a time (milliseconds since 1970), while the planned one cannot be had. */
  loan: absentAs(maybe(object({ address: ipv4, until: whole(0, 9e15) })), () => undefined),
  /** The slot of its module in a rack; undefined where it is in none. */
  slot: absentAs(maybe(whole(0, MOST_SLOT)), () => undefined),
});

const plug = object({ deviceId: id, port: text(40) });
export const cableShape = object({ id, from: plug, to: plug, note: note(200) });

/** An address that was taken from a device; not proposed again for a while. */
export const freedShape = object({
  id,
  subnetId: id,
  address: ipv4,
  deviceId: id,
  whose: text(200),
  /** When, in milliseconds since 1970, and by which revision. */
  at: whole(0, 9e15),
  revision: whole(0, 2 ** 31),
});

/** A snag that a person means. */
export const acceptanceShape = object({
  id,
  /** `rule@where`, see `snagKey`. */
  key: text(300),
  reason: text(300),
  person: text(80),
});

export const settingsShape = object({
  id,
  /** Bands of a new subnet, as last numbers of a /24. */
  bandTemplate: list(
    object({ role: choice(...ROLES), first: whole(0, 255), last: whole(0, 255) }),
    100,
  ),
  namePattern: absentAs(text(120), () => ''),
  /** How files that leave look; undefined where nobody chose. */
  handOver: absentAs(
    maybe(
      object({
        columns: list(text(40), 60),
        nameServer: absentAs(text(255), () => 'localhost.'),
        sheet: absentAs(text(40), () => 'a4-3x7'),
        firstSticker: absentAs(whole(1, 200), () => 1),
      }),
    ),
    () => undefined,
  ),
  /** Which column of an imported list was what, by the column's heading. */
  columns: list(object({ heading: text(120), field: text(40) }), 200),
});

/** The table of everything a plan can hold, in the order in which a plan file lists it. */
const THINGS = {
  settings: settingsShape,
  realm: realmShape,
  block: blockShape,
  subnet: subnetShape,
  kind: kindShape,
  device: deviceShape,
  interface: interfaceShape,
  cable: cableShape,
  freed: freedShape,
  acceptance: acceptanceShape,
} as const;

export type ThingType = keyof typeof THINGS;
export type Thing<T extends ThingType = ThingType> = ValueOf<(typeof THINGS)[T]>;
export const THING_TYPES = Object.keys(THINGS) as readonly ThingType[];

export const shapeOf = (type: ThingType): ObjectShape<unknown> => THINGS[type];
