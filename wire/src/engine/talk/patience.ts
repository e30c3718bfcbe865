import { pause, type Clock } from '@ipsonomo/core/clock';
import type { Ipv4, MacAddress } from '@ipsonomo/core/net';
import type { TcpFailure, TcpRequest, TcpStream, UdpQuestion } from '../../carriers/carrier';
import type { FieldSubnet, FieldTarget, RecordEvidence } from '../../protocol';

export interface VoiceEvents {
  readonly clock: Clock;
  needVoice(subnetId: string): void;
  /** The address Ipsonomo speaks from in this subnet, undefined until it is claimed. */
  voice(subnetId: string): Ipv4 | undefined;
}

/** What a conversation with one device needs of the wire. */
export interface TalkEvents extends VoiceEvents {
  /** Everybody who answers for an address. */
  whoIsAt(subnetId: string, address: Ipv4): Promise<ReadonlySet<MacAddress> | 'no-voice'>;
  /** The subnet to speak in about an address. */
  around(address: Ipv4): FieldSubnet;
  /** Where a device is now; undefined where nobody knows. */
  whereIs(target: FieldTarget): Ipv4 | undefined;
  open(subnetId: string, request: TcpRequest): Promise<TcpStream | TcpFailure>;
  /** The first answer to one datagram. */
  ask(subnetId: string, question: UdpQuestion): Promise<Uint8Array | TcpFailure>;
  readonly record: RecordEvidence;
  changed(): void;
}

const LOOKS = 40;
const LOOK_PAUSE = 50;

/** The address Ipsonomo speaks from in a subnet, claimed if need be; undefined where none can be had. */
export async function voiceIn(events: VoiceEvents, subnetId: string): Promise<Ipv4 | undefined> {
  events.needVoice(subnetId);
  for (let looks = 0; looks < LOOKS; looks += 1) {
    const address = events.voice(subnetId);
    if (address !== undefined) return address;
    await pause(events.clock, LOOK_PAUSE);
  }
  return undefined;
}
