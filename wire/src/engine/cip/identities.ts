import type { MacAddress } from '@ipsonomo/core/net';
import { identityText } from '@ipsonomo/core/proof';
import { ENIP_PORT, isInUse, type Identity } from '@ipsonomo/core/wire';
import { Conversations } from '../talk/conversations';
import type { TalkEvents } from '../talk/patience';
import { askIdentity, serialOfSaid } from '../proof/talk';
import { FieldRefusal, type FieldTarget, type FieldTask } from '../../protocol';
import type { Unit } from '../unit';

const TCP_TIMEOUT = 2000;

/**
 * R-IN-USE: before anything is written to a device or its power is cut, it is asked who it is and whether a
 * controller uses it (ListIdentity). One that does not speak the protocol, or is silent, tells nothing: that
 * is no proof that it is free, and no reason to wait.
 *
 * R-WHO-KEEPS: before it is told to keep its address it has to be of the kind and the major revision that are planned.
 */
export class Identities implements Unit {
  private readonly talks: Conversations;

  constructor(private readonly events: TalkEvents) {
    this.talks = new Conversations(() => events.changed());
  }

  canAsk({ hasIdentity, mac }: FieldTarget): boolean {
    return hasIdentity && mac !== undefined;
  }

  /**
   * Refuses with `field.busy`, `field.stopped`, and with `device.inUse`, naming the controller of the plan.
   * @param keeps it is about to be told to keep its address: refuses with `device.otherKind`, `device.otherRevision` too
   */
  async refuseInUse(target: FieldTarget, person: string, keeps: boolean): Promise<void> {
    const { title, controller, mac } = target;
    if (!target.hasIdentity || mac === undefined) return;
    await this.talks.during(target, async () => {
      const identity = await this.ask(target, mac);
      // Somebody fell silent meanwhile: what was to come after this must not begin.
      this.talks.goesOn(target);
      if (!identity) return;
      const used = isInUse(identity);
      const facts = factsOf(identity, used, target.revision);
      this.events.record('identified', target, facts, { person });
      if (used) throw FieldRefusal.of('device.inUse', { title, controller });
      if (keeps) refuseOther(target, identity);
    });
  }

  clear(): void {
    this.talks.clear();
  }

  tasks(): readonly FieldTask[] {
    return this.talks.tasks();
  }

  private async ask(target: FieldTarget, mac: MacAddress): Promise<Identity | undefined> {
    const to = this.events.whereIs(target);
    if (to === undefined) return undefined;
    const subnetId = this.events.around(to).id;
    const who = await this.events.whoIsAt(subnetId, to);
    // Never a word to another device that happens to answer at the address.
    if (who === 'no-voice' || who.size !== 1 || !who.has(mac)) return undefined;
    const from = this.events.voice(subnetId);
    if (from === undefined) return undefined;
    const request = { from, to, port: ENIP_PORT, timeout: TCP_TIMEOUT };
    const stream = await this.events.open(subnetId, request);
    if (typeof stream === 'string') return undefined;
    return this.talks.over(target, stream, askIdentity);
  }
}

/** What it is, beside what is planned: neither is taken for a slip of the other. */
function refuseOther({ title, proof, revision: planned }: FieldTarget, said: Identity): void {
  const found = identityText(said);
  const wanted = identityText(proof.identity);
  if (wanted !== '' && wanted !== found)
    throw FieldRefusal.of('device.otherKind', { title, planned: wanted, found, name: said.name });
  if (isOtherRevision(said, planned))
    throw FieldRefusal.of('device.otherRevision', {
      ...{ title, planned, found: said.revision.join('.') },
    });
}

const factsOf = (identity: Identity, used: boolean, planned: string) => ({
  name: identity.name,
  revision: identity.revision.join('.'),
  serial: serialOfSaid(identity),
  status: identity.status.toString(16).padStart(4, '0'),
  used: used ? 'yes' : 'no',
  ...(isOtherRevision(identity, planned) ? { planned } : {}),
});

/** Of another major revision than the kind stands for; the minor one may be newer. */
const isOtherRevision = ({ revision: [major] }: Identity, planned: string): boolean =>
  /^\d+/.test(planned) && Number.parseInt(planned, 10) !== major;
