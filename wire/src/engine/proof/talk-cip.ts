import { pause } from '@ipsonomo/core/clock';
import type { AssemblyFound, Found, ModuleFound, PlannedAssembly } from '@ipsonomo/core/proof';
import {
  ASSEMBLY,
  CIP_SERVICE,
  type CipReply,
  decodeWith,
  identityObject,
  interfaceConfiguration,
  TCPIP_OBJECT,
  tcpipPath,
} from '@ipsonomo/core/wire';
import type { TcpStream } from '../../carriers/carrier';
import { CipTalk } from '../cip/cip-talk';
import { readable, WHO_IT_IS } from './talk';

// What the objects of a device tell over EtherNet/IP. None of these questions changes anything in it.

/** R-LIMITS: between two questions of one conversation, so that one device is not sent ten packets a second. */
const BETWEEN = 500;
const NOTHING = new Uint8Array(0);

/** In a session of its own; undefined where what comes back cannot be read. */
const inSession = <T>(
  stream: TcpStream,
  act: (talk: CipTalk) => Promise<T>,
): Promise<T | undefined> =>
  readable(async () => {
    const talk = new CipTalk(stream);
    await talk.register();
    const result = await act(talk);
    talk.unregister();
    return result;
  });

/** Mask and gateway as the device has them: attribute 5 of its TCP/IP interface object. */
export const askNetwork = (stream: TcpStream): Promise<Found['network']> =>
  inSession(stream, async (talk) => {
    const path = tcpipPath(TCPIP_OBJECT.interface);
    const service = CIP_SERVICE.getAttributeSingle;
    const reply = await talk.ask('network', { service, path, data: NOTHING });
    if (reply.status !== 0) return undefined;
    const { mask, gateway } = decodeWith(interfaceConfiguration, reply.data);
    return { mask, gateway };
  });

/** R-SIZES: the size of each planned instance of the assembly object. */
export async function askAssemblies(
  stream: TcpStream,
  planned: readonly PlannedAssembly[],
): Promise<readonly AssemblyFound[]> {
  const found: AssemblyFound[] = [];
  await inSession(stream, async (talk) => {
    for (const { role, instance } of planned) {
      if (found.length > 0) await pause(stream.clock, BETWEEN);
      const of = (attribute: number) =>
        talk.ask('assembly', {
          ...{ service: CIP_SERVICE.getAttributeSingle, data: NOTHING },
          path: { classId: ASSEMBLY.classId, instance, attribute },
        });
      const size = await of(ASSEMBLY.size);
      const told = sizeIn(size);
      if (told !== 'not-told') {
        found.push({ role, instance, isThere: told !== 'not-there', bytes: bytesIn(told) });
        continue;
      }
      // The size is an attribute that a device may leave out; then its data are as long as they are.
      await pause(stream.clock, BETWEEN);
      const data = await of(ASSEMBLY.data);
      const isThere = sizeIn(data) !== 'not-there';
      found.push({
        role,
        instance,
        isThere,
        bytes: data.status === 0 ? data.data.length : undefined,
      });
    }
  });
  return found;
}

type Told = number | 'not-told' | 'not-there';

const bytesIn = (told: Told): number | undefined => (typeof told === 'number' ? told : undefined);

/** No such path or object: there is nothing at this instance. Any other refusal says nothing. */
const NOT_THERE: readonly number[] = [0x05, 0x16];

function sizeIn({ status, data }: CipReply): Told {
  if (NOT_THERE.includes(status)) return 'not-there';
  return status === 0 && data.length >= 2 ? (data[0] ?? 0) | ((data[1] ?? 0) << 8) : 'not-told';
}

const BACKPLANE = 1;
const CONNECTION_FAILURE = 1;

/** R-MODULES: who is in these slots of a rack, asked through its backplane; undefined where it passes nothing on. */
export const askSlots = (
  stream: TcpStream,
  slots: readonly number[],
): Promise<readonly ModuleFound[] | undefined> =>
  inSession(stream, async (talk) => {
    const found: ModuleFound[] = [];
    for (const [at, slot] of slots.entries()) {
      if (at > 0) await pause(stream.clock, BETWEEN);
      const reply = await talk.askAlong('slot', WHO_IT_IS, [{ port: BACKPLANE, link: slot }]);
      if (reply.status === 0)
        found.push({ slot, ident: undefined, name: decodeWith(identityObject, reply.data).name });
      // An empty slot fails on the way; anything else means that this is no rack.
      else if (reply.status !== CONNECTION_FAILURE) return undefined;
    }
    return found;
  });
