import type { Ipv4, MacAddress } from '@ipsonomo/core/net';
import type { Dissected, Drop } from '@ipsonomo/core/wire';
import type { FieldPlan, FieldTask } from '../protocol';

/**
 * A part of what happens on a wire: it hears, or it goes on until it ends by itself or somebody falls silent. The
 * engine calls the hooks that a unit has, unit by unit in the order in which they are registered.
 */
export interface Unit {
  /** The plan is another one now. */
  plan?(plan: FieldPlan, now: number): void;
  /** Another run begins: what was seen in the one before does not count. */
  forget?(): void;
  /** Ends it at once: nothing of it is sent any more. */
  clear?(): void;
  /** What it is doing; frames may leave only while somebody does something. */
  tasks?(): readonly FieldTask[];
  /** Does what is due. */
  run?(now: number): void;
  /** When there is more to do. */
  nextAt?(): number;
  /** A frame of somebody else's came in while a run listens. */
  frame?(frame: Dissected, bytes: Uint8Array, now: number): void;
  /** Somebody says it has an address (ARP sender). */
  sighting?(address: Ipv4, mac: MacAddress, frame: Uint8Array, now: number): void;
  /** The cable was plugged in, or is gone. */
  link?(isUp: boolean, now: number): void;
  /** From now on an address of ours may be spoken from in a subnet. */
  voiceReady?(subnetId: string, now: number): void;
  /** A ping of ours was answered. */
  pong?(from: Ipv4, identifier: number, sequence: number, now: number): void;
  /** A router says that it dropped a ping of ours. */
  dropped?(from: Ipv4, drop: Drop, identifier: number, sequence: number, now: number): void;
}
