import { ENIP_PORT, isInUse, type Identity, type MacAddress } from '@ipsonomo/core';
import type { TcpStream } from './carrier';
import type { TalkEvents } from './patience';
import { askIdentity, serialOfSaid } from './proof/talk';
import { FieldRefusal, type FieldTarget, type FieldTask } from './protocol';
import type { Unit } from './unit';

const TCP_TIMEOUT = 2000;

/**
 * R-IN-USE: before anything is written to a device or its power is cut, it is asked who it is and whether a
 * controller uses it (ListIdentity). One that does not speak the protocol, or is silent, tells nothing: that
 * is no proof that it is free, and no reason to wait.
 */
export class Identities implements Unit {
  private readonly running = new Map<string, TcpStream | undefined>();

  constructor(private readonly events: TalkEvents) {}

  canAsk({ hasIdentity, mac }: FieldTarget): boolean {
    return hasIdentity && mac !== undefined;
  }

  /** Refuses with `field.busy`, `field.stopped`, and with `device.inUse`, naming the controller of the plan. */
  async refuseInUse(target: FieldTarget, person: string): Promise<void> {
    const { interfaceId, title, controller } = target;
    if (!target.hasIdentity || target.mac === undefined) return;
    // Whoever presses twice must not slip past the question.
    if (this.running.has(interfaceId)) throw new FieldRefusal('field.busy', { title });
    this.running.set(interfaceId, undefined);
    this.events.changed();
    try {
      const identity = await this.ask(target, target.mac);
      // Somebody fell silent meanwhile: what was to come after this must not begin.
      if (!this.running.has(interfaceId)) throw new FieldRefusal('field.stopped', { title });
      if (!identity) return;
      const used = isInUse(identity);
      this.events.record('identified', target, factsOf(identity, used, target.revision), {
        person,
      });
      if (used) throw new FieldRefusal('device.inUse', { title, controller });
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
    if (!this.running.has(target.interfaceId)) {
      stream.close();
      return undefined;
    }
    this.running.set(target.interfaceId, stream);
    try {
      return await askIdentity(stream);
    } finally {
      stream.close();
    }
  }
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
