import { type Clock, pause } from '@ipsonomo/core/clock';
import {
  formatIpv4,
  formatMac,
  type Ipv4,
  type MacAddress,
  maskOf,
  UNSPECIFIED,
} from '@ipsonomo/core/net';
import type { CheckFacts } from '@ipsonomo/core/plan';
import { compareFound, type Found, proofFacts } from '@ipsonomo/core/proof';
import type { Station } from '@ipsonomo/core/wire';
import type { FieldTarget, FieldTask, RecordEvidence } from '../../protocol';
import type { Unit } from '../unit';
import { Interviews, NOTHING_SAID, packetsOf, stepsOf, type Interview } from './interviews';
import { MOST_PER_SECOND } from './sweep';

interface Check {
  readonly target: FieldTarget;
  readonly by: Asking;
  readonly sequence: number;
  asks: number;
  pings: number;
  nextAt: number;
  startedAt: number;
  endsAt: number;
  readonly macs: Set<MacAddress>;
  pingedAt: number;
  pong: number | undefined;
}

/** Who asks, and for what. */
export interface Asking {
  readonly person: string;
  /** The run it belongs to; undefined where one device is looked at by itself. */
  readonly proofId: string | undefined;
}

export interface CheckEvents {
  readonly mac: MacAddress;
  isReady(subnetId: string): boolean;
  needVoice(subnetId: string): void;
  askArp(subnetId: string, address: Ipv4): void;
  ping(subnetId: string, to: Ipv4, identifier: number, sequence: number): void;
  /** What somebody told of itself over layer 2. */
  station(mac: MacAddress): Station | undefined;
  readonly record: RecordEvidence;
  changed(): void;
  /** Milliseconds since 1970. */
  readonly clock: Clock;
}

const IDENTIFIER = 0x4950;
const ASKS = 2;
const PINGS = 3;
/** Between two packets to one device: at most ten a second. */
const PAUSE = 200;
/** What one device is sent that answers, before it is talked to: ARP and a ping. */
const ASKING = ASKS + 1;
/** Voices need their time to be claimed first. */
const PATIENCE = 4000;
const LISTEN = 700;
/** No conversation before so long after the first packet: ten a second are never reached. */
const QUIET = 1000;

/**
 * R-PROVEN: proves devices: ARP and ping from an address in their own subnet, then what they say over the services they
 * have. Every check goes on listening after the first answer, since a second MAC with the same address answers too.
 */
export class Checks implements Unit {
  private readonly running = new Map<string, Check>();
  /** In conversation. */
  private readonly talking = new Map<string, Check>();
  /** In conversation for somebody else: asked once that is over. */
  private readonly after = new Map<string, readonly [FieldTarget, Asking]>();
  private sequence = 0;

  constructor(
    private readonly events: CheckEvents,
    private readonly interviews: Interviews,
  ) {}

  /** R-LIMITS: devices begin so far apart that all of them together stay below so many packets a second. */
  start(
    targets: readonly FieldTarget[],
    by: Asking,
    now: number,
    perSecond = MOST_PER_SECOND,
  ): void {
    let nextAt = now;
    for (const target of targets) {
      if (this.talking.has(target.interfaceId)) {
        this.after.set(target.interfaceId, [target, by]);
        continue;
      }
      this.sequence = (this.sequence + PINGS) & 0xffff;
      this.running.set(target.interfaceId, {
        ...{ target, by, nextAt, sequence: this.sequence, startedAt: nextAt },
        ...{ asks: 0, pings: 0, macs: new Set(), pingedAt: 0, pong: undefined },
        endsAt: nextAt + PATIENCE,
      });
      this.events.needVoice(target.subnetId);
      nextAt += (packetsFor(target) * 1000) / perSecond;
    }
    this.events.changed();
  }

  /** How many of a run are not through yet. */
  left(proofId: string): number {
    const waiting = [...this.after.values()].map(([, by]) => ({ by }));
    const all = [...this.running.values(), ...this.talking.values(), ...waiting];
    return all.filter(({ by }) => by.proofId === proofId).length;
  }

  clear(): void {
    this.running.clear();
    this.talking.clear();
    this.after.clear();
    this.interviews.clear();
  }

  tasks(): readonly FieldTask[] {
    const task = (phase: string) => (interfaceId: string) => ({
      ...{ kind: 'check' as const, interfaceId, phase },
    });
    return [
      ...[...this.running.keys()].map(task('asking')),
      ...[...this.talking.keys()].map(task('talking')),
    ];
  }

  nextAt(): number {
    return Math.min(Infinity, ...[...this.running.values()].map((check) => check.nextAt));
  }

  sighting(address: Ipv4, mac: MacAddress): void {
    if (mac === this.events.mac) return;
    for (const check of [...this.running.values(), ...this.talking.values()])
      if (check.target.address === address) check.macs.add(mac);
  }

  pong(from: Ipv4, identifier: number, sequence: number, now: number): void {
    if (identifier !== IDENTIFIER) return;
    for (const check of this.running.values()) {
      const mine = sequence >= check.sequence && sequence < check.sequence + PINGS;
      if (check.target.address === from && mine && check.pong === undefined)
        check.pong = now - check.pingedAt;
    }
  }

  run(now: number): void {
    for (const [id, check] of this.running) {
      if (now < check.nextAt) continue;
      if (this.next(check, now)) continue;
      this.running.delete(id);
      if (mayTalk(check)) void this.talk(check, now);
      else this.conclude(check, NOTHING_SAID);
      this.events.changed();
    }
  }

  /** Sends what is next; false once everything was asked and waited for. */
  private next(check: Check, now: number): boolean {
    const { subnetId, address } = check.target;
    check.nextAt = now + PAUSE;
    if (!this.events.isReady(subnetId)) return now < check.endsAt;
    if (check.asks < ASKS) {
      if (check.asks === 0) {
        check.startedAt = now;
        check.endsAt = now + LISTEN + ASKS * PAUSE + PINGS * PAUSE;
      }
      check.asks += 1;
      this.events.askArp(subnetId, address);
      return true;
    }
    if (check.macs.size > 0 && check.pong === undefined && check.pings < PINGS) {
      check.pingedAt = now;
      this.events.ping(subnetId, address, IDENTIFIER, check.sequence + check.pings);
      check.pings += 1;
      return true;
    }
    if (check.macs.size === 0) return now < check.startedAt + LISTEN;
    return check.pong === undefined && check.target.answersPing && now < check.endsAt;
  }

  private async talk(check: Check, now: number): Promise<void> {
    const { interfaceId, subnetId, address, proof } = check.target;
    this.talking.set(interfaceId, check);
    await pause(this.events.clock, check.startedAt + QUIET - now);
    const said = await this.interviews.ask(subnetId, address, proof);
    // Somebody fell silent meanwhile, or asked anew.
    if (this.talking.get(interfaceId) !== check) return;
    this.talking.delete(interfaceId);
    if (said) this.conclude(check, said);
    const next = this.after.get(interfaceId);
    this.after.delete(interfaceId);
    if (next) this.start([next[0]], next[1], this.events.clock.now());
    this.events.changed();
  }

  private conclude({ target, by, macs, pong, asks }: Check, interview: Interview): void {
    const { mac, address, proof, stationName } = target;
    const asked: CheckFacts = {
      asked: formatIpv4(address),
      ...(macs.size > 0 ? { found: [...macs].map(formatMac).join(', ') } : {}),
      ...(by.proofId === undefined ? {} : { proof: by.proofId }),
    };
    const { person } = by;
    if (macs.size === 0) {
      const why = asks === 0 ? { why: 'no-voice' } : {};
      this.events.record('no-answer', target, { ...asked, ...why }, { person });
      return;
    }
    const station = mac === undefined ? undefined : this.events.station(mac);
    const found: Found = { ...interview, macs: [...macs], pingMillis: pong, station };
    const network = { mask: maskOf(target.length), gateway: target.gateway ?? UNSPECIFIED };
    const compared = compareFound({ ...proof, ...network, mac, stationName }, found);
    const kind = compared.differences.length > 0 ? 'contradicted' : 'found-as-planned';
    const facts = { ...asked, ...proofFacts(found, compared, proof.offers) };
    this.events.record(kind, target, facts, { person });
  }
}

const packetsFor = ({ proof }: FieldTarget): number =>
  stepsOf(proof).reduce((sum, step) => sum + packetsOf(step, proof), ASKING);

/** Never a word to another device that happens to answer at the address. */
const mayTalk = ({ target: { mac, proof }, macs }: Check): boolean =>
  mac !== undefined && macs.size === 1 && macs.has(mac) && stepsOf(proof).length > 0;
