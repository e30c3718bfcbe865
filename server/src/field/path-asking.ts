import {
  CIP_SERVICE,
  CONNECTION_MANAGER,
  DecodeError,
  decodeWith,
  encodeWith,
  ENIP_PORT,
  IDENTITY_OBJECT,
  identityObject,
  identityText,
  UNCONNECTED_SEND,
  unconnectedSend,
  type CipReply,
  type Facts,
  type IdentityObject,
  type PortSegment,
} from '@ipsonomo/core';
import type { TcpStream } from './carrier';
import { CipTalk } from './cip-talk';
import { Broken } from './inbox';
import { openTo } from './open-to';
import type { TalkEvents } from './patience';
import { serialOfSaid } from './proof/talk';
import { FieldRefusal, type FieldTarget, type FieldTask } from './protocol';
import type { Unit } from './unit';

export interface PathOrder {
  /** The module one is connected to. */
  readonly entry: FieldTarget;
  /** Who is meant at its end. */
  readonly target: FieldTarget;
  /** From the entry on. */
  readonly route: readonly PortSegment[];
  readonly person: string;
}

const NOTHING = new Uint8Array(0);

/**
 * R-PATH-ASKED: who is at the end of a route path, asked along it: the identity object, in an Unconnected Send to the
 * module one is connected to. A right path to another device than planned is told from a path that leads nowhere.
 */
export class PathAsking implements Unit {
  private readonly running = new Map<string, TcpStream | undefined>();

  constructor(private readonly events: TalkEvents) {}

  /** Refuses with `field.busy` and what `openTo` refuses with. */
  async ask(order: PathOrder): Promise<void> {
    const { interfaceId, title } = order.target;
    if (this.running.has(interfaceId)) throw new FieldRefusal('field.busy', { title });
    this.running.set(interfaceId, undefined);
    this.events.changed();
    try {
      const stream = await openTo(this.events, order.entry, ENIP_PORT);
      if (!this.running.has(interfaceId)) {
        stream.close();
        throw new FieldRefusal('field.stopped', { title });
      }
      this.running.set(interfaceId, stream);
      const facts = await outcomeAlong(stream, order).finally(() => stream.close());
      const via = order.route.map(({ port, link }) => `${port},${link}`).join(',');
      const from = order.entry.title;
      this.events.record('path-asked', order.target, { ...facts, via, from }, order);
    } finally {
      this.running.delete(interfaceId);
      this.events.changed();
    }
  }

  clear(): void {
    for (const stream of this.running.values()) stream?.close();
    this.running.clear();
  }

  tasks(): readonly FieldTask[] {
    return [...this.running.keys()].map((interfaceId) => ({
      ...{ kind: 'identify', interfaceId, phase: 'talking' },
    }));
  }
}

/** What came back along the path, as the facts of an evidence. */
async function outcomeAlong(stream: TcpStream, { target, route }: PathOrder): Promise<Facts> {
  try {
    const talk = new CipTalk(stream);
    await talk.register();
    const asked = {
      service: CIP_SERVICE.getAttributesAll,
      path: { ...IDENTITY_OBJECT },
      data: NOTHING,
    };
    const reply = await talk.ask('path', {
      ...{ service: UNCONNECTED_SEND, path: CONNECTION_MANAGER },
      data: encodeWith(unconnectedSend, { request: asked, route }),
    });
    talk.unregister();
    return reply.status === 0
      ? reachedFacts(decodeWith(identityObject, reply.data), target)
      : refusedFacts(reply);
  } catch (error) {
    if (error instanceof Broken) return { how: 'silent', why: error.why };
    if (error instanceof DecodeError) return { how: 'silent', why: error.code };
    throw error;
  }
}

const refusedFacts = ({ status, additional: [extended] }: CipReply): Facts => ({
  ...{ how: 'refused', status },
  ...(extended === undefined ? {} : { extended }),
});

/** Is it the one that is meant: of its kind, and with its serial number where one is noted. */
function reachedFacts(said: IdentityObject, { proof }: FieldTarget): Facts {
  const serial = serialOfSaid(said);
  const has = identityText(said);
  const facts = { product: said.name, revision: said.revision.join('.'), serial };
  if (proof.identity && identityText(proof.identity) !== has)
    return {
      how: 'other',
      what: 'kind',
      expected: identityText(proof.identity),
      found: has,
      ...facts,
    };
  if (proof.serial !== '' && proof.serial.toLowerCase() !== serial)
    return { how: 'other', what: 'serial', expected: proof.serial, found: serial, ...facts };
  return { how: 'reached', ...facts };
}
