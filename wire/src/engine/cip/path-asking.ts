import type { FactsOf } from '@ipsonomo/core/plan';
import { identityText } from '@ipsonomo/core/proof';
import {
  DecodeError,
  decodeWith,
  ENIP_PORT,
  identityObject,
  type CipReply,
  type IdentityObject,
  type PortSegment,
} from '@ipsonomo/core/wire';
import type { TcpStream } from '../../carriers/carrier';
import { CipTalk } from './cip-talk';
import { Conversations } from '../talk/conversations';
import { Broken } from '../talk/inbox';
import { openTo } from '../talk/open-to';
import type { TalkEvents } from '../talk/patience';
import { serialOfSaid, WHO_IT_IS } from '../proof/talk';
import type { FieldTarget, FieldTask } from '../../protocol';
import type { Unit } from '../unit';

export interface PathOrder {
  /** The module one is connected to. */
  readonly entry: FieldTarget;
  /** Who is meant at its end. */
  readonly target: FieldTarget;
  /** From the entry on. */
  readonly route: readonly PortSegment[];
  readonly person: string;
}

/**
 * R-PATH-ASKED: who is at the end of a route path, asked along it: the identity object, in an Unconnected Send to the
 * module one is connected to. A right path to another device than planned is told from a path that leads nowhere.
 */
export class PathAsking implements Unit {
  private readonly talks: Conversations;

  constructor(private readonly events: TalkEvents) {
    this.talks = new Conversations(() => events.changed());
  }

  /** Refuses with `field.busy`, `field.stopped` and what `openTo` refuses with. */
  async ask(order: PathOrder): Promise<void> {
    const { target, entry, route } = order;
    await this.talks.during(target, async () => {
      const opened = await openTo(this.events, entry, ENIP_PORT);
      const facts = await this.talks.over(target, opened, (stream) => outcomeAlong(stream, order));
      const via = route.map(({ port, link }) => `${port},${link}`).join(',');
      this.events.record('path-asked', target, { ...facts, via, from: entry.title }, order);
    });
  }

  clear(): void {
    this.talks.clear();
  }

  tasks(): readonly FieldTask[] {
    return this.talks.tasks();
  }
}

/** What came back along the path. */
type Outcome = Omit<FactsOf<'path-asked'>, 'via' | 'from'>;

/** What came back along the path, as the facts of an evidence. */
async function outcomeAlong(stream: TcpStream, { target, route }: PathOrder): Promise<Outcome> {
  try {
    const talk = new CipTalk(stream);
    await talk.register();
    const reply = await talk.askAlong('path', WHO_IT_IS, route);
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

const refusedFacts = ({ status, additional: [extended] }: CipReply): Outcome => ({
  ...{ how: 'refused', status },
  ...(extended === undefined ? {} : { extended }),
});

/** Is it the one that is meant: of its kind, and with its serial number where one is noted. */
function reachedFacts(said: IdentityObject, { proof }: FieldTarget): Outcome {
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
