import {
  newHost,
  nextTickOf,
  stepHost,
  type Dissected,
  type HostInput,
  type HostNews,
  type HostState,
  type Ipv4,
  type MacAddress,
} from '@ipsonomo/core';
import type { FieldSubnet, VoiceState } from './protocol';

/** Shorter than RFC 5227 §1.1 asks: a person waits, and each give is probed again before it. */
const CLAIM = { probes: 3, interval: 150, wait: 250 };

interface Voice {
  readonly subnet: FieldSubnet;
  host: HostState;
  /** Which of the subnet's candidates is being claimed or spoken from. */
  candidate: number;
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
    const voice: Voice = { subnet, host: newHost(traits), candidate: 0 };
    this.voices.set(subnet.id, voice);
    this.claim(voice, now);
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
    for (const voice of this.voices.values())
      if ((nextTickOf(voice.host) ?? Infinity) <= now) this.stepVoice(voice, { kind: 'tick' }, now);
  }

  nextAt(): number {
    return Math.min(
      Infinity,
      ...[...this.voices.values()].map((voice) => nextTickOf(voice.host) ?? Infinity),
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

  private claim(voice: Voice, now: number): void {
    const address = voice.subnet.voices[voice.candidate];
    if (address === undefined) {
      this.events.noneFree(voice.subnet);
      return;
    }
    const { length, gateway } = voice.subnet;
    const wanted = { address, length, ...(gateway === undefined ? {} : { gateway }) };
    this.stepVoice(voice, { kind: 'claim', wanted, timing: CLAIM }, now);
  }

  private stepVoice(voice: Voice, input: HostInput, now: number): void {
    const { state, frames, news } = stepHost(voice.host, input, now);
    voice.host = state;
    for (const frame of frames) this.events.transmit(frame);
    for (const one of news) {
      if (one.kind === 'conflict') {
        this.events.taken(one.address, one.mac);
        // Never defend an address of the plant: step aside to the next free one.
        voice.host = { ...voice.host, configured: undefined };
        voice.candidate += 1;
        this.claim(voice, now);
      }
      if (one.kind === 'claimed' || one.kind === 'conflict') this.events.changed();
      this.events.news(voice.subnet.id, one);
    }
  }
}
