import { formatIpv4, type Ipv4 } from '@ipsonomo/core/net';
import {
  CAPABILITY,
  CIP_SERVICE,
  CIP_STATUS,
  DecodeError,
  decodeWith,
  dword,
  encodeWith,
  interfaceConfiguration,
  pinnedControl,
  sourceOf,
  TCPIP_OBJECT,
  tcpipPath,
} from '@ipsonomo/core/wire';
import type { TcpStream } from '../../carriers/carrier';
import { CipTalk } from '../cip/cip-talk';
import { Broken } from '../talk/inbox';

/** What a pinning came to. */
export type PinOutcome =
  | {
      readonly kind: 'kept';
      readonly before: number;
      readonly after: number;
      readonly capability: number;
    }
  /** The device says no: a status of the automation protocol, with its name. */
  | {
      readonly kind: 'refused';
      readonly step: string;
      readonly status: number;
      readonly name: string;
    }
  /** Another device answers for the address; not a word was said to it. */
  | { readonly kind: 'other-device'; readonly found: string }
  | { readonly kind: 'other-address'; readonly found: string }
  | { readonly kind: 'not-settable'; readonly capability: number }
  | { readonly kind: 'not-kept'; readonly control: number }
  /** It hung up, fell silent, or answered what is no message. */
  | { readonly kind: 'broken'; readonly step: string; readonly why: string };

const NOTHING = new Uint8Array(0);

class Refused extends Error {
  constructor(
    readonly step: string,
    readonly status: number,
  ) {
    super(`status ${status}`);
  }
}

/**
 * R-PIN: tells a device over EtherNet/IP to keep its address: reads attributes 2, 3 and 5 of the TCP/IP
 * interface object, clears bits 0–3 of attribute 3 and nothing else, and reads back.
 * @param planned the address the device must say it has, else nothing is written
 */
export async function pinOver(stream: TcpStream, planned: Ipv4): Promise<PinOutcome> {
  const talk = new Talk(stream);
  try {
    return await pin(talk, planned);
  } catch (error) {
    if (error instanceof Refused) {
      const { step, status } = error;
      return { kind: 'refused', step, status, name: CIP_STATUS[status] ?? 'unknown status' };
    }
    if (error instanceof Broken) return { kind: 'broken', step: error.step, why: error.why };
    if (error instanceof DecodeError) return { kind: 'broken', step: 'reply', why: error.code };
    throw error;
  } finally {
    stream.close();
  }
}

async function pin(talk: Talk, planned: Ipv4): Promise<PinOutcome> {
  await talk.register();
  const capability = decodeWith(dword, await talk.get(TCPIP_OBJECT.capability));
  const before = decodeWith(dword, await talk.get(TCPIP_OBJECT.control));
  const at = decodeWith(interfaceConfiguration, await talk.get(TCPIP_OBJECT.interface));
  if (at.address !== planned) return { kind: 'other-address', found: formatIpv4(at.address) };
  const after = pinnedControl(before);
  if (after !== before) {
    if ((capability & CAPABILITY.settable) === 0) return { kind: 'not-settable', capability };
    await talk.set(TCPIP_OBJECT.control, encodeWith(dword, after));
  }
  const control = decodeWith(dword, await talk.get(TCPIP_OBJECT.control));
  talk.unregister();
  if (sourceOf(control) !== 'stored') return { kind: 'not-kept', control };
  return { kind: 'kept', before, after: control, capability };
}

/** Attributes of the TCP/IP interface object; a refusal is thrown with its status. */
class Talk extends CipTalk {
  get = (attribute: number): Promise<Uint8Array> =>
    this.request(`read ${attribute}`, CIP_SERVICE.getAttributeSingle, attribute, NOTHING);

  set = (attribute: number, data: Uint8Array): Promise<Uint8Array> =>
    this.request(`write ${attribute}`, CIP_SERVICE.setAttributeSingle, attribute, data);

  private async request(
    step: string,
    service: number,
    attribute: number,
    data: Uint8Array,
  ): Promise<Uint8Array> {
    const answer = await super.ask(step, { service, path: tcpipPath(attribute), data });
    if (answer.service !== service) throw new Broken(step, `service ${answer.service}`);
    if (answer.status !== 0) throw new Refused(step, answer.status);
    return answer.data;
  }
}
