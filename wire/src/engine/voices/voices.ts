import {
  type ClaimTiming,
  newHost,
  nextTickOf,
  stepHost,
  type HostInput,
  type HostNews,
  type HostState,
} from '@ipsonomo/core/host';
import type { Ipv4, MacAddress } from '@ipsonomo/core/net';
import type { Dissected } from '@ipsonomo/core/wire';
import type { FieldSubnet, VoiceState } from '../../protocol';

/** Shorter than RFC 5227 §1.1 asks: a person waits, and each give is probed again before it. */
const CLAIM = { probes: 3, interval: 150, wait: 250 };
/** Somebody said to have it: whoever really has it answers at once (RFC 5227 §2.1.1, a host answers for its address). */
const QUESTION = { probes: 2, interval: 75, wait: 75 };
/** Where none was free, all are tried again after this time. */
const AGAIN = 10_000;

interface Voice {
  readonly subnet: FieldSubnet;
  host: HostState;
  /** Which of the subnet's candidates is being claimed or spoken from. */
  candidate: number;
  /** When all are tried again; undefined while one is claimed or held. */
  againAt: number | undefined;
  isTold: boolean;
}

export interface VoiceEvents {
  transmit(frame: Uint8Array): void;
  news(subnetId: string, news: HostNews): void;
  taken(address: Ipv4, mac: MacAddress): void;
  /** Every address Ipsonomo might speak from is in other hands: it stays silent in this subnet. */
  noneFree(subnet: FieldSubnet): void;
  changed(): void;
}

/** Ipsonomo's own addresses on the wire: one small host for each subnet it has to speak in. */
export class Voices {
  private readonly voices = new Map<string, Voice>();

  constructor(
    private readonly mac: MacAddress,
    private readonly events: VoiceEvents,
  ) {}

  /** The address spoken from in the subnet, undefined until it is claimed. */
  addressIn(subnetId: string): Ipv4 | undefined {
    return this.voices.get(subnetId)?.host.configured?.address;
  }

  /** Neither an address is held nor one was looked for in vain: that is looked for anew the next time. */
  get areNone(): boolean {
    return this.voices.size === 0;
  }

  /** Begins to claim an address in the subnet, unless that was done. */
  need(subnet: FieldSubnet, now: number): void {
    if (this.voices.has(subnet.id)) return;
    const traits = { mac: this.mac, answersPing: true, forwards: false, tcpPorts: [] };
    const host = newHost(traits);
    const voice: Voice = { subnet, host, candidate: 0, againAt: undefined, isTold: false };
    this.voices.set(subnet.id, voice);
    this.claim(voice, CLAIM, now);
  }

  isOurs(address: Ipv4): boolean {
    return [...this.voices.values()].some(({ host }) => host.configured?.address === address);
  }

  /** The plan changed: a voice whose address is now another's, or whose mask is old, claims anew. */
  plan(subnets: readonly FieldSubnet[], now: number): void {
    for (const [id, voice] of [...this.voices]) {
      const subnet = subnets.find((one) => one.id === id);
      const { length, gateway } = voice.subnet;
      const address = voice.host.configured?.address ?? voice.subnet.voices[voice.candidate];
      const stays =
        subnet?.length === length &&
        subnet.gateway === gateway &&
        address !== undefined &&
        subnet.voices.includes(address);
      if (stays) continue;
      this.voices.delete(id);
      if (subnet) this.need(subnet, now);
    }
  }

  step(subnetId: string, input: HostInput, now: number): void {
    const voice = this.voices.get(subnetId);
    if (voice) this.stepVoice(voice, input, now);
  }

  frame(frame: Dissected, now: number): void {
    for (const voice of this.voices.values()) this.stepVoice(voice, { kind: 'frame', frame }, now);
  }

  run(now: number): void {
    for (const voice of this.voices.values()) {
      if ((nextTickOf(voice.host) ?? Infinity) <= now) this.stepVoice(voice, { kind: 'tick' }, now);
      if ((voice.againAt ?? Infinity) > now) continue;
      voice.candidate = 0;
      this.claim(voice, CLAIM, now);
    }
  }

  nextAt(): number {
    return Math.min(
      Infinity,
      ...[...this.voices.values()].flatMap(({ host, againAt }) => [
        nextTickOf(host) ?? Infinity,
        againAt ?? Infinity,
      ]),
    );
  }

  /** Gives up every address. */
  clear(): void {
    this.voices.clear();
  }

  states(): readonly VoiceState[] {
    return [...this.voices.values()].flatMap(({ subnet, host, candidate }) => {
      const address = host.configured?.address ?? subnet.voices[candidate];
      if (address === undefined) return [];
      return [{ subnetId: subnet.id, address, state: host.configured ? 'ready' : 'claiming' }];
    });
  }

  private claim(voice: Voice, timing: ClaimTiming, now: number): void {
    const address = voice.subnet.voices[voice.candidate];
    voice.againAt = address === undefined ? now + AGAIN : undefined;
    if (address === undefined) {
      if (!voice.isTold) this.events.noneFree(voice.subnet);
      voice.isTold = true;
      return;
    }
    const { length, gateway } = voice.subnet;
    const wanted = { address, length, ...(gateway === undefined ? {} : { gateway }) };
    this.stepVoice(voice, { kind: 'claim', wanted, timing }, now);
  }

  private stepVoice(voice: Voice, input: HostInput, now: number): void {
    const held = voice.host.configured?.address;
    const { state, frames, news } = stepHost(voice.host, input, now);
    voice.host = state;
    const conflict = news.find((one) => one.kind === 'conflict');
    // An address of the plant is never defended: who has it would lose it at all who believe us.
    if (!conflict) for (const frame of frames) this.events.transmit(frame);
    if (conflict) this.conflict(voice, conflict, held, now);
    for (const one of news) {
      if (one.kind === 'claimed' || one.kind === 'conflict') this.events.changed();
      this.events.news(voice.subnet.id, one);
    }
  }

  /**
   * R-STEP-ASIDE: where somebody says it has the address that we hold, we fall silent and ask; a word alone, which anybody can
   * say of any address, does not take it. Who is heard of it while we ask, or before we held it, has it: the next one then.
   */
  private conflict(
    voice: Voice,
    { address, mac }: Extract<HostNews, { kind: 'conflict' }>,
    held: Ipv4 | undefined,
    now: number,
  ): void {
    voice.host = { ...voice.host, configured: undefined };
    if (held === address) return this.claim(voice, QUESTION, now);
    this.events.taken(address, mac);
    voice.candidate += 1;
    this.claim(voice, CLAIM, now);
  }
}
