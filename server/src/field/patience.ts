import type { Ipv4 } from '@ipsonomo/core';

export const pause = (millis: number) =>
  new Promise<void>((resolve) => setTimeout(resolve, millis));

export interface VoiceEvents {
  needVoice(subnetId: string): void;
  /** The address Ipsonomo speaks from in this subnet, undefined until it is claimed. */
  voice(subnetId: string): Ipv4 | undefined;
}

const LOOKS = 40;
const LOOK_PAUSE = 50;

/** The address Ipsonomo speaks from in a subnet, claimed if need be; undefined where none can be had. */
export async function voiceIn(events: VoiceEvents, subnetId: string): Promise<Ipv4 | undefined> {
  events.needVoice(subnetId);
  for (let looks = 0; looks < LOOKS; looks += 1) {
    const address = events.voice(subnetId);
    if (address !== undefined) return address;
    await pause(LOOK_PAUSE);
  }
  return undefined;
}
