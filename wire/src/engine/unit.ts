import type { Ipv4, MacAddress } from '@ipsonomo/core/net';
import type { FieldTask } from '../protocol';

/** Something that goes on on the wire until it ends by itself or somebody falls silent. */
export interface Unit {
  /** Ends it at once: nothing of it is sent any more. */
  clear(): void;
  /** What it is doing; frames may leave only while somebody does something. */
  tasks?(): readonly FieldTask[];
  /** Does what is due. */
  run?(now: number): void;
  /** When there is more to do. */
  nextAt?(): number;
  /** Somebody says it has an address (ARP sender). */
  sighting?(address: Ipv4, mac: MacAddress, frame: Uint8Array, now: number): void;
}
