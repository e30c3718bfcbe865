import type { SwitchAct, SwitchElement, SwitchFace } from '../switches';
import { ROLES, WAYS } from './words';
import {
  absentAs,
  choice,
  flag,
  id,
  ipv4,
  list,
  maybe,
  note,
  object,
  prefix,
  sha256,
  text,
  variant,
  whole,
  type Shape,
  type ValueOf,
} from './shape';

// What all devices of one order number share. Kinds ship with Ipsonomo (`shelf`), are read from
// description files or are made by a person; those last two are carried in the plan.

/** What a device does at power-up as it comes from its maker. */
const factory = variant({
  asks: object({ by: choice('bootp', 'dhcp') }),
  fixed: object({ address: ipv4 }),
  /** Whatever its switches say. */
  switches: object({}),
  /** No address and no asking: it waits for its name over layer 2. */
  nameless: object({}),
  /** Nobody said how it comes. */
  unknown: object({}),
});

/** How a given address is made to stay. */
const pinning = object({
  /** `tcpip-object`: bits 0–3 of attribute 3 of the TCP/IP interface object, over EtherNet/IP. */
  by: choice('tcpip-object', 'own-step', 'stays'),
  /** What a person does at the device, in this order. */
  steps: list(text(300), 20),
});

/** One way of assignment with its steps. */
const guide = object({
  way: choice(...WAYS),
  /** What must be switched off or left first. */
  first: list(text(300), 20),
  steps: list(text(300), 40),
});

const use = choice('number', 'mode', 'other');
export const faceShape: Shape<SwitchFace> = object({
  elements: list(
    variant({
      dial: object({
        label: text(20),
        positions: whole(2, 36),
        look: choice('rotary', 'thumbwheel'),
        weight: whole(0, 65_536),
        use,
      }),
      dip: object({ label: text(20), weights: list(whole(0, 65_536), 16), use }),
    }) as Shape<SwitchElement>,
    16,
  ),
  meanings: list(
    object({
      mode: maybe(whole(0, 65_535)),
      from: whole(0, 65_535),
      to: whole(0, 65_535),
      act: variant({
        'last-number': object({}),
        'host-part': object({}),
        fixed: object({ address: ipv4 }),
        asks: object({ by: choice('bootp', 'dhcp') }),
        name: object({ pattern: text(120) }),
        stored: object({}),
        factory: object({}),
        locked: object({}),
      }) as Shape<SwitchAct>,
    }),
    64,
  ),
  base: maybe(prefix),
});

/** The automation protocols whose connections Ipsonomo compares. */
export const PROTOCOLS = ['EtherNet/IP', 'PROFINET', 'Modbus/TCP', 'OPC UA'] as const;

/** Which side of a protocol a device can be: it opens connections, it serves them, or both. */
const role = object({ protocol: choice(...PROTOCOLS), side: choice('opens', 'serves', 'both') });

export const MOST_SLOT = 32_767;

/** The most bytes of one paper. */
export const MOST_PAPER = 20_000_000;

const MOST_CARD = 4000;

const moduleOffer = object({
  title: text(120),
  /** The slots it may sit in; a PROFINET slot goes to 0x7FFF (IEC 61158-6-10; from memory). */
  firstSlot: whole(0, MOST_SLOT),
  lastSlot: whole(0, MOST_SLOT),
  inBytes: whole(0, 65_535),
  outBytes: whole(0, 65_535),
  /** What its description file numbers it by (PROFINET); told by the station slot by slot. */
  ident: absentAs(maybe(whole(0, 0xffff_ffff)), () => undefined),
});

/** A connection as a kind offers it, seen by the controller: in is what the device sends. */
const connectionOffer = object({
  /** As its description file calls it: "Exclusive owner". */
  title: text(120),
  protocol: choice(...PROTOCOLS),
  inInstance: maybe(whole(0, 65_535)),
  outInstance: maybe(whole(0, 65_535)),
  configInstance: maybe(whole(0, 65_535)),
  inBytes: maybe(whole(0, 65_535)),
  outBytes: maybe(whole(0, 65_535)),
  configBytes: maybe(whole(0, 65_535)),
  /** The shortest of its cyclic packets, in milliseconds. */
  intervalMillis: maybe(whole(1, 60_000)),
});

/** A file that goes with a kind; what it holds is kept beside the plan, by the SHA-256 of its bytes. */
const paper = object({
  id: sha256,
  name: text(200),
  what: choice('description', 'manual', 'drawing', 'other'),
  bytes: whole(1, MOST_PAPER),
});

/** The file that its memory card needs: words in braces stand for values of the device (`card-file.ts`). */
const card = object({
  file: text(120),
  content: text(MOST_CARD),
  lineEnd: choice('lf', 'crlf'),
  where: note(300),
});

export const kindShape = object({
  id,
  maker: text(80),
  name: text(120),
  orderNumber: note(80),
  /** Of the hardware or firmware this kind stands for. */
  revision: note(40),
  role: choice(...ROLES),
  /** What a proposed name of such a device is made of. */
  stem: text(24),
  ways: list(guide, WAYS.length),
  factory,
  switches: maybe(faceShape),
  /** Which source of the address wins at power-up, strongest first. */
  wins: list(choice('switches', 'stored', 'dhcp', 'controller'), 4),
  pinning,
  /** What sets it back to how it left its maker, at the device. */
  setBack: list(text(300), 20),
  /** A change counts only after power off and on. */
  needsPowerCycle: flag(true),
  answersPing: flag(true),
  /** From power on to the first request. */
  bootSeconds: whole(0, 600),
  /** The longest pause between two requests. */
  longestPauseSeconds: whole(0, 3600),
  /** Option 60, exactly as such a device sends it. */
  vendorClass: maybe(text(255)),
  services: list(
    object({ protocol: choice('tcp', 'udp'), port: whole(1, 65_535), name: text(60) }),
    40,
  ),
  /** EtherNet/IP identity object: vendor, device type, product code. */
  identity: maybe(
    object({ vendor: whole(0, 65_535), type: whole(0, 65_535), product: whole(0, 65_535) }),
  ),
  /** PROFINET vendor and device number. */
  station: maybe(object({ vendor: whole(0, 65_535), device: whole(0, 65_535) })),
  /** Its station name as it comes from the maker. */
  stationName: note(240),
  /** Its web page asks for a new password at the first login. */
  asksNewPassword: flag(false),
  /** Its web page cannot be changed while a controller is connected. */
  isLockedWhileConnected: flag(false),
  roles: list(role, 12),
  /** What its sockets for cables are called, in their order. */
  ports: list(text(40), 64),
  modules: list(moduleOffer, 2000),
  /** Whole connections that are offered. */
  offers: absentAs(list(connectionOffer, 200), () => []),
  /** Connection sizes in bytes that are offered; a need is rounded up to the next. */
  offeredSizes: list(whole(0, 65_535), 200),
  mostConnections: maybe(whole(1, 65_535)),
  mostPacketsPerSecond: maybe(whole(1, 10_000_000)),
  mostDevices: maybe(whole(1, 65_535)),
  /** The shortest interval between cyclic packets it can keep, in milliseconds. */
  leastIntervalMillis: maybe(whole(1, 60_000)),
  /** Its interfaces are hosts of their own: two in one subnet are no mistake. */
  hasIndependentHosts: flag(false),
  /** It passes IP packets from one interface to another. */
  forwards: flag(false),
  /** It refuses addresses whose last number is 0 or 255, though they are hosts of a wider net. */
  refusesEdgeNumbers: flag(false),
  /** The longest variable name its project takes. */
  longestVariable: maybe(whole(1, 255)),
  /** The address its project or tool proposes by itself. */
  proposes: absentAs(maybe(ipv4), () => undefined),
  card: absentAs(maybe(card), () => undefined),
  /** Description file, manual, drawing: what is wanted at the cabinet, where there is no internet. */
  papers: list(paper, 20),
  note: note(),
});

export type Kind = ValueOf<typeof kindShape>;
export type FactoryState = ValueOf<typeof factory>;
export type Pinning = ValueOf<typeof pinning>;
export type Paper = ValueOf<typeof paper>;
export type Guide = ValueOf<typeof guide>;
export type ConnectionOffer = ValueOf<typeof connectionOffer>;
export type ModuleOffer = ValueOf<typeof moduleOffer>;
export type ConnectionRole = ValueOf<typeof role>;

/** The guide of a kind for one way, undefined where the kind does not have the way. */
export const guideOf = (kind: Kind, way: Guide['way']): Guide | undefined =>
  kind.ways.find((one) => one.way === way);

/** The TCP port of the web page of such devices, undefined where they have none. */
export const pagePortOf = (kind: Kind): number | undefined =>
  kind.services.find(({ protocol, port }) => protocol === 'tcp' && (port === 80 || port === 8080))
    ?.port;

/** Such devices can be asked over EtherNet/IP who they are. */
export const speaksEnip = (kind: Kind): boolean =>
  kind.pinning.by === 'tcpip-object' ||
  kind.services.some(({ protocol, port }) => protocol === 'tcp' && port === 44_818);

/** A size as a connection offers it: the next step up, or the need itself where none is offered or needed. */
export const offeredSize = (kind: Kind, bytes: number): number =>
  bytes === 0
    ? 0
    : ([...kind.offeredSizes].sort((a, b) => a - b).find((size) => size >= bytes) ?? bytes);
