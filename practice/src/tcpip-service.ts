import type { HostAddress } from '@ipsonomo/core/host';
import { maskOf, toIpv4 } from '@ipsonomo/core/net';
import {
  ASSEMBLY,
  CAPABILITY,
  CIP_SERVICE,
  cipReply,
  cipRequest,
  CONNECTION_MANAGER,
  decodeWith,
  dword,
  encapsulation,
  encapsulationSize,
  encodeWith,
  ENIP_COMMAND,
  interfaceConfiguration,
  sourceOf,
  TCPIP_OBJECT,
  unconnected,
  type CipReply,
  type CipRequest,
  type Encapsulation,
  identityAnswer,
  IDENTITY_OBJECT,
  identityObject,
  UNCONNECTED_SEND,
  unconnectedSend,
  type UnconnectedSend,
  type Identity,
} from '@ipsonomo/core/wire';
import type { Assembly } from './definition';
import { answerEach, type Answered } from './messages';

/** What the TCP/IP interface object of a device holds. */
export interface TcpipObject {
  /** Attribute 3. */
  readonly control: number;
  readonly configured: HostAddress | undefined;
  /** What it says of itself; its address is the one it has. */
  readonly identity?: Omit<Identity, 'address' | 'status' | 'state'>;
  /** Passes a request on along a route path; undefined where it is in no rack. */
  readonly forward?: (send: UnconnectedSend) => CipReply;
  /** Where its connection has its data. */
  readonly assemblies?: readonly Assembly[];
  /** Set while a controller owns the device: it then refuses changes. */
  readonly owned: boolean;
}

export interface TcpipAnswer extends Answered {
  /** The new control word, where the conversation changed it. */
  readonly control: number | undefined;
}

const NOTHING = new Uint8Array(0);
const SESSION = 0x0001_0001;
const STATUS = { unsupportedCommand: 1, invalidSession: 0x64 } as const;
const CIP = {
  unknownPath: 0x05,
  notSettable: 0x0e,
  conflict: 0x0c,
  noService: 0x08,
  noAttribute: 0x14,
} as const;

/** Answers what arrived on an EtherNet/IP connection. */
export function answerTcpip(object: TcpipObject, received: Uint8Array): TcpipAnswer {
  let state = object;
  const answered = answerEach(received, encapsulationSize, (bytes) => {
    const { reply, control } = answerMessage(state, decodeWith(encapsulation, bytes));
    state = { ...state, control };
    return reply && encodeWith(encapsulation, reply);
  });
  return { ...answered, control: state.control === object.control ? undefined : state.control };
}

function answerMessage(
  object: TcpipObject,
  message: Encapsulation,
): { readonly reply: Encapsulation | undefined; readonly control: number } {
  const { control } = object;
  switch (message.command) {
    case ENIP_COMMAND.listIdentity:
      return { reply: { ...message, data: identityOf(object) }, control };
    case ENIP_COMMAND.registerSession:
      return { reply: { ...message, session: SESSION }, control };
    case ENIP_COMMAND.unregisterSession:
      return { reply: undefined, control };
    case ENIP_COMMAND.sendRrData: {
      if (message.session !== SESSION)
        return { reply: { ...message, status: STATUS.invalidSession, data: NOTHING }, control };
      const { timeout, message: bytes } = decodeWith(unconnected, message.data);
      const answer = answerRequest(object, decodeWith(cipRequest, bytes));
      const data = encodeWith(unconnected, {
        timeout,
        message: encodeWith(cipReply, answer.reply),
      });
      return { reply: { ...message, data }, control: answer.control };
    }
    default:
      return { reply: { ...message, status: STATUS.unsupportedCommand, data: NOTHING }, control };
  }
}

/** Owned and with a connection in run mode, or neither (from memory). */
const STATE = { operational: 3, owned: 0x0061, free: 0x0030 } as const;

const statusOf = ({ owned }: Pick<TcpipObject, 'owned'>): number =>
  owned ? STATE.owned : STATE.free;

function identityOf({ identity, configured, owned }: TcpipObject): Uint8Array {
  if (!identity) return NOTHING;
  const address = configured?.address ?? toIpv4(0);
  const status = statusOf({ owned });
  return encodeWith(identityAnswer, { ...identity, address, status, state: STATE.operational });
}

/** What a device answers to one request of the automation protocol, whichever way it came. */
export const answerCip = (object: TcpipObject, request: CipRequest): CipReply =>
  answerRequest(object, request).reply;

function answerRequest(
  object: TcpipObject,
  request: CipRequest,
): { readonly reply: CipReply; readonly control: number } {
  const { service, path, data } = request;
  const reply = (status: number, value: Uint8Array = NOTHING) => ({
    reply: { service, status, additional: [], data: value },
    control: object.control,
  });
  if (path.classId === IDENTITY_OBJECT.classId && path.instance === IDENTITY_OBJECT.instance)
    return service === CIP_SERVICE.getAttributesAll && object.identity
      ? reply(0, encodeWith(identityObject, { ...object.identity, status: statusOf(object) }))
      : reply(CIP.noService);
  if (service === UNCONNECTED_SEND && path.classId === CONNECTION_MANAGER.classId)
    return object.forward
      ? { reply: object.forward(decodeWith(unconnectedSend, data)), control: object.control }
      : reply(CIP.noService);
  if (path.classId === ASSEMBLY.classId)
    return { reply: assemblyReply(object, request), control: object.control };
  if (path.classId !== TCPIP_OBJECT.classId || path.instance !== 1) return reply(0x16);
  if (service === CIP_SERVICE.getAttributeSingle) {
    const value = attributeOf(object, path.attribute);
    return value ? reply(0, value) : reply(CIP.noAttribute);
  }
  if (service !== CIP_SERVICE.setAttributeSingle) return reply(CIP.noService);
  if (path.attribute !== TCPIP_OBJECT.control) return reply(CIP.notSettable);
  if (object.owned) return reply(CIP.conflict);
  const control = decodeWith(dword, data);
  if (sourceOf(control) === 'unknown') return reply(0x09);
  return { ...reply(0), control };
}

/** How long the data of an assembly are, or the data: what it holds is of no interest here. */
function assemblyReply({ assemblies = [] }: TcpipObject, { service, path }: CipRequest): CipReply {
  const reply = (status: number, data: Uint8Array = NOTHING): CipReply => ({
    ...{ service, status, additional: [], data },
  });
  const one = assemblies.find(({ instance }) => instance === path.instance);
  if (!one) return reply(CIP.unknownPath);
  if (service !== CIP_SERVICE.getAttributeSingle) return reply(CIP.noService);
  if (path.attribute === ASSEMBLY.data) return reply(0, new Uint8Array(one.bytes));
  return path.attribute === ASSEMBLY.size && !one.isUnmeasured
    ? reply(0, Uint8Array.of(one.bytes & 0xff, one.bytes >>> 8))
    : reply(CIP.noAttribute);
}

function attributeOf(object: TcpipObject, attribute: number | undefined): Uint8Array | undefined {
  const { configured } = object;
  switch (attribute) {
    case TCPIP_OBJECT.capability:
      return encodeWith(dword, CAPABILITY.bootp | CAPABILITY.dhcp | CAPABILITY.settable);
    case TCPIP_OBJECT.control:
      return encodeWith(dword, object.control);
    case TCPIP_OBJECT.interface:
      return encodeWith(interfaceConfiguration, {
        address: configured?.address ?? toIpv4(0),
        mask: configured ? maskOf(configured.length) : toIpv4(0),
        gateway: configured?.gateway ?? toIpv4(0),
        nameServer: toIpv4(0),
        nameServer2: toIpv4(0),
        domainName: '',
      });
    default:
      return undefined;
  }
}
